package org.ysthmos.app.testplan;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** Runs the tests that the product makes itself, once each time that they are due. */
@Component
class TestRunner {

  private static final Logger LOG = LoggerFactory.getLogger(TestRunner.class);

  private final TestPlans plans;
  private final LiveFeed feed;
  private final AppClock clock;

  TestRunner(TestPlans plans, LiveFeed feed, AppClock clock) {
    this.plans = plans;
    this.feed = feed;
    this.clock = clock;
  }

  /** A past that is lived through in minutes has no weeks of its own. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 60_000)
  void runWhatIsDue() {
    if (clock.past().isPresent()) {
      return;
    }
    for (PlanRow plan : plans.dueByThemselves()) {
      try {
        plans.run(plan, By.ENGINE);
      } catch (RuntimeException e) {
        // It stays due, and stands on Watch for as long as the bridge is at work.
        LOG.error("{} was not tested", plan.bridgeId(), e);
      }
      feed.changed(plan.bridgeId(), "");
    }
  }
}
