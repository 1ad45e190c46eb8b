package org.ysthmos.app.fullcheck;

import java.time.Instant;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.recurrence.Occurrences;

/**
 * Begins the full checks that documents ask for. What a machine that slept has missed is made up
 * for by one.
 */
@Component
class FullCheckSchedule {

  private final FullChecks checks;
  private final FullCheckStart start;
  private final Bridges bridges;
  private final AppClock clock;

  FullCheckSchedule(FullChecks checks, FullCheckStart start, Bridges bridges, AppClock clock) {
    this.checks = checks;
    this.start = start;
    this.bridges = bridges;
    this.clock = clock;
  }

  /** Begins what is due. A past that is lived through in minutes has no weeks of its own. */
  @Scheduled(
      initialDelayString = "${ysthmos.check.first}",
      fixedDelayString = "${ysthmos.check.every}")
  void beginWhatIsDue() {
    if (clock.past().isPresent()) {
      return;
    }
    for (Bridges.Live live : bridges.live()) {
      String id = live.version().definition().id();
      live.version()
          .between()
          .map(CompiledTwoWay::rule)
          .flatMap(TwoWay::check)
          .filter(check -> live.hold().isEmpty() && isDue(id, live.since(), check))
          .ifPresent(check -> start.begin(id, "as its document says"));
    }
  }

  /**
   * Whether one is to begin; one that began in the future was begun by another clock.
   *
   * @param since when the bridge went live, before which no time of it counts
   */
  private boolean isDue(String bridge, Instant since, TwoWay.Check check) {
    Instant now = clock.instant();
    Optional<Instant> begun =
        checks.ofBridge(bridge).stream()
            .findFirst()
            .map(CheckRow::begunAt)
            .filter(at -> !at.isAfter(now));
    return switch (check) {
      case TwoWay.Check.Every every ->
          begun.filter(at -> at.plus(every.span()).isAfter(now)).isEmpty();
      case TwoWay.Check.AtTimes at ->
          new Occurrences(at.times(), Optional.empty())
              .next(begun.orElse(since))
              .filter(next -> !next.at().toInstant().isAfter(now))
              .isPresent();
    };
  }
}
