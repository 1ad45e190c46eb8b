package org.ysthmos.app.fullcheck;

import java.time.Duration;
import java.time.Instant;
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
          .flatMap(rule -> rule.checkEvery())
          .filter(every -> live.hold().isEmpty() && isDue(id, every))
          .ifPresent(every -> begin(id));
    }
  }

  /** Nothing was checked for so long; one that began in the future was begun by another clock. */
  private boolean isDue(String bridge, Duration every) {
    Instant now = clock.instant();
    return checks.ofBridge(bridge).stream()
        .findFirst()
        .map(CheckRow::begunAt)
        .filter(begun -> !begun.isAfter(now) && begun.plus(every).isAfter(now))
        .isEmpty();
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
