package org.ysthmos.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ParagraphsTest {

  private static String text(String letters) {
    return letters == null ? "" : String.join("\n\n", letters.split(""));
  }

  /** Each letter stands for a paragraph. */
  @ParameterizedTest
  @CsvSource({
    // Figure 1 of the paper (from memory): 1 4 5 2 3 6, 1 2 3 4 5 6, 1 2 4 5 3 6.
    "123456, 145236, 124536, ",
    "abc, abc, abc, abc",
    "abc, abcd, abc, abcd",
    "abc, zabc, abcd, zabcd",
    "abc, ac, abcd, acd",
    "abcd, aBcd, abcD, aBcD",
    "abc, aXc, aXc, aXc",
    "abc, aXc, aYc, ",
    "abc, ac, aYc, ",
    ", a, a, a",
    ", a, b, ",
    "a, , a, ''",
  })
  void changesApartAreBroughtTogether(String base, String one, String other, String merged) {
    assertThat(Paragraphs.merge(text(base), text(one), text(other)))
        .isEqualTo(Optional.ofNullable(merged).map(ParagraphsTest::text));
  }

  @Test
  void linesOfAParagraphAreOneThing() {
    assertThat(Paragraphs.merge("a\nb\r\n\r\nc", "a\nb\n \n\nc\n\nd", "A\nb\n\nc"))
        .contains("A\nb\n\nc\n\nd");
    assertThat(Paragraphs.merge("a\nb", "A\nb", "a\nB")).isEmpty();
  }

  /** Either side may be called the one; what only one did is taken; nothing else is in it. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void laws(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 3_000; round++) {
      String base = drawn(random, new ArrayList<>());
      String one = drawn(random, paragraphs(base));
      String other = drawn(random, paragraphs(base));
      var merged = Paragraphs.merge(base, one, other);
      assertThat(Paragraphs.merge(base, other, one)).isEqualTo(merged);
      assertThat(Paragraphs.merge(base, one, base)).contains(one);
      assertThat(Paragraphs.merge(base, one, one)).contains(one);
      merged.ifPresent(
          text ->
              assertThat(paragraphs(text))
                  .allMatch(p -> paragraphs(one).contains(p) || paragraphs(other).contains(p)));
    }
  }

  private static List<String> paragraphs(String text) {
    return text.isEmpty() ? new ArrayList<>() : new ArrayList<>(List.of(text.split("\n\n")));
  }

  private static String drawn(Random random, List<String> from) {
    for (int i = random.nextInt(4); i > 0; i--) {
      if (!from.isEmpty() && random.nextInt(3) == 0) {
        from.remove(random.nextInt(from.size()));
      } else {
        from.add(random.nextInt(from.size() + 1), String.valueOf((char) ('a' + random.nextInt(5))));
      }
    }
    return String.join("\n\n", from);
  }
}
