package org.ysthmos.app.practice;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Instant;
import java.util.Objects;
import java.util.Optional;
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
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.work.WorkSignals;

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
   * @param next when something is tried again; null if nothing waits for a time to come
   */
  record Ahead(Instant now, boolean underWay, @Nullable Instant next) {}

  private final AppClock clock;
  private final WorkSignals signals;
  private final TraceQueue traces;
  private final DeliveryQueue deliveries;
  private final Polling polling;
  private final Bridges bridges;

  ClockController(
      AppClock clock,
      WorkSignals signals,
      TraceQueue traces,
      DeliveryQueue deliveries,
      Polling polling,
      Bridges bridges) {
    this.clock = clock;
    this.signals = signals;
    this.traces = traces;
    this.deliveries = deliveries;
    this.polling = polling;
    this.bridges = bridges;
  }

  @GetMapping
  Ahead ahead() {
    Instant now = clock.instant();
    Optional<Instant> next =
        Stream.of(traces.next(), deliveries.next())
            .filter(Objects::nonNull)
            .min(Instant::compareTo);
    boolean due = next.filter(at -> !at.isAfter(now)).isPresent();
    boolean underWay =
        due
            || traces.isDeciding()
            || deliveries.isSending()
            || anyToDecide()
            || deliveries.anyReady()
            || polling.isUnderWay();
    return new Ahead(now, underWay, next.filter(at -> at.isAfter(now)).orElse(null));
  }

  private boolean anyToDecide() {
    return traces.queues().stream()
        .filter(queue -> !bridges.isHeld(queue))
        .anyMatch(traces::anyReady);
  }

  @PutMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void set(@RequestBody Now wanted) {
    clock.set(wanted.now());
    signals.raiseAll();
  }

  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void release() {
    clock.release();
    signals.raiseAll();
  }
}
