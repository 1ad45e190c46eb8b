package org.ysthmos.app.recall;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.recall.RecallMapper.RecallRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.CarriedBy;
import org.ysthmos.app.trace.Resender;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.recall.RecallOrder;
import org.ysthmos.core.recall.RecallOrder.Later;
import org.ysthmos.core.recall.RecallWay;

/**
 * Carries recalls on, some records in each change: what is to go becomes deliveries, the last made
 * first, and few of them at a time, so that a stop leaves little under way. How far it is stands
 * with the records alone, so that a kill at any moment takes nothing away twice and leaves nothing
 * out, and the next start goes on.
 */
@Component
class RecallFeeder {

  private static final Logger LOG = LoggerFactory.getLogger(RecallFeeder.class);

  /** As many are with the courier at once: more than any system has workers. */
  private static final int UNDER_WAY = 40;

  private static final int PAGE = 200;

  private final RecallMapper mapper;
  private final RecallLists lists;
  private final DeliveryQueue queue;
  private final Pairs pairs;
  private final Resender resender;
  private final Stories stories;
  private final IncidentBook incidents;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final LiveFeed feed;

  RecallFeeder(
      RecallMapper mapper,
      RecallLists lists,
      DeliveryQueue queue,
      Pairs pairs,
      Resender resender,
      Stories stories,
      IncidentBook incidents,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      LiveFeed feed) {
    this.mapper = mapper;
    this.lists = lists;
    this.queue = queue;
    this.pairs = pairs;
    this.resender = resender;
    this.stories = stories;
    this.incidents = incidents;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.feed = feed;
  }

  /** Carries each that runs a little further. */
  @Scheduled(fixedDelay = 250)
  void goOn() {
    if (!room.isEnough()) {
      return;
    }
    for (RecallRow recall : mapper.running()) {
      try {
        if (recall.state() == RecallState.MAKING_AGAIN) {
          journal.run(() -> makeSomeAgain(recall));
          resender.raise();
          feed.changed("", "");
        } else if (journal.now(() -> takeSomeBack(recall))) {
          queue.raise();
          feed.changed("", "");
        }
      } catch (RuntimeException e) {
        LOG.error("recall {} cannot go on", recall.id(), e);
        String problem = Words.limited(String.valueOf(e.getMessage()), 1000);
        journal.run(() -> mapper.end(recall.id(), RecallState.STOPPED, problem, clock.instant()));
        feed.changed("", "");
      }
    }
  }

  /** In a change; whether anything came of it. */
  private boolean takeSomeBack(RecallRow before) {
    RecallRow recall = mapper.find(before.id());
    if (recall == null || recall.state() != RecallState.RUNNING) {
      return false;
    }
    int underWay =
        mapper.inState(recall.id(), ItemState.UNDER_WAY, Long.MAX_VALUE, UNDER_WAY).size();
    int room = UNDER_WAY - underWay;
    boolean anyLeft = underWay > 0;
    long from = Long.MAX_VALUE;
    while (room > 0) {
      List<ItemRow> page = mapper.inState(recall.id(), ItemState.WAITING, from, PAGE);
      for (ItemRow item : page) {
        boolean goes = item.chosen() && room > 0;
        if (goes && mayGo(item)) {
          takeBack(recall, item);
          room--;
        }
        anyLeft |= item.chosen();
      }
      if (page.size() < PAGE) {
        break;
      }
      from = page.getLast().deliverySeq();
    }
    boolean ends = room > 0 && !anyLeft;
    if (ends) {
      end(recall);
    }
    return ends || room < UNDER_WAY - underWay;
  }

  private void end(RecallRow recall) {
    mapper.end(recall.id(), RecallState.ENDED, null, clock.instant());
    tell(recall, RecallCounts.of(mapper.counts(recall.id())).words());
  }

  private void tell(RecallRow recall, String words) {
    if (recall.incidentId() != null) {
      incidents.happened(recall.incidentId(), words, By.ENGINE);
    }
  }

  /** Whether it may go now; one that never may is noted so. */
  private boolean mayGo(ItemRow item) {
    List<Later> later =
        mapper.later(item.recallId(), item.traceSeq(), item.deliverySeq()).stream()
            .map(one -> new Later(one.under(), one.state().stand(one.chosen())))
            .toList();
    return switch (RecallOrder.go(later)) {
      case GO -> !isBusy(item);
      case LATER -> false;
      case NOT -> {
        put(item, ItemState.STAYS, null, "What stands under it stays");
        yield false;
      }
    };
  }

  /** While something is on its way to a task nothing else is; a held bridge keeps it there. */
  private boolean isBusy(ItemRow item) {
    if (!queue.isBusy(item.bridgeId(), item.matchHash())) {
      return false;
    }
    String held = lists.heldBridge(item);
    if (held != null) {
      put(
          item,
          ItemState.FAILED,
          null,
          "A change of it waits at “%s”, which is held. Release that, then go on".formatted(held));
    }
    return true;
  }

  private void takeBack(RecallRow recall, ItemRow item) {
    byte[] puts = puts(item);
    long number = queue.number();
    DeliveryRow delivery =
        new DeliveryRow(
            number,
            item.traceSeq(),
            item.bridgeId(),
            item.matchHash(),
            item.systemId(),
            item.collectionId(),
            puts == null
                ? item.idempotencyKey()
                : pairs.effect(item.bridgeId(), item.matchHash(), "recall:" + recall.id()),
            puts == null ? EffectKind.REMOVE : EffectKind.CHANGE,
            item.recordId(),
            puts == null ? KeptFields.write(Map.of()) : puts,
            null,
            null,
            Result.OPEN,
            null);
    queue.add(delivery, DeliveryQueue.RECALLS, Doubt.NONE, null);
    stories.add(
        item.traceSeq(),
        stories.pack(
            TraceStory.EMPTY.with(
                new Line(
                    clock.instant(),
                    0,
                    Mark.DONE,
                    "Record " + item.recordId() + wish(item.way()),
                    "With all that is taken back, by a " + recall.askedBy(),
                    "",
                    "",
                    null))));
    put(item, ItemState.UNDER_WAY, number, "");
  }

  /** What is written to the record; null if it is taken away. */
  private byte @Nullable [] puts(ItemRow item) {
    return item.way() == RecallWay.CLOSE
        ? KeptFields.write(lists.collection(item).closing())
        : item.puts();
  }

  private static String wish(RecallWay way) {
    return switch (way) {
      case TAKE_AWAY -> " is to be taken away";
      case CLOSE -> " is to be closed";
      case PUT_BACK -> " is to hold again what it held";
      case NAME -> throw new IllegalArgumentException("what is only named is not taken back");
    };
  }

  private void put(ItemRow item, ItemState state, @Nullable Long removal, String words) {
    mapper.put(item.recallId(), item.deliverySeq(), state, removal, words);
  }

  /** In a change: the events of some of what was taken back are sent again. */
  private void makeSomeAgain(RecallRow before) {
    RecallRow recall = mapper.find(before.id());
    if (recall == null || recall.state() != RecallState.MAKING_AGAIN) {
      return;
    }
    List<ItemRow> taken =
        mapper.inState(recall.id(), ItemState.TAKEN_BACK, Long.MAX_VALUE, UNDER_WAY);
    if (taken.isEmpty()) {
      mapper.end(recall.id(), RecallState.MADE_AGAIN, null, clock.instant());
      tell(recall, "All that was taken back was sent again");
      return;
    }
    Set<Long> of = new LinkedHashSet<>();
    taken.forEach(item -> of.add(item.traceSeq()));
    for (long trace : of) {
      for (ItemRow item : mapper.ofTrace(recall.id(), trace)) {
        if (item.state() == ItemState.TAKEN_BACK) {
          if (item.way() != RecallWay.PUT_BACK) {
            boolean unused = pairs.gone(item.bridgeId(), item.matchHash(), item.recordId());
          }
          put(item, ItemState.MADE_AGAIN, item.removal(), "");
        }
      }
      // The newest event of the record says what it is to hold; one that is under way says it yet.
      String newest = mapper.newestOf(trace);
      if (newest != null) {
        long unused =
            resender.begin(
                newest,
                "recall " + recall.id(),
                "Made again after it was taken back",
                CarriedBy.LIVE);
      }
    }
  }
}
