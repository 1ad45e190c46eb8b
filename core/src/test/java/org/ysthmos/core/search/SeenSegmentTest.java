package org.ysthmos.core.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Random;
import java.util.SequencedMap;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SeenSegmentTest {

  private static List<Long> holding(SeenSegment segment, String word) {
    long hash = SeenSegment.hash(word);
    int[] found = SeenSegment.find(segment.pages().get(SeenSegment.page(hash)), hash);
    return Arrays.stream(found).mapToObj(place -> segment.members()[place]).toList();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Fern gully, lower boardwalk | gully",
        "ticket (CD-31). | cd-31",
        "ticket (CD-31). | 31",
        "to k.lund@mail.example now | k.lund@mail.example",
        "to k.lund@mail.example now | lund",
        "Großes Gewächshaus | gewächshaus",
        "温室 北 | 温室"
      })
  void wordsAreFoundWhole(String text, String word) {
    assertThat(SeenWords.of(text)).contains(word);
  }

  @Test
  void partsOfWordsAreNotFound() {
    assertThat(SeenWords.of("Fern gully")).doesNotContain("gull", "ern");
    assertThat(SeenWords.asked("  “Fern”  gully, ")).containsExactly("fern", "gully");
    assertThat(SeenWords.asked(" … ")).isEmpty();
  }

  /** A segment finds just what going through all texts finds. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void findsWhatAScanFinds(long seed) {
    Random random = new Random(seed);
    SequencedMap<Long, String> texts = new LinkedHashMap<>();
    for (long number = 0; number < 3000; number++) {
      StringBuilder text = new StringBuilder();
      for (int i = 0; i < 12; i++) {
        text.append("w").append(random.nextInt(random.nextInt(4) == 0 ? 8 : 4000)).append(' ');
      }
      texts.put(number * 3 + 7, text.toString());
    }
    SeenSegment segment = SeenSegment.of(texts);
    for (int i = 0; i < 4000; i += 37) {
      String word = "w" + i;
      List<Long> scanned =
          texts.entrySet().stream()
              .filter(text -> SeenWords.of(text.getValue()).contains(word))
              .map(text -> text.getKey())
              .toList();
      assertThat(holding(segment, word)).as("seed %s, %s", seed, word).isEqualTo(scanned);
    }
    assertThat(holding(segment, "nowhere")).isEmpty();
  }

  @Test
  void wordsAreSpreadOverThePages() {
    long used =
        LongStream.range(0, 2000)
            .map(i -> SeenSegment.page(SeenSegment.hash("number" + i)))
            .distinct()
            .count();
    assertThat(used).isEqualTo(SeenSegment.PAGES);
  }

  @Test
  void hasAtLeastOneTextAndNotTooMany() {
    assertThatThrownBy(() -> SeenSegment.of(new LinkedHashMap<>()))
        .hasMessageContaining("1 to 32768");
  }
}
