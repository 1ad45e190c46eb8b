package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.Numbers;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceWorkMapper.ReadyRow;
import org.ysthmos.app.trace.TraceWorkMapper.WorkRow;
import org.ysthmos.app.work.AheadWaits;
import org.ysthmos.app.work.ClaimLost;
import org.ysthmos.app.work.Claims;
import org.ysthmos.app.work.EachAlone;
import org.ysthmos.app.work.EmptyQueues;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.Verdict;

/**
 * The traces that have not ended, and the one place where their states change. Traces of one record
 * are worked off one after the other: the first is ready, the others stand behind it. What holds no
 * claim, is due or is let go is found through keys alone, however many others wait.
 */
@Component
public class TraceQueue {

  /** A trace that is being decided, with the claim of who decides it. */
  public record Claimed(
      TraceRow trace, @Nullable String tryDocument, int tries, int breaks, String claim) {}

  private final TraceWorkMapper work;
  private final TraceMapper traces;
  private final Journal journal;
  private final Claims claims;
  private final AppClock clock;
  private final WorkSignals signals;
  private final AheadWaits aheadWaits;
  private final Numbers numbers;
  private final Set<String> queues = ConcurrentHashMap.newKeySet();
  private final EmptyQueues<String> empty = new EmptyQueues<>();

  TraceQueue(
      TraceWorkMapper work,
      TraceMapper traces,
      Journal journal,
      Claims claims,
      AppClock clock,
      WorkSignals signals,
      Settings settings) {
    this.work = work;
    this.traces = traces;
    this.journal = journal;
    this.claims = claims;
    this.clock = clock;
    this.signals = signals;
    this.aheadWaits = new AheadWaits(settings.retry().longest(), work::pausedAhead);
    this.numbers = new Numbers(traces::numbers);
    queues.addAll(work.queues());
  }

  /** The queues that hold traces, or held some since the start. */
  public Collection<String> queues() {
    return queues;
  }

  /** The next order numbers of traces; inside a change. */
  public List<Long> numbers(int count) {
    return numbers.next(count);
  }

  /** Adds traces that begin, inside the change that keeps them. */
  public void add(List<TraceMapper.NewTrace> begun) {
    Set<String> before = new HashSet<>();
    List<WorkRow> rows = new ArrayList<>(begun.size());
    for (TraceMapper.NewTrace trace : begun) {
      String queue = trace.isTry() ? TraceRow.TRIES : trace.bridgeId();
      boolean first =
          before.add(queue + "\n" + trace.orderKey()) && !isUnderWay(queue, trace.orderKey());
      rows.add(
          new WorkRow(
              trace.seq(),
              queue,
              trace.orderKey(),
              first ? TraceState.READY : TraceState.BEHIND,
              null,
              false,
              0,
              0,
              null));
      queues.add(queue);
      empty.comesTo(queue);
    }
    Chunks.each(rows, work::add);
  }

  /** Whether any trace of a record has not ended in a queue. */
  public boolean isUnderWay(String queue, String orderKey) {
    return work.unfinished(queue, orderKey) > 0;
  }

  /** Whether anything of a queue could be claimed. */
  public boolean anyReady(String queue) {
    return empty.anyReady(queue, () -> work.anyReady(queue) != null);
  }

  /** Claims traces of a queue, in order. */
  public List<Claimed> claim(String queue, int most) {
    if (!anyReady(queue)) {
      return List.of();
    }
    return journal.soon(() -> claimNow(queue, most));
  }

  private List<Claimed> claimNow(String queue, int most) {
    List<ReadyRow> ready = work.ready(queue, most);
    if (ready.isEmpty()) {
      return List.of();
    }
    List<Long> seqs = ready.stream().map(ReadyRow::traceSeq).toList();
    String claim = claims.next() + "-";
    if (work.claim(seqs, claim, claims.until()) != seqs.size()) {
      // Another node took some of them meanwhile: all of it is undone, and tried again.
      throw new ClaimLost("traces of " + queue);
    }
    Map<Long, TraceRow> rows = new HashMap<>();
    traces.of(seqs).forEach(row -> rows.put(row.seq(), row));
    List<Claimed> claimed = new ArrayList<>();
    for (ReadyRow row : ready) {
      TraceRow trace = Objects.requireNonNull(rows.get(row.traceSeq()), "a trace is gone");
      String document = trace.isTry() ? traces.tryDocument(trace.seq()) : null;
      claimed.add(new Claimed(trace, document, row.tries(), row.breaks(), claim + trace.seq()));
    }
    return claimed;
  }

  public void renew(Collection<String> held) {
    journal.runSoon(() -> work.renew(held, claims.until()));
  }

  /** Makes ready what is due and what nobody renewed in time. */
  public void wake(Set<String> running) {
    Instant now = clock.instant();
    List<Long> due = new ArrayList<>(work.due(now));
    due.addAll(aheadWaits.look(now));
    Predicate<WorkRow> ours = row -> running.contains(row.claim());
    List<WorkRow> lost =
        work.expired(now, claims.longest()).stream().filter(ours.negate()).toList();
    if (!due.isEmpty()) {
      journal.runSoon(
          () -> {
            work.wake(due);
            empty.comesToAny();
          });
    }
    EachAlone.of(
        lost,
        row ->
            journal.runSoon(
                () -> release(row, TraceState.READY, row.tries(), row.breaks(), null, null)));
  }

  private void release(
      WorkRow row,
      TraceState to,
      int tries,
      int breaks,
      @Nullable Instant notBefore,
      @Nullable String awaits) {
    change(row.traceSeq(), String.valueOf(row.claim()), to, tries, breaks, notBefore, awaits, null);
    empty.comesTo(row.queueId());
  }

  /** Puts a trace off until a time; inside a change. */
  public void pause(Claimed claimed, int tries, int breaks, Instant until) {
    change(
        claimed.trace().seq(),
        claimed.claim(),
        TraceState.PAUSED,
        tries,
        breaks,
        until,
        null,
        null);
  }

  /** Lets a trace wait until no delivery of a pair is under way; inside a change. */
  public void awaitPair(Claimed claimed, String matchHash) {
    change(
        claimed.trace().seq(),
        claimed.claim(),
        TraceState.AWAITING_PAIR,
        claimed.tries(),
        claimed.breaks(),
        null,
        matchHash,
        null);
  }

  /** Its deliveries are on their way; inside the change that stores them. */
  public void delivering(Claimed claimed, Verdict verdict) {
    change(
        claimed.trace().seq(), claimed.claim(), TraceState.DELIVERING, 0, 0, null, null, verdict);
  }

  private void change(
      long seq,
      String claim,
      TraceState to,
      int tries,
      int breaks,
      @Nullable Instant notBefore,
      @Nullable String awaits,
      @Nullable Verdict verdict) {
    if (!TraceState.DECIDING.mayBecome(to)) {
      throw new IllegalArgumentException("a trace that is being decided cannot become " + to);
    }
    if (work.giveUpClaim(
            seq,
            claim,
            to,
            tries,
            breaks,
            notBefore,
            notBefore == null ? null : clock.instant(),
            awaits,
            verdict)
        == 0) {
      throw new ClaimLost("trace " + seq);
    }
  }

  /** What a trace comes to whose last delivery has ended; empty if one of them failed. */
  Optional<Verdict> outcome(long seq) {
    WorkRow row = work.find(seq);
    if (row == null) {
      throw new ClaimLost("trace " + seq);
    }
    return row.failed()
        ? Optional.empty()
        : Optional.of(Objects.requireNonNullElse(row.verdict(), Verdict.CREATE));
  }

  /** What a trace comes to if all its deliveries are made is another than was decided. */
  public void comesTo(long seq, Verdict verdict) {
    work.comesTo(seq, verdict);
  }

  /** One of its deliveries failed; inside a change. */
  void deliveryFailed(long seq) {
    work.deliveryFailed(seq);
  }

  /** A trace that was decided has ended; the next one of its record can go. */
  void endClaimed(TraceRow trace, String claim) {
    ended(trace, work.endClaimed(trace.seq(), claim));
  }

  /** A trace that was delivered has ended; the next one of its record can go. */
  void endDelivered(TraceRow trace) {
    ended(trace, work.endDelivered(trace.seq()));
  }

  private void ended(TraceRow trace, int changed) {
    if (changed == 0) {
      throw new ClaimLost("trace " + trace.seq());
    }
    Long next = work.earliest(trace.queue(), trace.orderKey());
    if (next != null && work.letGo(next) > 0) {
      empty.comesTo(trace.queue());
    }
  }

  /** No delivery of a pair is under way any more; inside a change. */
  public void pairIsFree(String queue, String matchHash) {
    if (work.pairIsFree(queue, matchHash) > 0) {
      empty.comesTo(queue);
    }
  }

  /** When a trace is tried next that is put off; null if none is. */
  public @Nullable Instant next() {
    return work.next();
  }

  /** Whether anything is being decided. */
  public boolean isDeciding() {
    return work.deciding() > 0;
  }

  /** How many traces of a queue have not ended. */
  public int waiting(String queue) {
    return work.waiting(queue);
  }

  /** How many traces of a queue wait for deliveries. */
  public int delivering(String queue) {
    return work.delivering(queue);
  }

  /** What has not ended, by queue. */
  public List<Backlog> backlog() {
    return work.backlog().stream()
        .map(row -> new Backlog(row.queueId(), row.traces(), traces.receivedAt(row.oldest())))
        .toList();
  }

  /** What of a queue has not ended, and when the oldest of it was received. */
  public record Backlog(String queue, int traces, @Nullable Instant oldest) {}

  /** Wakes the engine; called when what was added is kept. */
  public void raise() {
    signals.toDecide().raise();
  }
}
