package org.ysthmos.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Seeds;

class NearestTest {

  /** Common practice, no source: the textbook pair kitten and sitting, and a swap of neighbours. */
  @ParameterizedTest
  @CsvSource({"kitten, sitting, 3", "fial, fail, 1", "'', abc, 3", "same, same, 0", "ab, ba, 1"})
  void countsWrongSigns(String a, String b, int edits) {
    assertThat(Nearest.edits(a, b)).isEqualTo(edits);
  }

  @Test
  void countsTheSameBothWaysAndZeroOnlyForTheSame() {
    Seeds.forSeeds(
        300,
        seeds -> {
          String a = seeds.text();
          String b = seeds.text();
          assertThat(Nearest.edits(a, b)).isEqualTo(Nearest.edits(b, a));
          assertThat(Nearest.edits(a, b) == 0).isEqualTo(a.equals(b));
        });
  }

  @Test
  void namesTheNearestOnlyWhereItIsNear() {
    List<String> known = List.of("shorten", "read-day", "move");
    assertThat(Nearest.to("shortn", known)).contains("shorten");
    assertThat(Nearest.to("colour", known)).isEmpty();
    assertThat(Nearest.unknown("step", "colour", known))
        .isEqualTo("no step is called “colour”; known are shorten, read-day, move");
  }
}
