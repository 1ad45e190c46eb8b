package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.text.BreakIterator;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.Warned;

class TextStepsTest {

  private static final String TICKET =
      """
      Place: Palm house, north door
      Fault code: F-204
      Seen by: Rui
      Fault code: F-311
      Note: Place: see above""";

  /** Labels of a text that people wrote: several lines, missing, repeated; invented data. */
  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = ';',
      value = {
        "after: \"Place:\", line: true, missing: fail;Palm house, north door",
        "after: \"Fault code:\", line: true, missing: fail;F-204",
        "after: \"Fault code:\", line: true, missing: fail, repeated: last;F-311",
        "after: \"Fault code:\", line: true, missing: fail, repeated: fail;"
            + "“Fault code:” stands 2 times in the text",
        "after: \"fault CODE:\", line: true, ignoring-case: true, missing: fail;F-204",
        "after: \"Gate:\", line: true, missing: fail;“Gate:” is missing",
        "after: \"Gate:\", line: true, missing: empty;''",
        "after: \"Place:\", before: \",\", missing: fail;Palm house",
        "before: \"Fault\", missing: fail;Place: Palm house, north door",
        "after: \"Seen by:\", before: \"Gate:\", missing: fail;“Gate:” is missing",
        "line: true, missing: fail;Place: Palm house, north door"
      })
  void takesPartsBetweenLabels(String options, String gives) {
    assertThat(Steps.shown(Steps.apply("part: { " + options + " }", TICKET))).isEqualTo(gives);
  }

  @Test
  void partOverSeveralLinesKeepsThem() {
    assertThat(
            Steps.shown(
                Steps.apply("part: { after: \"204\", before: \"Note\", missing: fail }", TICKET)))
        .isEqualTo("Seen by: Rui\nFault code: F-311");
  }

  @Test
  void shortensAtAWordAndSaysSo() {
    assertThat(Steps.apply("shorten: 20", "The door does not close at all"))
        .isEqualTo(new Warned(Text.of("The door does not…"), "shortened from 30 to 20 characters"));
    assertThat(Steps.apply("shorten: 20", "The door")).isEqualTo(Text.of("The door"));
  }

  /**
   * The same text counted in four ways. The numbers are from memory of Unicode UAX 29 (a farmer is
   * one extended grapheme cluster of three code points joined by U+200D) and of UTF-8 (RFC 3629)
   * and UTF-16 (RFC 2781).
   */
  @ParameterizedTest
  @CsvSource({
    "👩‍🌾, 1, 3, 5, 11",
    "é, 1, 1, 1, 2",
    "e\u0301, 1, 2, 2, 3",
    "🇵🇹, 1, 2, 4, 8",
    "日本語, 3, 3, 3, 9",
    "abc, 3, 3, 3, 3"
  })
  void countsTextsAsTheTargetDoes(String text, int characters, int points, int units, int bytes) {
    assertThat(TextLength.CHARACTERS.of(text)).isEqualTo(characters);
    assertThat(TextLength.CODE_POINTS.of(text)).isEqualTo(points);
    assertThat(TextLength.CODE_UNITS.of(text)).isEqualTo(units);
    assertThat(TextLength.BYTES.of(text)).isEqualTo(bytes);
    assertThat(text.getBytes(StandardCharsets.UTF_8)).hasSize(bytes);
  }

  /** Source: Unicode UAX 29, extended grapheme clusters are not to be cut. */
  @Test
  void neverCutsInsideACharacterAsPeopleSeeItHoweverItCounts() {
    Seeds.forSeeds(
        800,
        seeds -> {
          String text = seeds.text() + "👩‍🌾é🇵🇹".repeat(seeds.below(9)) + seeds.text();
          int longest = 4 + seeds.below(30);
          TextLength unit = seeds.oneOf(TextLength.values());
          Computed computed =
              Steps.apply("shorten: { to: " + longest + ", counted-in: " + unit.key() + " }", text);
          if (!(computed instanceof Warned warned)) {
            assertThat(unit.of(text)).isLessThanOrEqualTo(longest);
            return;
          }
          String cut = warned.value().display();
          assertThat(unit.of(cut)).isLessThanOrEqualTo(longest);
          String kept = cut.substring(0, cut.length() - 1);
          BreakIterator clusters = BreakIterator.getCharacterInstance(Locale.ROOT);
          clusters.setText(text);
          assertThat(text.startsWith(kept)).isTrue();
          assertThat(clusters.isBoundary(kept.length())).isTrue();
        });
  }

  /**
   * A pattern that takes exponential time where patterns go back and forth; here it ends at once.
   */
  @Test
  void patternsTakeLinearTime() {
    String text = "a".repeat(200_000) + "!";
    assertThat(Steps.apply("find-pattern: \"^(a+)+$\"", text)).isEqualTo(Nothing.NOTHING);
  }

  @Test
  void replacementThatWouldGrowWithoutBoundIsAProblem() {
    assertThat(
            Steps.apply(
                "replace: { each: a, by: \"" + "b".repeat(1000) + "\" }", "a".repeat(100_000)))
        .isEqualTo(Text.tooLong());
  }

  @Test
  void replacementHasNoSyntaxOfItsOwn() {
    assertThat(Steps.apply("replace-pattern: { pattern: \"[0-9]+\", by: \"$1\\\\\" }", "F-204"))
        .isEqualTo(Text.of("F-$1\\"));
  }

  @Test
  void slotsOfPutTakeTheValueInHandAndOtherFields() {
    assertThat(Steps.apply("put: \"{value} in {/folder}, {{as it is}}\"", "Fern"))
        .isEqualTo(Text.of("Fern in school-visits, {as it is}"));
  }
}
