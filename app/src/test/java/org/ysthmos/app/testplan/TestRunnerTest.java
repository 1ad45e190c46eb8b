package org.ysthmos.app.testplan;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.testplan.TestPlanMapper.How;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

class TestRunnerTest {

  private final TestPlans plans = mock(TestPlans.class);
  private final AppClock clock = mock(AppClock.class);
  private final TestRunner runner = new TestRunner(plans, mock(LiveFeed.class), clock);

  private static PlanRow plan(long id) {
    LocalDate day = LocalDate.of(2026, 11, 28);
    Instant at = Instant.parse("2026-11-01T00:00:00Z");
    return new PlanRow(
        id, "shores", "all", How.EXAMPLES, "", 30, null, day, day, null, 1, at, "person");
  }

  @Test
  void oneThatCannotBeRunKeepsNoOtherFromBeingRun() {
    when(plans.dueByThemselves()).thenReturn(List.of(plan(1), plan(2)));
    doThrow(new IllegalStateException("the disk")).when(plans).run(plan(1), By.ENGINE);
    runner.runWhatIsDue();
    verify(plans).run(plan(2), By.ENGINE);
  }

  @Test
  void aPastThatIsLivedThroughHasNone() {
    when(plans.dueByThemselves()).thenReturn(List.of(plan(1)));
    when(clock.past()).thenReturn(Optional.of(mock(AppClock.Past.class)));
    runner.runWhatIsDue();
    verify(plans, never()).run(any(), any());
  }
}
