package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryWorkMapper.WorkRow;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.Numbers;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.AheadWaits;
import org.ysthmos.app.work.ClaimLost;
import org.ysthmos.app.work.Claims;
import org.ysthmos.app.work.EachAlone;
import org.ysthmos.app.work.EmptyQueues;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.delivery.Doubt;

/** The deliveries that have not ended, and the one place where their states change. */
@Component
public class DeliveryQueue {

  /** Deliveries to one system that may be held together: those of a bridge, or those of tries. */
  public record Queue(String system, String id) {}

  /** The queue of what takes back, which no bridge can be called: nobody's hold stops it. */
  public static final String RECALLS = "recalls/";

  /** A delivery that is being sent, with the claim of who sends it. */
  record Claimed(
      DeliveryRow delivery, String queue, int tries, int breaks, Doubt doubt, String claim) {}

  private final DeliveryWorkMapper work;
  private final DeliveryMapper deliveries;
  private final Journal journal;
  private final Claims claims;
  private final AppClock clock;
  private final AheadWaits aheadWaits;
  private final Numbers numbers;
  private final WorkSignals.Signal signal;
  private final Set<Queue> queues = ConcurrentHashMap.newKeySet();
  private final EmptyQueues<Queue> empty = new EmptyQueues<>();

  DeliveryQueue(
      DeliveryWorkMapper work,
      DeliveryMapper deliveries,
      Journal journal,
      Claims claims,
      AppClock clock,
      WorkSignals signals,
      Settings settings) {
    this.work = work;
    this.deliveries = deliveries;
    this.journal = journal;
    this.claims = claims;
    this.clock = clock;
    this.signal = signals.toDeliver();
    this.aheadWaits = new AheadWaits(settings.retry().longest(), work::pausedAhead);
    this.numbers = new Numbers(deliveries::numbers);
    work.queues().forEach(row -> queues.add(new Queue(row.systemId(), row.queueId())));
  }

  /** The queues that hold deliveries, or held some since the start. */
  Collection<Queue> queues() {
    return queues;
  }

  /** The next order number of a delivery; inside a change. */
  public long number() {
    return numbers.next();
  }

  /**
   * Adds a delivery, inside the change that decides it.
   *
   * @param waitsFor the hash of the match key of the parent that must be made first; null if none
   *     need be
   */
  public void add(DeliveryRow delivery, String queue, Doubt doubt, @Nullable String waitsFor) {
    deliveries.add(delivery);
    work.add(
        new WorkRow(
            delivery.seq(),
            delivery.traceSeq(),
            delivery.systemId(),
            queue,
            delivery.bridgeId(),
            delivery.matchHash(),
            waitsFor == null ? DeliveryState.READY : DeliveryState.AWAITING_PARENT,
            0,
            0,
            null,
            since(doubt),
            looks(doubt),
            waitsFor,
            null));
    Queue to = new Queue(delivery.systemId(), queue);
    queues.add(to);
    empty.comesTo(to);
  }

  private static @Nullable Instant since(Doubt doubt) {
    return doubt instanceof Doubt.Open open ? open.since() : null;
  }

  private static int looks(Doubt doubt) {
    return doubt instanceof Doubt.Open open ? open.looks() : 0;
  }

  /** Whether anything of a queue could be claimed. */
  boolean anyReady(Queue queue) {
    return empty.anyReady(queue, () -> work.anyReady(queue.system(), queue.id()) != null);
  }

  /** Notes what the fields that a delivery changes held before; inside the change that adds it. */
  public void heldBefore(long seq, byte[] fields) {
    deliveries.heldBefore(seq, fields);
  }

  /** Claims deliveries of a queue, in order; that they are being sent is on the disk then. */
  List<Claimed> claim(Queue queue, int most) {
    if (!anyReady(queue)) {
      return List.of();
    }
    return journal.now(() -> claimNow(queue, most));
  }

  private List<Claimed> claimNow(Queue queue, int most) {
    List<WorkRow> ready = work.ready(queue.system(), queue.id(), most);
    if (ready.isEmpty()) {
      return List.of();
    }
    List<Long> seqs = ready.stream().map(WorkRow::deliverySeq).toList();
    String claim = claims.next() + "-";
    if (work.claim(seqs, claim, claims.until()) != seqs.size()) {
      // Another node took some of them meanwhile: all of it is undone, and tried again.
      throw new ClaimLost("deliveries to " + queue.system());
    }
    Map<Long, DeliveryRow> rows =
        deliveries.of(seqs).stream().collect(Collectors.toMap(DeliveryRow::seq, row -> row));
    return ready.stream()
        .map(
            row ->
                new Claimed(
                    Objects.requireNonNull(rows.get(row.deliverySeq())),
                    row.queueId(),
                    row.tries(),
                    row.breaks(),
                    doubt(row),
                    claim + row.deliverySeq()))
        .toList();
  }

  private static Doubt doubt(WorkRow row) {
    Instant since = row.doubtSince();
    return since == null ? Doubt.NONE : new Doubt.Open(since, row.looks());
  }

  void renew(Collection<String> held) {
    journal.runSoon(() -> work.renew(held, claims.until()));
  }

  /**
   * Makes ready what is due, and what nobody renewed in time. Of that nobody knows whether it was
   * made.
   */
  void wake(Set<String> running) {
    Instant now = clock.instant();
    List<Long> due = new ArrayList<>(work.due(now));
    due.addAll(aheadWaits.look(now));
    List<WorkRow> lost =
        work.expired(now, claims.longest()).stream()
            .filter(row -> !running.contains(row.claim()))
            .toList();
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
                () -> {
                  change(
                      row.deliverySeq(),
                      String.valueOf(row.claim()),
                      DeliveryState.READY,
                      row.tries(),
                      row.breaks(),
                      null,
                      Doubt.since(now));
                  empty.comesToAny();
                }));
  }

  /**
   * Puts a delivery off until a time; inside a change.
   *
   * @param tries how many tries count by now
   */
  void pause(Claimed claimed, int tries, int breaks, Doubt doubt, Instant until) {
    change(
        claimed.delivery().seq(),
        claimed.claim(),
        DeliveryState.PAUSED,
        tries,
        breaks,
        until,
        doubt);
  }

  private void change(
      long seq,
      String claim,
      DeliveryState to,
      int tries,
      int breaks,
      @Nullable Instant notBefore,
      Doubt doubt) {
    if (!DeliveryState.SENDING.mayBecome(to)) {
      throw new IllegalArgumentException("a delivery that is being sent cannot become " + to);
    }
    int changed =
        work.giveUpClaim(
            seq,
            claim,
            to,
            tries,
            breaks,
            notBefore,
            notBefore == null ? null : clock.instant(),
            since(doubt),
            looks(doubt));
    if (changed == 0) {
      throw new ClaimLost("delivery " + seq);
    }
  }

  /**
   * Sees that a claim still counts; inside the change of what it was for.
   *
   * @throws ClaimLost if it does not
   */
  void check(Claimed claimed) {
    WorkRow row = work.find(claimed.delivery().seq());
    if (row == null || !claimed.claim().equals(row.claim())) {
      throw new ClaimLost("delivery " + claimed.delivery().seq());
    }
  }

  /** A delivery has ended; inside a change. */
  void end(Claimed claimed) {
    if (work.end(claimed.delivery().seq(), claimed.claim()) == 0) {
      throw new ClaimLost("delivery " + claimed.delivery().seq());
    }
  }

  /**
   * Withdraws a delivery that nobody sends just now; inside a change.
   *
   * @return false if it is being sent, or was
   */
  public boolean withdraw(long delivery) {
    return work.withdraw(delivery) == 1;
  }

  /** Whether a delivery for a pair has not ended. */
  public boolean isBusy(String bridge, String matchHash) {
    return work.ofPair(bridge, matchHash) > 0;
  }

  /** How many deliveries of a bridge have not ended. */
  public int ofBridge(String bridge) {
    return work.ofBridge(bridge);
  }

  /** Whether any delivery of a trace has not ended. */
  boolean isDelivering(long trace) {
    return work.ofTrace(trace) > 0;
  }

  /** The deliveries that wait for the task of a pair. */
  List<DeliveryRow> awaiting(String bridge, String parentHash) {
    return work.awaiting(bridge, parentHash).stream()
        .map(row -> Objects.requireNonNull(deliveries.find(row.deliverySeq())))
        .toList();
  }

  void parentMade(DeliveryRow child) {
    work.parentMade(child.seq());
    empty.comesToAny();
  }

  void parentFailed(DeliveryRow child) {
    work.endAwaiting(child.seq());
  }

  /** Wakes the courier, once what was added is kept. */
  public void raise() {
    signal.raise();
  }

  /** When a delivery is tried next that is put off; null if none is. */
  public @Nullable Instant next() {
    return work.next();
  }

  /**
   * Whether something is being sent, for a trace that began earlier, that makes records of a
   * collection or changes one.
   */
  public boolean isSendingTo(String system, String collection, String record, long beforeTrace) {
    return work.sendingTo(system, collection, record, beforeTrace) != null;
  }

  /**
   * When more will be known of records of a collection that are being made for a queue, or may have
   * been with no answer yet, for a trace that began earlier; empty if there are none.
   *
   * @param now of those that are being made just now
   */
  public Optional<Instant> making(
      String queue, String system, String collection, long beforeTrace, Instant now) {
    return Optional.ofNullable(work.making(queue, system, collection, beforeTrace, now));
  }

  /** Whether anything is being sent. */
  public boolean isSending() {
    return work.sending() > 0;
  }

  /** Whether anything could be sent now to one of some systems. */
  public boolean anyReady(Predicate<String> systems) {
    return queues.stream().filter(queue -> systems.test(queue.system())).anyMatch(this::anyReady);
  }

  /** How many deliveries wait for each system. */
  public Map<String, Integer> waiting() {
    return work.waiting().stream()
        .collect(
            Collectors.toMap(row -> row.systemId(), DeliveryWorkMapper.WaitingRow::deliveries));
  }
}
