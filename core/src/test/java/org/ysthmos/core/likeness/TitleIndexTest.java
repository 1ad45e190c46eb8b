package org.ysthmos.core.likeness;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.apache.commons.text.similarity.LevenshteinDistance;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.testkit.Titles;

class TitleIndexTest {

  static LongStream seeds() {
    return LongStream.range(0, 8);
  }

  /**
   * The first is the worked example of Navarro, “A guided tour to approximate string matching” (ACM
   * Computing Surveys, 2001); the second that of Wagner and Fischer's algorithm in many handbooks
   * (from memory).
   */
  @ParameterizedTest
  @CsvSource({"survey,surgery,2", "kitten,sitting,3", "a,a,0", "'',abc,3", "abc,'',3"})
  void publishedDistances(String one, String other, int distance) {
    assertThat(EditDistance.within(one, other, 10)).isEqualTo(distance);
    assertThat(EditDistance.within(one, other, distance)).isEqualTo(distance);
    if (distance > 0) {
      assertThat(EditDistance.within(one, other, distance - 1)).isEqualTo(distance);
    }
  }

  /** Against the Levenshtein distance of Commons Text, with and without a bound. */
  @ParameterizedTest
  @MethodSource("seeds")
  void distancesAreThoseOfTheReferenceLibrary(long seed) {
    Random random = new Random(seed);
    for (int i = 0; i < 300; i++) {
      String one = letters(random);
      String other = random.nextInt(3) == 0 ? letters(random) : Titles.typed(one, random);
      int expected = new LevenshteinDistance().apply(one, other);
      int most = random.nextInt(12);
      assertThat(EditDistance.within(one, other, most))
          .as("seed %d: “%s” and “%s” within %d", seed, one, other, most)
          .isEqualTo(Math.min(expected, most + 1));
    }
  }

  private static String letters(Random random) {
    return random
        .ints(random.nextInt(random.nextInt(4) == 0 ? 90 : 30), 0, 4)
        .mapToObj(letter -> "abcš".substring(letter, letter + 1))
        .collect(Collectors.joining());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Elm Walk: branch across the path | Elm Walk: branch acros the path | One character",
        "Elm Walk: branch across the path | ELM WALK - branch across the path! | are the same",
        "Broken bench, Rose Garden | Rose Garden: broken bench | the same, its words in another",
        "Café gutter leaks | Cafe gutter leaks | are the same",
        "Water bed 12 | Water bed 13 | ",
        "Pledge of a.oakes@mail.example: kiln | Pledge of m.oakes@mail.example: kiln | ",
        "Herb spiral: loose plank near the second bench | Rose path: loose plank near the second bench | ",
        "Lower board walk: loose plank by the bench | Lower boardwalk: loose plank by the bench | One character",
        "Replace lamp 4 of path 2 | Replace lamp 2 of path 4 | the same, its words in another",
        "School visit of class A | Pond pump is noisy | ",
        "Fix tap | Fix cap | One character",
      })
  void titlesAreAlikeAsPeopleReadThem(String one, String other, String words) {
    assertThat(TitleLikeness.of(one, other).map(TitleLikeness::words).orElse(""))
        .contains(words == null ? "" : words)
        .matches(told -> told.isEmpty() == (words == null));
  }

  /** What the index finds is what comparing with each finds: nothing is missed, nothing added. */
  @ParameterizedTest
  @MethodSource("seeds")
  void findsWhatComparingWithEachFinds(long seed) {
    Random random = new Random(seed);
    TitleIndex<Integer> index = new TitleIndex<>(1_600);
    Map<Integer, String> there = new LinkedHashMap<>();
    List<String> all = new ArrayList<>();
    for (int i = 0; i < 2_000; i++) {
      String title =
          all.isEmpty() || random.nextInt(4) > 0
              ? Titles.title(random)
              : Titles.typed(all.get(random.nextInt(all.size())), random);
      all.add(title);
      int key = random.nextInt(10) == 0 ? random.nextInt(i + 1) : i;
      String before = there.get(key);
      if (before == null || !before.equals(title)) {
        there.remove(key);
        if (!PlainTitle.of(title).isBlank()) {
          there.put(key, title);
        }
      }
      index.put(key, title);
      if (random.nextInt(8) == 0) {
        int gone = random.nextInt(i + 1);
        there.remove(gone);
        index.remove(gone);
      }
      if (there.size() > 1_600) {
        there.remove(there.keySet().iterator().next());
      }
    }
    assertThat(index.size()).isEqualTo(there.size());
    Map<Integer, PlainTitle> plain = new LinkedHashMap<>();
    there.forEach((key, title) -> plain.put(key, PlainTitle.of(title)));
    for (int i = 0; i < 100; i++) {
      String title = Titles.typed(all.get(random.nextInt(all.size())), random);
      TitleComparison asked = new TitleComparison(PlainTitle.of(title));
      Set<Integer> expected =
          plain.entrySet().stream()
              .filter(one -> asked.with(one.getValue()).isPresent())
              .map(Map.Entry::getKey)
              .collect(Collectors.toSet());
      assertThat(index.near(title, Integer.MAX_VALUE))
          .as("seed %d: near “%s”", seed, title)
          .extracting(TitleIndex.Near::key)
          .containsExactlyInAnyOrderElementsOf(expected);
    }
  }

  @Test
  void theMostAlikeComesFirstAndOfEqualOnesTheNewest() {
    TitleIndex<String> index = new TitleIndex<>(10);
    index.put("far", "Elm Walk: brannch acros the pathe");
    index.put("old", "Elm Walk: branch across the path");
    index.put("new", "elm walk branch across the path");
    assertThat(index.near("Elm Walk: branch across the path", 2))
        .extracting(TitleIndex.Near::key)
        .containsExactly("new", "old");
    assertThat(index.near(" …", 2)).isEmpty();
  }
}
