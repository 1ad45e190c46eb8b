package org.ysthmos.app.recall;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.TaskLooks;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.recall.RecallMapper.RecallRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * Looks at the records of short lists before a person begins, so that they see which of them
 * somebody changed. Of long ones that would cost the system as many calls as taking them back does;
 * those are looked at one by one just before they go, as all are.
 */
@Component
class RecallLooks implements WithThread {

  /** Of a longer list nothing is looked at beforehand. */
  static final int SHORT = 300;

  private static final Duration BETWEEN = Duration.ofSeconds(5);

  /** After so many looks in vain, one after the other, a list is let be. */
  private static final int MOST_VAIN = 30;

  /** So many of a list are looked at before the next list has its turn. */
  private static final int TURN = 20;

  private final RecallMapper mapper;
  private final TaskLooks looks;
  private final Journal journal;
  private final DiskRoom room;
  private final LiveFeed feed;
  private final WorkSignals.Signal signal = new WorkSignals.Signal();
  private final Map<Long, Integer> inVain = new HashMap<>();
  private final KeptThread thread;

  RecallLooks(RecallMapper mapper, TaskLooks looks, Journal journal, DiskRoom room, LiveFeed feed) {
    this.mapper = mapper;
    this.looks = looks;
    this.journal = journal;
    this.room = room;
    this.feed = feed;
    // What is not looked at now is looked at before it goes; the list says how many those are.
    this.thread =
        KeptThread.ofRounds(
            "recall-looks",
            signal,
            () -> BETWEEN,
            this::lookAtAll,
            "a list could not be looked through");
  }

  /** A list was made. */
  void raise() {
    signal.raise();
  }

  private void lookAtAll() throws InterruptedException {
    for (RecallRow recall : room.isEnough() ? mapper.listed() : List.<RecallRow>of()) {
      lookAtSome(recall.id());
    }
  }

  private void lookAtSome(long id) throws InterruptedException {
    List<ItemRow> unlooked = mapper.unlooked(id, SHORT + 1);
    if (unlooked.size() > SHORT) {
      return;
    }
    for (ItemRow item : unlooked.subList(0, Math.min(TURN, unlooked.size()))) {
      RecallRow now = mapper.find(id);
      if (!thread.isRunning()
          || now == null
          || now.state() != RecallState.LISTED
          || inVain.getOrDefault(id, 0) >= MOST_VAIN) {
        return;
      }
      Duration wait = lookAt(item);
      if (wait.isZero()) {
        inVain.remove(id);
      } else {
        int unused = inVain.merge(id, 1, Integer::sum);
      }
      TimeUnit.NANOSECONDS.sleep(wait.toNanos());
    }
    if (unlooked.size() > TURN) {
      signal.raise();
    }
  }

  /** How long to wait before the next; nothing if it was answered. */
  private Duration lookAt(ItemRow item) {
    List<RemoteCall> calls = new ArrayList<>();
    TaskLooks.Look look =
        looks.look(item.systemId(), item.collectionId(), item.recordId(), calls::add);
    switch (look) {
      case TaskLooks.Same same -> note(item, Looked.SAME, item.words(), true);
      case TaskLooks.Changed changed ->
          note(item, Looked.CHANGED, and("Somebody changed it since", item.words()), false);
      case TaskLooks.Gone gone -> note(item, Looked.GONE, "Others removed it", true);
      case TaskLooks.Unseen unseen -> {
        return vain(item, unseen.failure());
      }
    }
    return Duration.ZERO;
  }

  private static String and(String words, String more) {
    return more.isEmpty() ? words : words + ". " + more;
  }

  private Duration vain(ItemRow item, Failure failure) {
    if (failure.noRoom()) {
      Duration wait = failure.retryAfter().orElse(BETWEEN);
      return wait.compareTo(BETWEEN) > 0 ? BETWEEN : wait.plusMillis(1);
    }
    note(item, Looked.UNKNOWN, "Not seen: " + Words.sentence(failure), true);
    return Duration.ofMillis(1);
  }

  private void note(ItemRow item, Looked looked, String words, boolean goes) {
    journal.runSoon(
        () ->
            mapper.looked(
                item.recallId(), item.deliverySeq(), looked, Words.limited(words, 1000), goes));
    feed.changed("", "");
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
