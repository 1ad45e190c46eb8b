package org.ysthmos.app.fullcheck;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;

/** Begins full checks that no person asked for. */
@Component
public class FullCheckStart {

  private static final Logger LOG = LoggerFactory.getLogger(FullCheckStart.class);

  private final FullChecks checks;
  private final FullCheckReader reader;
  private final LiveFeed feed;

  FullCheckStart(FullChecks checks, FullCheckReader reader, LiveFeed feed) {
    this.checks = checks;
    this.reader = reader;
    this.feed = feed;
  }

  /**
   * Begins one. One that cannot begin stands on Watch as one that broke off, so that nobody takes
   * no news for good news; where one is under way, that one goes on.
   *
   * @param why it is begun, for the log
   */
  public void begin(String bridge, String why) {
    try {
      long id = checks.begin(bridge, By.ENGINE);
      LOG.info("full check {} of {} begins, {}", id, bridge, why);
      reader.raise();
    } catch (ApiProblem refused) {
      if (!checks.isUnderWay(bridge)) {
        checks.couldNotBegin(bridge, By.ENGINE, String.valueOf(refused.getBody().getDetail()));
      }
    }
    feed.changed(bridge, "");
  }
}
