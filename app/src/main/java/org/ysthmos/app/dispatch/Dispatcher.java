package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.BridgeOfTrace;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;

/**
 * Decides what was taken in. Asks other systems first, with no transaction open, then stores the
 * decision and its deliveries together.
 */
@Component
class Dispatcher implements SmartLifecycle {

  private static final Logger LOG = LoggerFactory.getLogger(Dispatcher.class);
  private static final int WORKERS = 8;
  private static final int MOST_RACES = 5;
  private static final Duration WAIT_FOR_PAIR = Duration.ofMillis(100);

  private final TraceMapper traces;
  private final EventMapper events;
  private final BridgeOfTrace bridges;
  private final Systems systems;
  private final Pairs pairs;
  private final Tables tables;
  private final ReceivedEvents received;
  private final DecisionWriter writer;
  private final AppClock clock;
  private final BackOff backOff;
  private final Stage<TraceRow> stage;

  Dispatcher(
      TraceMapper traces,
      EventMapper events,
      BridgeOfTrace bridges,
      Systems systems,
      Pairs pairs,
      Tables tables,
      ReceivedEvents received,
      DecisionWriter writer,
      AppClock clock,
      Settings settings,
      WorkSignals signals) {
    this.traces = traces;
    this.events = events;
    this.bridges = bridges;
    this.systems = systems;
    this.pairs = pairs;
    this.tables = tables;
    this.received = received;
    this.writer = writer;
    this.clock = clock;
    this.backOff = settings.retry().backOff();
    this.stage =
        new Stage<>(
            "dispatch",
            WORKERS,
            signals.toDecide(),
            limit -> traces.ready(clock.instant(), limit),
            trace -> traces.claim(trace.id()) == 1,
            this::decide,
            trace -> writer.handBack(trace));
  }

  private void decide(TraceRow trace) {
    EventMapper.EventRow row = events.find(trace.eventId());
    Optional<BridgeVersion> usable = bridges.find(trace);
    if (row == null || usable.isEmpty()) {
      // The bridge cannot be used just now; its events wait until it can.
      writer.postpone(trace, clock.instant().plus(Duration.ofSeconds(5)));
      return;
    }
    BridgeVersion bridge = usable.get();
    Event event = ReceivedEvents.event(row);
    for (int race = 0; race < MOST_RACES; race++) {
      EngineWorld world = new EngineWorld(systems, pairs, tables, received, clock);
      Instant start = clock.instant();
      long began = System.nanoTime();
      Decision decision = Decider.decide(bridge, event, world, Mode.EXPLAINED);
      Duration took = Duration.ofNanos(System.nanoTime() - began);
      var deciding =
          new DecisionWriter.Deciding(trace, bridge, event, decision, world, start, took);
      if (decision.verdict() == Verdict.FAILED && waits(deciding)) {
        return;
      }
      switch (writer.store(deciding)) {
        case STORED -> {
          return;
        }
        case PAIR_BUSY -> {
          writer.postpone(trace, clock.instant().plus(WAIT_FOR_PAIR));
          return;
        }
        case PAIR_CHANGED ->
            LOG.debug("the pair of trace {} changed meanwhile; deciding again", trace.id());
      }
    }
    writer.postpone(trace, clock.instant().plus(WAIT_FOR_PAIR));
  }

  /** Puts the trace back if the failure passes by itself and there are tries left. */
  private boolean waits(DecisionWriter.Deciding deciding) {
    Failure failure = deciding.decision().failures().getFirst();
    if (failure.held()) {
      writer.postpone(
          deciding.trace(), clock.instant().plus(failure.retryAfter().orElse(WAIT_FOR_PAIR)));
      return true;
    }
    Optional<Duration> wait = backOff.after(deciding.trace().tries() + 1, failure);
    wait.ifPresent(w -> writer.waitAfter(deciding, failure, w));
    return wait.isPresent();
  }

  @Override
  public void start() {
    traces.releaseAll();
    stage.start();
  }

  @Override
  public void stop() {
    stage.stop();
  }

  @Override
  public boolean isRunning() {
    return stage.isRunning();
  }
}
