package org.ysthmos.app.fullcheck;

import java.time.Instant;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.recurrence.Occurrences;

/**
 * Begins the full checks that documents ask for. What a machine that slept has missed is made up
 * for by one.
 */
@Component
class FullCheckSchedule {

  private static final Logger LOG = LoggerFactory.getLogger(FullCheckSchedule.class);

  private final FullChecks checks;
  private final FullCheckReader reader;
  private final Bridges bridges;
  private final AppClock clock;
  private final LiveFeed feed;

  FullCheckSchedule(
      FullChecks checks, FullCheckReader reader, Bridges bridges, AppClock clock, LiveFeed feed) {
    this.checks = checks;
    this.reader = reader;
    this.bridges = bridges;
    this.clock = clock;
    this.feed = feed;
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
          .ifPresent(check -> begin(id));
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

  private void begin(String bridge) {
    try {
      long id = checks.begin(bridge, By.ENGINE);
      LOG.info("full check {} of {} begins, as its document says", id, bridge);
      reader.raise();
    } catch (ApiProblem refused) {
      if (!checks.isUnderWay(bridge)) {
        // Told on Watch as one that broke off, so that nobody takes no news for good news.
        checks.couldNotBegin(bridge, By.ENGINE, String.valueOf(refused.getBody().getDetail()));
      }
    }
    feed.changed(bridge, "");
  }
}
