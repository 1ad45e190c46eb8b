package org.ysthmos.app.duplicate;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.PairMapper;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.likeness.TaskLikeness;
import org.ysthmos.core.likeness.TitleLikeness;

/**
 * Looks at what may be a duplicate where it stands, before a person is asked: of two tasks one may
 * be done, or gone, or called otherwise by now.
 */
@Component
class DuplicateLooks implements WithThread {

  private static final Duration BETWEEN = Duration.ofSeconds(5);

  /** After so many looks in vain it is shown to a person all the same. */
  private static final int MOST_VAIN = 6;

  private static final int AT_ONCE = 50;

  /** How often some of those that a person is asked about are looked at again. */
  private static final Duration AGAIN = Duration.ofMinutes(10);

  /** So many of them: what they cost in calls must keep nothing else waiting. */
  static final int FEW = 5;

  /** What one look came to. */
  private enum Came {
    SETTLED,
    /** Its task is not made yet, or there was no room for the calls. */
    LATER
  }

  private final DuplicateMapper mapper;
  private final KnownTitles titles;
  private final TitlesAtStart atStart;
  private final PairMapper pairs;
  private final Pairs agreed;
  private final TraceMapper traces;
  private final Bridges bridges;
  private final Sides sides;
  private final Journal journal;
  private final DiskRoom room;
  private final LiveFeed feed;
  private final WorkSignals.Signal signal = new WorkSignals.Signal();
  private final KeptThread thread;
  private long lookedAgain = System.nanoTime();
  private long lookedDownTo = Long.MAX_VALUE;

  DuplicateLooks(
      DuplicateMapper mapper,
      KnownTitles titles,
      TitlesAtStart atStart,
      PairMapper pairs,
      Pairs agreed,
      TraceMapper traces,
      Bridges bridges,
      Sides sides,
      Journal journal,
      DiskRoom room,
      LiveFeed feed) {
    this.mapper = mapper;
    this.titles = titles;
    this.atStart = atStart;
    this.pairs = pairs;
    this.agreed = agreed;
    this.traces = traces;
    this.bridges = bridges;
    this.sides = sides;
    this.journal = journal;
    this.room = room;
    this.feed = feed;
    // They wait where they stand, and are counted on Pairs as not looked at yet.
    this.thread =
        KeptThread.ofRounds(
            "duplicate-looks",
            signal,
            () -> atStart.isDone() ? BETWEEN : Duration.ofMillis(1),
            this::round,
            "possible duplicates could not be looked at");
  }

  /** Something was found. */
  void raise() {
    signal.raise();
  }

  private void round() {
    atStart.readSome();
    if (room.isEnough()) {
      lookAtAll();
      if (System.nanoTime() - lookedAgain >= AGAIN.toNanos()) {
        lookedAgain = System.nanoTime();
        lookAgain();
      }
    }
  }

  private void lookAtAll() {
    long after = 0;
    List<DuplicateRow> some = mapper.inState(State.TO_LOOK, after, AT_ONCE);
    while (!some.isEmpty() && thread.isRunning()) {
      for (DuplicateRow row : some) {
        after = row.id();
        if (lookAt(row) == Came.SETTLED) {
          feed.changed(row.bridgeId(), "");
        }
      }
      some = mapper.inState(State.TO_LOOK, after, AT_ONCE);
    }
  }

  /**
   * Of those that a person is asked about, some at a time and all in turn, those are left out of
   * which one is done or gone by now. What waits with its task stays: only a person lets it go on.
   */
  void lookAgain() {
    List<DuplicateRow> some = mapper.newest(State.OPEN, lookedDownTo, FEW);
    lookedDownTo = some.size() < FEW ? Long.MAX_VALUE : some.getLast().id();
    for (DuplicateRow row : some) {
      PairRow ours = pairs.find(row.bridgeId(), row.matchHash());
      boolean over =
          !row.waits()
              && (isOver(row, row.otherRecord())
                  || isOver(row, ours == null ? null : ours.targetRecord()));
      if (over) {
        Came unused = drop(row);
        feed.changed(row.bridgeId(), "");
      }
    }
  }

  private boolean isOver(DuplicateRow row, @Nullable String record) {
    if (record == null) {
      return true;
    }
    return switch (sides.read(new CollectionRef(row.systemId(), row.collectionId()), record)) {
      case Sides.Gone gone -> true;
      case Sides.There there -> there.closed();
      case Sides.Unread unread -> false;
    };
  }

  private Came lookAt(DuplicateRow row) {
    PairRow ours = pairs.find(row.bridgeId(), row.matchHash());
    TraceRow trace = traces.at(row.traceSeq());
    if (ours == null || ours.targetRecord() == null) {
      if (trace == null || trace.verdict() != null) {
        return drop(row);
      }
      return Came.LATER;
    }
    Optional<String> other = otherRecord(row, ours);
    if (other.isEmpty() || other.get().equals(ours.targetRecord()) || isGone(ours)) {
      return drop(row);
    }
    CollectionRef at = new CollectionRef(row.systemId(), row.collectionId());
    return switch (sides.read(at, other.get())) {
      case Sides.Gone gone -> drop(row);
      case Sides.There there when there.closed() -> drop(row);
      case Sides.There there -> open(row, other.get(), there.task());
      case Sides.Unread unread when unread.failure().noRoom() -> Came.LATER;
      case Sides.Unread unread when row.looks() < MOST_VAIN -> {
        journal.runSoon(() -> mapper.inVain(row.id()));
        yield Came.LATER;
      }
      case Sides.Unread unread -> {
        String why = "It could not be looked at: " + Words.sentence(unread.failure());
        journal.runSoon(
            () ->
                mapper.open(
                    row.id(),
                    other.get(),
                    row.otherTitle(),
                    row.score(),
                    Words.limited(row.reasons() + "\n" + why, 1000)));
        yield Came.SETTLED;
      }
    };
  }

  private static boolean isGone(PairRow pair) {
    return pair.leftSo() || pair.takenBack();
  }

  /** The record of the other, if it may be the same thing: not another task of the same record. */
  private Optional<String> otherRecord(DuplicateRow row, PairRow ours) {
    if (row.otherBridge() == null || row.otherHash() == null) {
      return Optional.ofNullable(row.otherRecord());
    }
    PairRow other = pairs.find(row.otherBridge(), row.otherHash());
    if (other == null || isGone(other) || isOfSameRecord(other, ours)) {
      return Optional.empty();
    }
    return Optional.ofNullable(other.targetRecord());
  }

  private static boolean isOfSameRecord(PairRow one, PairRow other) {
    return one.sourceSystem().equals(other.sourceSystem())
        && one.sourceCollection().equals(other.sourceCollection())
        && one.sourceRecord().equals(other.sourceRecord());
  }

  /** Both are there; what they are called now says whether they are alike. */
  private Came open(DuplicateRow row, String record, JsonNode task) {
    CollectionRef at = new CollectionRef(row.systemId(), row.collectionId());
    String title = StoredText.of(task.path(sides.titleField(at)));
    Optional<TitleLikeness> likeness = TitleLikeness.of(row.title(), title);
    if (likeness.isEmpty()) {
      titles.put(at, row.other(), title);
      return drop(row);
    }
    if (mapper.ofPair(row.bridgeId(), row.matchHash()).stream()
        .anyMatch(one -> one.state() == State.OPEN)) {
      // The first that is open is enough to decide by.
      journal.runSoon(() -> mapper.drop(row.id()));
      return Came.SETTLED;
    }
    TaskLikeness alike =
        sides.likeness(
            at,
            likeness.get(),
            compared(row.bridgeId()),
            agreed.agreed(row.bridgeId(), row.matchHash()),
            task);
    String reasons = String.join("\n", alike.reasons()) + "\n" + whoMade(row);
    journal.runSoon(
        () ->
            mapper.open(
                row.id(),
                record,
                Words.limited(title, 300),
                alike.score(),
                Words.limited(reasons, 1000)));
    return Came.SETTLED;
  }

  private List<String> compared(String bridge) {
    return bridges
        .live(bridge)
        .flatMap(live -> live.version().definition().duplicates())
        .map(BridgeDefinition.Duplicates::compare)
        .orElse(List.of());
  }

  private String whoMade(DuplicateRow row) {
    String by = row.otherBridge();
    if (by == null) {
      return "The other was made over there";
    }
    return by.equals(row.bridgeId())
        ? "The other was made by the same bridge, of another record"
        : "The other was made by bridge “%s”".formatted(bridges.nameOf(by));
  }

  private Came drop(DuplicateRow row) {
    titles.forget(new CollectionRef(row.systemId(), row.collectionId()), row.other());
    journal.runSoon(() -> mapper.drop(row.id()));
    return Came.SETTLED;
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
