package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryQueue.Claimed;
import org.ysthmos.app.courier.DeliveryQueue.Queue;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.sync.InAnotherPair;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.sync.SyncedWrites;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.Claims;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WithStage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.app.work.WorkSource;
import org.ysthmos.core.delivery.DeliveryRules;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.load.CircuitBreaker;
import org.ysthmos.core.load.CircuitBreaker.Outage;
import org.ysthmos.core.value.Value;

/**
 * Carries deliveries to their systems, each system with workers of its own. A delivery is written
 * down as being sent before it is sent; what is to be done about one whose answer never came is
 * decided by {@link DeliveryRules}.
 */
@Component
class Courier implements WithStage, WorkSource<Queue, Claimed> {

  /** By how much a delivery that failed as a probe lets another go before it. */
  private static final Duration LETS_ANOTHER_PROBE = Duration.ofMillis(200);

  private final DeliveryQueue queue;
  private final DeliveryWriter writer;
  private final DeliveryPauses pauses;
  private final TakenBackWriter takenBack;
  private final Systems systems;
  private final Bridges bridges;
  private final Pairs pairs;
  private final GoneTasks gone;
  private final ByOthersWriter others;
  private final Removals removals;
  private final SyncedWrites synced;
  private final AppClock clock;
  private final BackOff backOff;
  private final DeliveryRules rules;
  private final Settings settings;
  private final Stage<Queue, Claimed> stage;

  Courier(
      DeliveryQueue queue,
      DeliveryWriter writer,
      DeliveryPauses pauses,
      TakenBackWriter takenBack,
      Systems systems,
      Bridges bridges,
      Pairs pairs,
      GoneTasks gone,
      ByOthersWriter others,
      Removals removals,
      SyncedWrites synced,
      AppClock clock,
      Settings settings,
      Claims claims,
      WorkSignals signals) {
    this.queue = queue;
    this.writer = writer;
    this.pauses = pauses;
    this.takenBack = takenBack;
    this.systems = systems;
    this.bridges = bridges;
    this.pairs = pairs;
    this.gone = gone;
    this.others = others;
    this.removals = removals;
    this.synced = synced;
    this.clock = clock;
    this.backOff = settings.retry().backOff();
    this.rules = settings.retry().rules();
    this.settings = settings;
    this.stage = new Stage<>("courier", claims, signals.toDeliver(), this, settings.work().drain());
  }

  @Override
  public void wake(Set<String> running) {
    queue.wake(running);
  }

  @Override
  public Collection<Queue> queues() {
    return queue.queues();
  }

  @Override
  public Object group(Queue from) {
    return from.system();
  }

  /** Nothing goes for a held bridge, to a system without room, or past one that is closed off. */
  @Override
  public int room(Queue from, int running) {
    if (bridges.isHeld(from.id())) {
      return 0;
    }
    int free = settings.work().perSystem() - running;
    Optional<Systems.Connected> system = systems.find(from.system());
    if (free <= 0 || system.isEmpty()) {
      return Math.max(0, free);
    }
    Instant now = clock.instant();
    if (!system.get().untilRoom(now).isZero() || !system.get().breaker().admits(now)) {
      return 0;
    }
    return system.get().breaker().isClosed() ? free : 1;
  }

  @Override
  public List<Claimed> claim(Queue from, int most) {
    if (!queue.anyReady(from)) {
      return List.of();
    }
    Optional<CircuitBreaker> breaker = systems.find(from.system()).map(Systems.Connected::breaker);
    if (!breaker.map(one -> one.take(clock.instant())).orElse(true)) {
      return List.of();
    }
    List<Claimed> claimed = queue.claim(from, most);
    if (claimed.isEmpty()) {
      breaker.ifPresent(CircuitBreaker::unused);
    }
    return claimed;
  }

  @Override
  public String claimOf(Claimed piece) {
    return piece.claim();
  }

  @Override
  public void renew(Collection<String> held) {
    queue.renew(held);
  }

  /** What broke may have been sent: it is in doubt. After some times it is given up. */
  @Override
  public void giveBack(Claimed claimed, Throwable why) {
    Instant now = clock.instant();
    Attempt attempt = attempt(claimed, claimed.delivery().systemId());
    int breaks = claimed.breaks() + 1;
    if (breaks >= settings.retry().breaks()) {
      writer.failed(attempt, Failure.brokeHere("Sending it", breaks, why), true);
      return;
    }
    pauses.brokeHere(
        attempt, breaks, Doubt.since(now), now.plus(settings.retry().afterABreak(breaks)));
  }

  @Override
  public void work(Claimed claimed) {
    DeliveryRow delivery = claimed.delivery();
    Optional<Systems.Connected> system = systems.find(delivery.systemId());
    if (system.isEmpty()) {
      writer.failed(
          attempt(claimed, delivery.systemId()),
          Failure.of(FailureKind.NOT_FOUND, "There is no system “" + delivery.systemId() + "”")
              .withRemedy("Connect it again, then send again"));
      return;
    }
    Attempt attempt = attempt(claimed, system.get().description().name());
    try {
      carryOut(attempt, system.get());
    } catch (InAnotherPair taken) {
      writer.failed(attempt, taken.failure());
    }
  }

  private void carryOut(Attempt attempt, Systems.Connected system) {
    DeliveryRow delivery = attempt.delivery();
    Optional<String> record = Optional.ofNullable(delivery.recordId());
    Removals.Unsettled unsettled = failure -> settle(attempt, system, failure, Doubt.NONE);
    if (attempt.isRecall()
        && removals.isSettledByALook(attempt, system, record.orElseThrow(), unsettled)) {
      return;
    }
    if (delivery.kind() == EffectKind.REMOVE) {
      removals.remove(attempt, system, record.orElseThrow(), unsettled);
    } else {
      goOn(attempt, system, record, attempt.claimed().doubt());
    }
  }

  private Attempt attempt(Claimed claimed, String systemName) {
    DeliveryRow delivery = claimed.delivery();
    return Attempt.of(claimed, systemName, synced.sending(delivery.bridgeId(), delivery.seq()));
  }

  /** What a side of a pair holds now; nothing for a bridge that goes one way. */
  private Map<String, Value> held(
      Attempt attempt, Systems.Connected system, TaskGateway.Delivered delivered) {
    return attempt
        .synced()
        .map(
            sending ->
                synced.held(
                    sending,
                    attempt.delivery().collectionId(),
                    delivered,
                    system.gateway(),
                    attempt.calls()::add))
        .orElse(Map.of());
  }

  /** What the task holds as far as it is known, such as the list in which it stands. */
  private Map<String, Value> heldBefore(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    Map<String, Value> held =
        new HashMap<>(pairs.agreed(delivery.bridgeId(), delivery.matchHash()));
    attempt.synced().map(synced::agreed).ifPresent(held::putAll);
    return held;
  }

  private Promise promise(DeliveryRow delivery) {
    return systems
        .collection(delivery.systemId(), delivery.collectionId())
        .map(SystemCollection::promise)
        .orElse(Promise.NONE);
  }

  private DeliveryRules.Next next(Attempt attempt, Optional<String> record, Doubt doubt) {
    DeliveryRow delivery = attempt.delivery();
    return rules.next(
        delivery.kind(), promise(delivery), record.isPresent(), doubt, clock.instant());
  }

  private void goOn(
      Attempt attempt, Systems.Connected system, Optional<String> record, Doubt doubt) {
    switch (next(attempt, record, doubt)) {
      case DeliveryRules.Send send -> send(attempt, system, record, doubt);
      case DeliveryRules.Look look -> look(attempt, system, doubt);
      case DeliveryRules.Wait wait -> {
        system.breaker().unused();
        pauses.looksAgain(attempt, doubt, wait.until());
      }
      case DeliveryRules.AskAPerson ask -> {
        system.breaker().unused();
        writer.failed(attempt, unknown(attempt, ask));
      }
    }
  }

  private static Failure unknown(Attempt attempt, DeliveryRules.AskAPerson ask) {
    return Failure.of(FailureKind.ANSWER_UNKNOWN, attempt.systemName() + ": " + ask.because())
        .withRemedy(ask.remedy());
  }

  private void look(Attempt attempt, Systems.Connected system, Doubt doubt) {
    DeliveryRow delivery = attempt.delivery();
    switch (system
        .gateway()
        .findByKey(delivery.collectionId(), delivery.idempotencyKey(), attempt.calls()::add)) {
      case TaskGateway.Searched searched -> {
        system.breaker().answered();
        if (searched.record().isPresent()) {
          writer.made(attempt, searched.record().get());
          send(attempt, system, searched.record(), Doubt.NONE);
        } else {
          goOn(attempt, system, Optional.empty(), rules.lookedInVain(doubt));
        }
      }
      case TaskGateway.Unsearchable nowhere ->
          writer.failed(
              attempt,
              Failure.of(
                      FailureKind.ANSWER_UNKNOWN,
                      attempt.systemName() + " cannot be searched by our key any more")
                  .withRemedy("Look there whether it was made. If it was not, send it again"));
      case TaskGateway.Unsearched unsearched ->
          settle(attempt, system, unsearched.failure(), doubt);
    }
  }

  private void send(
      Attempt attempt, Systems.Connected system, Optional<String> record, Doubt before) {
    DeliveryRow delivery = attempt.delivery();
    SequencedMap<String, Value> fields = KeptFields.read(delivery.fields());
    var effect =
        new TaskGateway.Effect(
            delivery.collectionId(),
            delivery.kind(),
            delivery.idempotencyKey(),
            record,
            fields,
            heldBefore(attempt),
            attempt.synced().flatMap(SyncedPairs.Sending::tag));
    TaskGateway.Outcome outcome =
        system.gateway().deliver(effect, made -> writer.made(attempt, made), attempt.calls()::add);
    switch (outcome) {
      case TaskGateway.Delivered delivered -> {
        system.breaker().answered();
        writer.delivered(attempt, fields, delivered, held(attempt, system, delivered));
      }
      case TaskGateway.Undelivered undelivered -> {
        Failure failure = undelivered.failure();
        if (Removals.isOvertaken(attempt, failure)) {
          system.breaker().answered();
          others.overtaken(attempt, failure);
          return;
        }
        Failure looked = gone.look(attempt, system, failure);
        if (GoneTasks.isGone(looked)) {
          system.breaker().answered();
          if (attempt.isRecall()) {
            takenBack.removed(attempt, false);
          } else {
            gone.settle(attempt, looked);
          }
          return;
        }
        if (undelivered.unnamed()) {
          // Tried again it would be made again where no key is kept; its id may be told by itself.
          system.note(failure, clock.instant());
          writer.failed(attempt, failure, true);
          return;
        }
        boolean unknown = failure.kind() == FailureKind.ANSWER_UNKNOWN;
        // Where nothing was called, what was in doubt before stays so.
        Doubt after =
            unknown ? Doubt.since(clock.instant()) : failure.noRoom() ? before : Doubt.NONE;
        settle(attempt, system, looked, after);
      }
    }
  }

  private void settle(Attempt attempt, Systems.Connected system, Failure failure, Doubt doubt) {
    Instant now = clock.instant();
    system.note(failure, now);
    Claimed claimed = attempt.claimed();
    if (failure.noRoom()) {
      // Another took the room meanwhile; that is no failed try.
      pauses.noRoom(attempt, doubt, now.plus(failure.retryAfter().orElse(Duration.ZERO)));
      return;
    }
    if (doubt instanceof Doubt.Open
        && next(attempt, Optional.empty(), doubt) instanceof DeliveryRules.AskAPerson ask
        && attempt.delivery().recordId() == null) {
      writer.failed(attempt, unknown(attempt, ask));
      return;
    }
    Optional<Outage> outage =
        failure.kind().isOfTheSystem() ? system.breaker().outage() : Optional.empty();
    if (outage.isPresent()) {
      // It is the system that does not work: that costs this delivery none of its tries.
      Instant until = outage.get().nextProbe().plus(LETS_ANOTHER_PROBE);
      pauses.again(attempt, claimed.tries(), failure, doubt, until);
      return;
    }
    int tries = claimed.tries() + 1;
    Optional<Duration> wait = backOff.after(tries, failure);
    if (wait.isPresent()) {
      pauses.again(attempt, tries, failure, doubt, now.plus(wait.get()));
    } else {
      writer.failed(attempt, failure);
    }
  }

  @Override
  public Stage<?, ?> stage() {
    return stage;
  }
}
