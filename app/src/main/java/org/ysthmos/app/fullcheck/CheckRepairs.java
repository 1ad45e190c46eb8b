package org.ysthmos.app.fullcheck;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.fullcheck.CheckItemMapper.ItemRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedLooks;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.sync.Side;

/**
 * Puts right what was chosen, a few at a time, so that a stop leaves little under way: each by a
 * trace that looks at both tasks as they are then, through all that any trace goes through.
 */
@Component
class CheckRepairs {

  private static final Logger LOG = LoggerFactory.getLogger(CheckRepairs.class);

  private static final int UNDER_WAY = 40;

  private final FullChecks checks;
  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final SyncedLooks looks;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final Journal journal;
  private final DiskRoom room;
  private final LiveFeed feed;

  CheckRepairs(
      FullChecks checks,
      FullCheckMapper mapper,
      CheckItemMapper items,
      SyncedLooks looks,
      TraceMapper traces,
      TraceQueue queue,
      Journal journal,
      DiskRoom room,
      LiveFeed feed) {
    this.checks = checks;
    this.mapper = mapper;
    this.items = items;
    this.looks = looks;
    this.traces = traces;
    this.queue = queue;
    this.journal = journal;
    this.room = room;
    this.feed = feed;
  }

  /** Carries each that puts something right a little further. */
  @Scheduled(fixedDelay = 250)
  void goOn() {
    if (!room.isEnough()) {
      return;
    }
    for (CheckRow check : mapper.in(List.of(CheckState.REPAIRING))) {
      try {
        if (journal.now(() -> goOnInChange(check.id()))) {
          queue.raise();
          feed.changed(check.bridgeId(), "");
        }
      } catch (RuntimeException e) {
        LOG.error("full check {} cannot put right what was chosen", check.id(), e);
        String why = "Putting right broke off (%s). Choose again what is left.".formatted(e);
        journal.run(() -> breakOff(check.id(), why));
        feed.changed(check.bridgeId(), "");
      }
    }
  }

  private void breakOff(long id, String why) {
    CheckRow check = checks.get(id);
    items.leave(id);
    int unused = checks.become(check, CheckState.ENDED, why);
  }

  /** Whether anything changed. */
  private boolean goOnInChange(long id) {
    CheckRow check = checks.get(id);
    if (check.state() != CheckState.REPAIRING) {
      return false;
    }
    List<ItemRow> underWay = items.inState(id, CheckItemState.UNDER_WAY, 0, UNDER_WAY);
    int ended = 0;
    for (ItemRow item : underWay) {
      ended += end(item) ? 1 : 0;
    }
    int free = UNDER_WAY - underWay.size() + ended;
    List<ItemRow> next = items.inState(id, CheckItemState.WAITING, 0, free);
    next.forEach(item -> begin(check, item));
    boolean through = next.isEmpty() && underWay.size() == ended;
    return (through && checks.become(check, CheckState.ENDED, null) == 1)
        || ended > 0
        || !next.isEmpty();
  }

  private void begin(CheckRow check, ItemRow item) {
    Optional<String> trace = trace(check, item);
    items.put(
        check.id(),
        item.number(),
        trace.isPresent() ? CheckItemState.UNDER_WAY : CheckItemState.NOT_PUT_RIGHT,
        trace.orElse(null));
  }

  private Optional<String> trace(CheckRow check, ItemRow item) {
    String by = "full check " + check.id();
    String pair = item.pairHash();
    Look look = CloserLooks.look(item);
    if (pair != null) {
      return looks.look(
          check.bridgeId(), pair, look, by, "Looked at both, as a full check found them otherwise");
    }
    Side side = item.leftRecord() == null ? Side.RIGHT : Side.LEFT;
    return looks.look(
        check.bridgeId(),
        side,
        Objects.requireNonNull(side == Side.LEFT ? item.leftRecord() : item.rightRecord()),
        look,
        by,
        look.meets()
            .map(other -> "A person says that it and “%s” are the same".formatted(other))
            .orElse("Looked at, as a full check found no other one of it"));
  }

  /** Whether its trace has ended by now. */
  private boolean end(ItemRow item) {
    TraceRow trace = traces.find(Objects.requireNonNull(item.traceId()));
    if (trace != null && trace.finishedAt() == null) {
      return false;
    }
    items.put(item.checkId(), item.number(), state(trace), item.traceId());
    return true;
  }

  /** One of which the trace is not kept any more cannot have failed lately. */
  private static CheckItemState state(@Nullable TraceRow trace) {
    return trace != null && trace.verdict() == Verdict.FAILED
        ? CheckItemState.NOT_PUT_RIGHT
        : CheckItemState.PUT_RIGHT;
  }
}
