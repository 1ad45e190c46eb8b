package org.ysthmos.app.chore;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.table.Tables;

class KeptChoresTest {

  private static final Instant DUE = Instant.parse("2026-11-30T06:00:00Z");
  private static final Duration HOUR = Duration.ofHours(1);

  private final ChoreMapper mapper = mock(ChoreMapper.class);
  private final KeptChores chores = new KeptChores(mapper, mock(Tables.class));

  @BeforeEach
  void rowThatIsDue() {
    Instant told = DUE.minus(HOUR);
    when(mapper.find("rounds", "r"))
        .thenReturn(
            new ChoreMapper.ChoreRow(
                "rounds", "r", 1, told, new byte[0], "{}", null, told, null, told, DUE, DUE, 1));
  }

  private static EventRow received(Instant at) {
    return new EventRow(
        2, "table", "s", "rounds", "changed", "r", at, at, Origin.POLLED, new byte[0]);
  }

  @Test
  void anEventComesAfterTheTimesThatWereDueWhenItCame() {
    Instant after = DUE.plus(HOUR);
    assertThat(chores.isDueBefore("rounds", received(after), after)).isTrue();
    assertThat(chores.isDueBefore("rounds", received(DUE.minusSeconds(1)), after)).isFalse();
  }

  /** It would wait for a day if the clock was a day ahead when it came. */
  @Test
  void oneThatCameWhileTheClockWasAheadWaitsForNoTimeThatIsToCome() {
    Instant now = DUE.minus(HOUR);
    assertThat(chores.isDueBefore("rounds", received(DUE.plus(HOUR)), now)).isFalse();
  }
}
