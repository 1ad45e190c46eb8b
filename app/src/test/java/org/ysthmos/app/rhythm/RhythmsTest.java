package org.ysthmos.app.rhythm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.rhythm.RhythmMapper.SlotRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.core.rhythm.Rhythm;

/** What is usual is learned once a day, and what came today is no part of it. */
class RhythmsTest {

  private static final ZoneId ZONE = ZoneId.of("Europe/Lisbon");

  /** The clocks there went forward on the day before. */
  private static final LocalDate DAY = LocalDate.of(2026, 3, 30);

  private final RhythmMapper mapper = mock(RhythmMapper.class);
  private final AppClock clock = mock(AppClock.class);
  private final Settings settings = mock(Settings.class);
  private final TraceMapper traces = mock(TraceMapper.class);
  private final Rhythms rhythms = new Rhythms(mapper, traces, mock(Bridges.class), clock, settings);

  @BeforeEach
  void fiveWeeks() {
    when(settings.zone()).thenReturn(ZONE);
    counts(0);
  }

  private static ZonedDateTime at(int hour) {
    return DAY.atTime(hour, 20).atZone(ZONE);
  }

  private static long slot(ZonedDateTime at) {
    return TraceEnds.slot(at.toInstant());
  }

  /** Four events in each half hour of five weeks, and others today. */
  private void counts(int today) {
    long midnight = slot(DAY.atStartOfDay(ZONE));
    List<SlotRow> rows =
        LongStream.range(midnight - 5 * 336, midnight + 48)
            .mapToObj(slot -> new SlotRow(slot, slot < midnight ? 4 : today))
            .toList();
    when(mapper.slots(anyString(), anyLong())).thenReturn(rows);
  }

  private Optional<Rhythm.Band> usual(ZonedDateTime now) {
    when(clock.instant()).thenReturn(now.toInstant());
    return rhythms.usual("reports", slot(at(9)));
  }

  @Test
  void isLearnedOnceADay() {
    for (int hour = 0; hour < 24; hour++) {
      assertThat(usual(at(hour))).isPresent();
    }
    verify(mapper, times(1)).slots(anyString(), anyLong());

    assertThat(usual(at(0).plusDays(1))).isPresent();
    verify(mapper, times(2)).slots(anyString(), anyLong());

    // A clock that was set back is on another day, too.
    assertThat(usual(at(23))).isPresent();
    verify(mapper, times(3)).slots(anyString(), anyLong());
  }

  @Test
  void isNotMovedByWhatCameToday() {
    Optional<Rhythm.Band> before = usual(at(22));
    rhythms.forget();
    counts(400);

    assertThat(usual(at(22))).isEqualTo(before);
    assertThat(before.orElseThrow().low()).isPositive();
  }

  /** Else it would close at midnight, as if something had come, when it is a part of the usual. */
  @Test
  void silenceThatIsOddLastsUntilSomethingComes() {
    when(traces.newestOf("reports")).thenReturn(at(9).toInstant());
    assertThat(oddAt(at(9).plusMinutes(20))).isEmpty();
    assertThat(oddAt(at(22)).map(Rhythms.Odd::since)).contains(at(9).toInstant());

    // By what is known on the next day next to nothing is usual there.
    long midnight = slot(DAY.atStartOfDay(ZONE));
    when(mapper.slots(anyString(), anyLong()))
        .thenReturn(List.of(new SlotRow(midnight - 5 * 336, 1), new SlotRow(midnight - 300, 1)));
    assertThat(oddAt(at(3).plusDays(1)).map(Rhythms.Odd::since)).contains(at(9).toInstant());

    when(traces.newestOf("reports")).thenReturn(at(4).plusDays(1).toInstant());
    assertThat(oddAt(at(5).plusDays(1))).isEmpty();
    // And a silence that long since then is not odd.
    assertThat(oddAt(at(18).plusDays(1))).isEmpty();
  }

  private Optional<Rhythms.Odd> oddAt(ZonedDateTime now) {
    when(clock.instant()).thenReturn(now.toInstant());
    return rhythms.odd("reports");
  }

  @Test
  void ofTooFewWholeDaysNothingIsKnown() {
    long midnight = slot(DAY.atStartOfDay(ZONE));
    when(mapper.slots(anyString(), anyLong()))
        .thenReturn(
            LongStream.range(midnight - 3 * 336 + 1, midnight + 40)
                .mapToObj(slot -> new SlotRow(slot, 4))
                .toList());

    assertThat(usual(at(19))).isEmpty();
    assertThat(usual(at(1).plusDays(1))).isPresent();
  }
}
