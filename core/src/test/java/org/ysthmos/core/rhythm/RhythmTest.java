package org.ysthmos.core.rhythm;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Traffic;
import org.ysthmos.core.testkit.Traffic.Temper;

class RhythmTest {

  private static final int LEARNED = 8;

  private static List<int[]> weeks(Traffic traffic, int many) {
    List<int[]> weeks = new ArrayList<>();
    for (int i = 0; i < many; i++) {
      weeks.add(traffic.week());
    }
    return weeks;
  }

  @Test
  void tooFewWeeksOrNothingAtAllSayNothing() {
    assertThat(Rhythm.learn(weeks(new Traffic(200, Temper.STEADY, 1), Rhythm.FEWEST_WEEKS - 1)))
        .isEmpty();
    assertThat(Rhythm.learn(List.of(new int[168], new int[168], new int[168]))).isEmpty();
  }

  @Test
  void knowsTheHoursOfTheWeek() {
    Traffic traffic = new Traffic(1000, Temper.FITFUL, 5);
    Rhythm rhythm = Rhythm.learn(weeks(traffic, LEARNED)).orElseThrow();
    assertThat(rhythm.usual(10)).isGreaterThan(5 * rhythm.usual(3));
    assertThat(rhythm.usual(10)).isGreaterThan(2 * rhythm.usual(5 * 24 + 10));
    Rhythm.Band band = rhythm.band(10, 1);
    assertThat((double) band.low()).isLessThan(rhythm.usual(10));
    assertThat((double) band.high()).isGreaterThan(rhythm.usual(10));
    assertThat(rhythm.band(10, 0.5).high()).isLessThan(band.high());
  }

  /**
   * Years of honest traffic, learned anew each week from the eight before: at most one false alarm
   * for each bridge and quarter. What is found of a doubled hour and of a silence as long as a
   * usual day is told beside it in the benchmarks; here it must be found where events are many.
   */
  @ParameterizedTest
  @CsvSource({
    "15, STEADY, 0, 0",
    "60, STEADY, 0, 0.9",
    "150, STEADY, 0, 0.99",
    "600, STEADY, 0, 0.99",
    "3000, STEADY, 0.3, 0.99",
    "20000, STEADY, 0.5, 0.99",
    "15, FITFUL, 0, 0",
    "60, FITFUL, 0, 0.4",
    "150, FITFUL, 0, 0.99",
    "3000, FITFUL, 0, 0.99",
    "20000, FITFUL, 0, 0.99"
  })
  void yearsOfHonestTrafficGiveFewAlarmsAndFarTooManyOrFewAreFound(
      int aWeek, Temper temper, double doubled, double silent) {
    Judged judged = new Judged();
    for (int seed = 0; seed < 4; seed++) {
      judged.years(new Traffic(aWeek, temper, seed), 2, new Random(seed));
    }
    assertThat(judged.alarms / judged.quarters).as("alarms in a quarter").isLessThan(1);
    assertThat(judged.doubledFound / judged.doubled).as("doubled").isGreaterThanOrEqualTo(doubled);
    assertThat(judged.silentFound / judged.silent).as("silent").isGreaterThanOrEqualTo(silent);
    // For docs/benchmarks.md.
    System.out.printf(
        "%d a week, %s: %.3f alarms a quarter, doubled hours found %.0f %%, silent days %.0f %%%n",
        aWeek,
        temper,
        judged.alarms / judged.quarters,
        100 * judged.doubledFound / judged.doubled,
        100 * judged.silentFound / judged.silent);
  }

  private static final class Judged {
    private double quarters;
    private double alarms;
    private double doubled;
    private double doubledFound;
    private double silent;
    private double silentFound;

    void years(Traffic traffic, int years, Random random) {
      List<int[]> past = weeks(traffic, LEARNED);
      int quietSince = 0;
      int lastAlarm = -1000;
      for (int w = 0; w < 52 * years; w++) {
        Rhythm rhythm = Rhythm.learn(past).orElseThrow();
        int[] week = traffic.week();
        int today = 0;
        for (int h = 0; h < 168; h++) {
          int now = w * 168 + h;
          today = h % 24 == 0 ? 0 : today;
          if (week[h] > 0) {
            quietSince = now + 1;
          }
          int quiet = now + 1 - quietSince;
          boolean alarm =
              rhythm.isTooMany(h, today, week[h])
                  || (quiet > 0 && rhythm.isTooLong(quietSince % 168, quiet));
          today += week[h];
          if (alarm && now - lastAlarm > 48) {
            alarms++;
          }
          lastAlarm = alarm ? now : lastAlarm;
        }
        look(rhythm, week, random);
        past.removeFirst();
        past.add(week);
      }
      quarters += 4.0 * years;
    }

    /**
     * An hour at a busy time that is twice what it was, and a working day on which nothing comes.
     */
    private void look(Rhythm rhythm, int[] week, Random random) {
      int day = random.nextInt(5);
      int hour = day * 24 + 10 + random.nextInt(5);
      doubled++;
      int before = 0;
      for (int h = day * 24; h < hour; h++) {
        before += week[h];
      }
      doubledFound += rhythm.isTooMany(hour, before, 2L * week[hour]) ? 1 : 0;
      silent++;
      silentFound += rhythm.isTooLong(day * 24 + 7, 24) ? 1 : 0;
    }
  }
}
