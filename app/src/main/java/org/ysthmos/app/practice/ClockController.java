package org.ysthmos.app.practice;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.ChoreKeeper;
import org.ysthmos.app.chore.ChoreReader;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.incident.IncidentKeeper;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.Timekeeper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.work.WithStage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.load.CircuitBreaker;

/**
 * Sets the time, where the settings allow it, and says whether everything that is due by then is
 * done: for tests and for making a demo's past.
 */
@Hidden
@RestController
@RequestMapping("/api/clock")
@ConditionalOnProperty("ysthmos.settable-clock")
class ClockController {

  record Now(Instant now) {}

  /**
   * @param underWay whether anything is being done, or is due and not done
   * @param waited whether anything was under way at the first of several looks
   * @param next when something is tried again; null if nothing waits for a time to come, or
   *     something is under way
   */
  record Ahead(Instant now, boolean underWay, boolean waited, @Nullable Instant next) {}

  private static final Duration LONGEST_WAIT = Duration.ofSeconds(1);
  private static final Duration BETWEEN_LOOKS = Duration.ofMillis(2);

  /** Between looks at what memory knows, which cost nobody anything. */
  private static final Duration BETWEEN_GLANCES = Duration.ofNanos(300_000);

  private final AppClock clock;
  private final WorkSignals signals;
  private final TraceQueue traces;
  private final DeliveryQueue deliveries;
  private final Polling polling;
  private final Bridges bridges;
  private final Systems systems;
  private final IncidentKeeper incidents;
  private final Timekeeper timekeeper;
  private final ChoreKeeper chores;
  private final ChoreReader rows;
  private final List<WithStage> stages;

  ClockController(
      AppClock clock,
      WorkSignals signals,
      TraceQueue traces,
      DeliveryQueue deliveries,
      Polling polling,
      Bridges bridges,
      Systems systems,
      IncidentKeeper incidents,
      Timekeeper timekeeper,
      ChoreKeeper chores,
      ChoreReader rows,
      List<WithStage> stages) {
    this.clock = clock;
    this.signals = signals;
    this.traces = traces;
    this.deliveries = deliveries;
    this.polling = polling;
    this.bridges = bridges;
    this.systems = systems;
    this.incidents = incidents;
    this.timekeeper = timekeeper;
    this.chores = chores;
    this.rows = rows;
    this.stages = stages;
  }

  /** The same, once nothing is under way any more or a while has gone by, whichever comes first. */
  @GetMapping("/rest")
  Ahead atRest() {
    long until = System.nanoTime() + LONGEST_WAIT.toNanos();
    boolean waited = false;
    while (true) {
      // What is in hand is known without a question to the database, which others need meanwhile.
      while (isInHand() && System.nanoTime() < until) {
        LockSupport.parkNanos(BETWEEN_GLANCES.toNanos());
        waited = true;
      }
      Ahead ahead = ahead();
      if (!ahead.underWay() || System.nanoTime() >= until) {
        return new Ahead(ahead.now(), ahead.underWay(), waited, ahead.next());
      }
      LockSupport.parkNanos(BETWEEN_LOOKS.toNanos());
      waited = true;
    }
  }

  /** Whether anything is being done, as far as it is known without a question to the database. */
  private boolean isInHand() {
    return stages.stream().anyMatch(stage -> stage.stage().underWay() > 0)
        || incidents.isUnderWay();
  }

  @GetMapping
  Ahead ahead() {
    Instant now = clock.instant();
    if (isInHand()) {
      return new Ahead(now, true, false, null);
    }
    List<Instant> times =
        Stream.of(
                Optional.ofNullable(traces.next()),
                Optional.ofNullable(deliveries.next()),
                timekeeper.next(),
                chores.next())
            .flatMap(Optional::stream)
            .toList();
    if (times.stream().anyMatch(at -> !at.isAfter(now)) || isDue(now)) {
      return new Ahead(now, true, false, null);
    }
    Optional<Instant> next =
        Stream.of(
                times.stream(),
                systems.all().stream().flatMap(system -> waitsFor(system, now).stream()),
                incidents.next().stream())
            .flatMap(Function.identity())
            .filter(at -> at.isAfter(now))
            .min(Instant::compareTo);
    return new Ahead(now, false, false, next.orElse(null));
  }

  private boolean isDue(Instant now) {
    return traces.isDeciding()
        || deliveries.isSending()
        || traces.queues().stream().anyMatch(this::canGoOn)
        || deliveries.anyReady(system -> admits(system, now))
        || polling.isUnderWay()
        || rows.isUnderWay();
  }

  /** Whether something of a bridge could be decided, not considering systems that do not work. */
  private boolean canGoOn(String queue) {
    boolean closedOff =
        bridges.live(queue).stream()
            .flatMap(live -> live.version().asked().stream())
            .anyMatch(system -> !admits(system, clock.instant()));
    return !bridges.isHeld(queue) && !closedOff && traces.anyReady(queue);
  }

  /** When something could be called again that is closed off, or has no room for what waits. */
  private Optional<Instant> waitsFor(Systems.Connected system, Instant now) {
    Optional<Instant> probe = system.breaker().outage().map(CircuitBreaker.Outage::nextProbe);
    Duration wait = system.untilRoom(now);
    boolean full =
        !wait.isZero() && deliveries.anyReady(other -> other.equals(system.description().id()));
    return full ? Optional.of(now.plus(wait)) : probe;
  }

  private boolean admits(String system, Instant now) {
    return systems
        .find(system)
        .map(found -> found.breaker().admits(now) && found.untilRoom(now).isZero())
        .orElse(true);
  }

  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void set(@RequestBody Now wanted) {
    boolean anotherHour =
        !clock
            .instant()
            .truncatedTo(ChronoUnit.HOURS)
            .equals(wanted.now().truncatedTo(ChronoUnit.HOURS));
    clock.set(wanted.now());
    signals.raiseAll();
    // Whether as many come as usual is judged hour by hour.
    if (anotherHour || incidents.next().filter(at -> !at.isAfter(wanted.now())).isPresent()) {
      signals.toWatch().raise();
    }
  }

  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void release() {
    clock.release();
    signals.raiseAll();
    signals.toWatch().raise();
  }
}
