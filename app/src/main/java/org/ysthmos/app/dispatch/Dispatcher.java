package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.duplicate.Duplicates;
import org.ysthmos.app.event.Aside;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.BridgeOfTrace;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceQueue.Claimed;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.work.Claims;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WithStage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.app.work.WorkSource;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.load.CircuitBreaker;

/**
 * Decides what was taken in, each bridge with workers of its own. Asks other systems first, with no
 * change under way, then stores the decision and its deliveries together.
 */
@Component
class Dispatcher implements WithStage, WorkSource<String, Claimed> {

  private static final Logger LOG = LoggerFactory.getLogger(Dispatcher.class);
  private static final int MOST_RACES = 5;
  private static final Duration AFTER_RACES = Duration.ofMillis(100);

  /** By how much a trace that failed as a probe lets another go before it. */
  private static final Duration LETS_ANOTHER_PROBE = Duration.ofMillis(200);

  /** After how long what is awaited is looked for again, at the least and at the most. */
  private static final Duration SOONEST_LOOK = Duration.ofSeconds(1);

  private static final Duration LATEST_LOOK = Duration.ofMinutes(1);

  private final TraceQueue queue;
  private final EventMapper events;
  private final BridgeOfTrace bridges;
  private final Bridges live;
  private final Systems systems;
  private final EngineWorld.Sources sources;
  private final DecisionWriter writer;
  private final Undecided undecided;
  private final Causes causes;
  private final Duplicates duplicates;
  private final Polling polling;
  private final TaskRequests requests;
  private final EventWaits eventWaits;
  private final AppClock clock;
  private final Settings settings;
  private final BackOff backOff;
  private final Stage<String, Claimed> stage;

  Dispatcher(
      TraceQueue queue,
      EventMapper events,
      BridgeOfTrace bridges,
      Bridges live,
      Systems systems,
      EngineWorld.Sources sources,
      DecisionWriter writer,
      Undecided undecided,
      Causes causes,
      Duplicates duplicates,
      Polling polling,
      TaskRequests requests,
      EventWaits eventWaits,
      AppClock clock,
      Settings settings,
      Claims claims,
      WorkSignals signals) {
    this.queue = queue;
    this.events = events;
    this.bridges = bridges;
    this.live = live;
    this.systems = systems;
    this.sources = sources;
    this.writer = writer;
    this.undecided = undecided;
    this.causes = causes;
    this.duplicates = duplicates;
    this.polling = polling;
    this.requests = requests;
    this.eventWaits = eventWaits;
    this.clock = clock;
    this.settings = settings;
    this.backOff = settings.retry().backOff();
    this.stage = new Stage<>("dispatch", claims, signals.toDecide(), this, settings.work().drain());
  }

  @Override
  public void wake(Set<String> running) {
    queue.wake(running);
  }

  @Override
  public Collection<String> queues() {
    return queue.queues();
  }

  @Override
  public Object group(String bridge) {
    return bridge;
  }

  /**
   * Nothing of a bridge is decided while it is held, while it cannot be used, or while a system
   * that it looks things up in is closed off.
   */
  @Override
  public int room(String bridge, int running) {
    int free = settings.work().perBridge() - running;
    if (bridge.equals(TraceRow.TRIES)) {
      return Math.max(0, free);
    }
    if (live.retired(bridge).isPresent()) {
      return Math.max(0, free);
    }
    Optional<Bridges.Live> found = live.live(bridge);
    if (free <= 0 || found.isEmpty() || found.get().hold().isPresent()) {
      return 0;
    }
    Instant now = clock.instant();
    List<CircuitBreaker> open =
        breakers(found.get().version()).filter(breaker -> !breaker.isClosed()).toList();
    if (open.isEmpty()) {
      return free;
    }
    return open.stream().allMatch(breaker -> breaker.admits(now)) ? 1 : 0;
  }

  private Stream<CircuitBreaker> breakers(BridgeVersion bridge) {
    return bridge.asked().stream()
        .flatMap(system -> systems.find(system).stream())
        .map(Systems.Connected::breaker);
  }

  @Override
  public List<Claimed> claim(String bridge, int most) {
    if (!queue.anyReady(bridge)) {
      return List.of();
    }
    List<CircuitBreaker> open =
        live.live(bridge).stream()
            .flatMap(one -> breakers(one.version()))
            .filter(breaker -> !breaker.isClosed())
            .toList();
    Instant now = clock.instant();
    if (!open.stream().allMatch(breaker -> breaker.take(now))) {
      return List.of();
    }
    List<Claimed> claimed = queue.claim(bridge, most);
    if (claimed.isEmpty()) {
      open.forEach(CircuitBreaker::unused);
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

  @Override
  public void giveBack(Claimed claimed, Throwable why) {
    int breaks = claimed.breaks() + 1;
    if (breaks < settings.retry().breaks()) {
      undecided.brokeHere(
          claimed, breaks, clock.instant().plus(settings.retry().afterABreak(breaks)));
      return;
    }
    undecided.giveUp(claimed, Failure.brokeHere("Deciding it", breaks, why));
  }

  @Override
  public void work(Claimed claimed) {
    EventMapper.EventRow row = events.find(claimed.trace().eventSeq());
    if (row == null) {
      throw new IllegalStateException("a trace without its event: " + claimed.trace().id());
    }
    if (row.origin() == EventMapper.Origin.ASIDE) {
      setAside(claimed, row);
      return;
    }
    if (!claimed.trace().isTry() && live.retired(claimed.trace().bridgeId()).isPresent()) {
      undecided.passBy(claimed, "Its bridge was retired before it was decided");
      return;
    }
    switch (bridges.carrier(claimed.trace(), claimed.tryDocument())) {
      case BridgeOfTrace.Usable usable -> decideBy(usable.version(), claimed, row);
      // The events of a bridge that cannot be used wait until it can.
      case BridgeOfTrace.NotNow not ->
          undecided.postpone(claimed, clock.instant().plus(Duration.ofSeconds(5)));
      case BridgeOfTrace.Never never -> undecided.giveUp(claimed, never.because());
    }
  }

  private void decideBy(BridgeVersion version, Claimed claimed, EventMapper.EventRow row) {
    try {
      decideAndStore(claimed, version, row);
    } finally {
      // A decision that asked nothing of a system that is closed off was no probe of it.
      breakers(version).filter(breaker -> !breaker.isClosed()).forEach(CircuitBreaker::unused);
    }
  }

  private void decideAndStore(Claimed claimed, BridgeVersion bridge, EventMapper.EventRow row) {
    Event event = ReceivedEvents.event(row);
    Optional<Instant> until = eventWaits.until(claimed, bridge, row, event);
    if (until.isPresent()) {
      undecided.postpone(claimed, until.get());
      return;
    }
    for (int race = 0; race < MOST_RACES; race++) {
      DecisionWriter.Deciding deciding = decide(claimed, bridge, row, event);
      if (deciding.decision().verdict() == Verdict.FAILED && waits(deciding)) {
        return;
      }
      if (writer.store(deciding) != DecisionWriter.Stored.PAIR_CHANGED) {
        return;
      }
      LOG.debug("the pair of trace {} changed meanwhile; deciding again", claimed.trace().id());
    }
    undecided.postpone(claimed, clock.instant().plus(AFTER_RACES));
  }

  /** What could not be read is for a person; once more, it is read again where it stands. */
  private void setAside(Claimed claimed, EventMapper.EventRow row) {
    Aside aside = Aside.read(row);
    boolean again =
        claimed.trace().resendOf() != null
            && polling.readAgain(row.systemId(), row.collectionId(), aside.item());
    if (again) {
      undecided.passBy(
          claimed, "It is read again where it stands; what comes of it has a trace of its own");
    } else {
      undecided.setAside(claimed, aside.failure());
    }
  }

  private DecisionWriter.Deciding decide(
      Claimed claimed, BridgeVersion bridge, EventMapper.EventRow row, Event event) {
    EngineWorld world = new EngineWorld(sources, clock, row);
    duplicates.heard(event);
    Instant start = clock.instant();
    long began = System.nanoTime();
    Decision decision = Decider.decide(bridge, event, world, Mode.EXPLAINED);
    Duration took = Duration.ofNanos(System.nanoTime() - began);
    List<Duplicates.Found> alike =
        claimed.trace().isTry() ? List.of() : duplicates.find(decision.tasks());
    List<Duplicates.Waits> waits = duplicates.waits(bridge.definition(), alike);
    return new DecisionWriter.Deciding(
        claimed,
        bridge,
        row,
        event,
        waits.isEmpty() ? decision : decision.refused(waits.getFirst().failure()),
        world,
        causes.of(claimed.trace(), bridge, event, row),
        alike,
        waits,
        start,
        took);
  }

  /** Puts the trace off if the failure passes by itself and there are tries left. */
  private boolean waits(DecisionWriter.Deciding deciding) {
    Failure failure = deciding.decision().failures().getFirst();
    Claimed claimed = deciding.claimed();
    Instant now = clock.instant();
    if (failure.noRoom()) {
      undecided.postpone(claimed, now.plus(failure.retryAfter().orElse(AFTER_RACES)));
      return true;
    }
    if (failure.kind() == FailureKind.NOT_YET_THERE) {
      // The bridge says how long it waits, so that this costs none of its tries.
      undecided.waitAfter(
          deciding,
          claimed.tries(),
          requests
              .ask(deciding)
              .map(how -> Failure.of(failure.kind(), failure.message() + ". " + how))
              .orElse(failure),
          now.plus(untilLookedAgain(claimed, now)));
      return true;
    }
    Optional<CircuitBreaker.Outage> outage =
        deciding
            .world()
            .origin(failure)
            .filter(asked -> failure.kind().isOfTheSystem())
            .flatMap(asked -> systems.find(asked.system()))
            .flatMap(system -> system.breaker().outage());
    if (outage.isPresent()) {
      // It is the system that does not work: that costs this trace none of its tries.
      Instant until = outage.get().nextProbe().plus(LETS_ANOTHER_PROBE);
      undecided.waitAfter(deciding, claimed.tries(), failure, until);
      return true;
    }
    int tries = claimed.tries() + 1;
    Optional<Duration> wait = backOff.after(tries, failure);
    wait.ifPresent(w -> undecided.waitAfter(deciding, tries, failure, now.plus(w)));
    return wait.isPresent();
  }

  /** The longer it waited already, the longer until it is looked for again. */
  private static Duration untilLookedAgain(Claimed claimed, Instant now) {
    Duration waited = Duration.between(claimed.trace().receivedAt(), now).dividedBy(4);
    return waited.compareTo(SOONEST_LOOK) < 0
        ? SOONEST_LOOK
        : waited.compareTo(LATEST_LOOK) > 0 ? LATEST_LOOK : waited;
  }

  @Override
  public Stage<?, ?> stage() {
    return stage;
  }
}
