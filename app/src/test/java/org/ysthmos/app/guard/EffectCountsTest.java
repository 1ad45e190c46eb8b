package org.ysthmos.app.guard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.delivery.EffectKind;

class EffectCountsTest {

  private static final Instant NOW = Instant.parse("2026-11-27T12:10:00Z");

  private final EffectMapper mapper = mock(EffectMapper.class);
  private final EffectCounts counts = new EffectCounts(mapper, () -> NOW);

  private static EffectMapper.CountRow row(Duration ago, long effects) {
    return new EffectMapper.CountRow(NOW.minus(ago).getEpochSecond() / 1800, effects);
  }

  private EffectCounts.Lately lately(EffectMapper.CountRow... rows) {
    when(mapper.past(any(), any(), anyLong())).thenReturn(List.of(rows));
    return counts.lately("bridge", EffectKind.CREATE);
  }

  @Test
  void lastDayStandsAgainstTheDaysBeforeFromTheFirst() {
    EffectCounts.Lately lately =
        lately(
            row(Duration.ofDays(5), 10),
            row(Duration.ofDays(2), 30),
            row(Duration.ofHours(23), 7),
            row(Duration.ZERO, 1));
    assertThat(lately.lastDay()).isEqualTo(8);
    // Four days and half an hour lie between the first half hour and the last day.
    assertThat(lately.usual().orElseThrow()).isBetween(9.7, 10.0);
  }

  @Test
  void nothingIsUsualOfWhatIsYoung() {
    assertThat(lately().usual()).isEmpty();
    assertThat(lately(row(Duration.ofHours(40), 10)).usual()).isEmpty();
    assertThat(lately(row(Duration.ofHours(40), 10)).lastDay()).isZero();
  }

  @Test
  void quietDaysCountToo() {
    List<EffectMapper.CountRow> busy =
        Stream.of(28, 27).map(days -> row(Duration.ofDays(days), 27)).toList();
    assertThat(lately(busy.toArray(EffectMapper.CountRow[]::new)).usual().orElseThrow())
        .isBetween(1.9, 2.1);
  }
}
