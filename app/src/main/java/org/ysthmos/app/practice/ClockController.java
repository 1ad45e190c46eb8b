package org.ysthmos.app.practice;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Instant;
import java.util.List;
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
import org.ysthmos.app.courier.DeliveryMapper;
import org.ysthmos.app.poll.Asking;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
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
  private final TraceMapper traces;
  private final DeliveryMapper deliveries;
  private final Asking asking;

  ClockController(
      AppClock clock,
      WorkSignals signals,
      TraceMapper traces,
      DeliveryMapper deliveries,
      Asking asking) {
    this.clock = clock;
    this.signals = signals;
    this.traces = traces;
    this.deliveries = deliveries;
    this.asking = asking;
  }

  @GetMapping
  Ahead ahead() {
    Instant now = clock.instant();
    boolean underWay =
        !traces.ready(now, 1).isEmpty()
            || traces.deciding() > 0
            || !deliveries.ready(now, List.of(), 1).isEmpty()
            || deliveries.sending() > 0
            || asking.underWay();
    Optional<Instant> next =
        Stream.of(traces.nextWaiting(now), deliveries.nextReady(now))
            .filter(Objects::nonNull)
            .min(Instant::compareTo);
    return new Ahead(now, underWay, next.orElse(null));
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
