package org.ysthmos.app.fullcheck;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.contains;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.http.HttpStatus;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;

class FullCheckScheduleTest {

  private static final Instant NOW = Instant.parse("2026-11-28T03:00:00Z");

  private final FullChecks checks = mock(FullChecks.class);
  private final FullCheckReader reader = mock(FullCheckReader.class);
  private final Bridges bridges = mock(Bridges.class);
  private final Bridges.Live live = mock(Bridges.Live.class, RETURNS_DEEP_STUBS);
  private final AppClock clock = mock(AppClock.class);
  private final FullCheckSchedule schedule =
      new FullCheckSchedule(
          checks, new FullCheckStart(checks, reader, mock(LiveFeed.class)), bridges, clock);

  private TwoWay.Check check = new TwoWay.Check.Every(Duration.ofDays(7));

  @BeforeEach
  void bridgeThatIsCheckedEachWeek() {
    live();
  }

  private void live() {
    CompiledTwoWay both = mock(CompiledTwoWay.class, RETURNS_DEEP_STUBS);
    when(both.rule().check()).thenReturn(Optional.of(check));
    when(live.since()).thenReturn(NOW.minus(Duration.ofDays(2)));
    when(live.version().definition().id()).thenReturn("shores");
    when(live.version().between()).thenReturn(Optional.of(both));
    when(live.hold()).thenReturn(Optional.empty());
    when(bridges.live()).thenReturn(List.of(live));
    when(clock.instant()).thenReturn(NOW);
    when(clock.past()).thenReturn(Optional.empty());
  }

  private void lastBegan(Duration ago) {
    CheckRow last = mock(CheckRow.class);
    when(last.begunAt()).thenReturn(NOW.minus(ago));
    when(checks.ofBridge("shores")).thenReturn(List.of(last));
  }

  private void begins(boolean expected) {
    schedule.beginWhatIsDue();
    verify(checks, expected ? times(1) : never()).begin("shores", By.ENGINE);
  }

  @Test
  void bridgeThatWasNeverCheckedIsDue() {
    begins(true);
    verify(reader).raise();
  }

  @Test
  void checkThatBeganAWeekAgoIsFollowedByTheNext() {
    lastBegan(Duration.ofDays(7));
    begins(true);
  }

  @Test
  void checkOfThisWeekIsEnough() {
    lastBegan(Duration.ofDays(6));
    begins(false);
  }

  @Test
  void machineThatSleptForAMonthChecksOnce() {
    lastBegan(Duration.ofDays(31));
    begins(true);
  }

  /** A clock that ran ahead would put the next check off for ever. */
  @Test
  void checkThatBeganInTheFutureDoesNotKeepTheNextWaiting() {
    lastBegan(Duration.ofDays(-300));
    begins(true);
  }

  @Test
  void heldBridgeAndOneThatNeverSaysSoAreNotChecked() {
    when(live.hold()).thenReturn(Optional.of(new Bridges.Hold(NOW, "a person", "person")));
    begins(false);
  }

  @Test
  void pastThatIsLivedThroughInMinutesIsNot() {
    when(clock.past()).thenReturn(Optional.of(new AppClock.Past(NOW, NOW)));
    begins(false);
  }

  @Test
  void checkThatCannotBeginIsTold() {
    when(checks.begin(anyString(), any()))
        .thenThrow(new ApiProblem(HttpStatus.CONFLICT, "No", "Its list cannot be read"));
    begins(true);
    verify(checks).couldNotBegin(eq("shores"), eq(By.ENGINE), contains("list cannot be read"));
    verify(reader, never()).raise();
  }

  @Test
  void checkThatIsUnderWayIsNotToldAsOneThatBrokeOff() {
    when(checks.begin(anyString(), any()))
        .thenThrow(new ApiProblem(HttpStatus.CONFLICT, "No", "It is being checked"));
    when(checks.isUnderWay("shores")).thenReturn(true);
    begins(true);
    verify(checks, never()).couldNotBegin(anyString(), any(), anyString());
  }

  /** NOW is a Saturday, three in the morning in Lisbon. */
  @ParameterizedTest
  @CsvSource({
    "FREQ=DAILY, 03:00, PT23H, true",
    "FREQ=DAILY, 03:00, PT0S, false",
    "FREQ=DAILY, 03:01, PT23H, false",
    "FREQ=WEEKLY;BYDAY=FR, 03:00, PT25H, true",
    "FREQ=WEEKLY;BYDAY=SU, 03:00, P5D, false",
    "FREQ=WEEKLY;BYDAY=SU, 03:00, P6D, false",
    "FREQ=WEEKLY;BYDAY=SU, 03:00, PT145H, true"
  })
  void checkComesRoundAtItsTimesAndOneIsMadeUpFor(
      String rule, String at, Duration lastBegan, boolean begins) {
    check = atTimes(rule, at);
    live();
    lastBegan(lastBegan);
    begins(begins);
  }

  /** What came round before the bridge went live, two days ago, counts for nothing. */
  @ParameterizedTest
  @CsvSource({"FREQ=DAILY, true", "FREQ=WEEKLY;BYDAY=WE, false"})
  void firstCheckComesAtTheFirstTimeAfterTheBridgeWentLive(String rule, boolean begins) {
    check = atTimes(rule, "03:00");
    live();
    begins(begins);
  }

  private static TwoWay.Check atTimes(String rule, String at) {
    return new TwoWay.Check.AtTimes(
        Recurrence.of(
            RecurrenceRule.parse(rule),
            ZoneId.of("Europe/Lisbon"),
            LocalDateTime.parse("2026-01-01T" + at)));
  }
}
