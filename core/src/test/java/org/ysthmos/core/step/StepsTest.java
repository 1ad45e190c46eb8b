package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.text.BreakIterator;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

class StepsTest {

  private static Step step(String yaml) {
    return StepKinds.read(DocumentNode.parse(yaml));
  }

  private static Computed apply(String yaml, String in) {
    return step(yaml).compile().apply(Text.of(in));
  }

  /** Source of the month names: Unicode CLDR, as the JDK ships it. */
  @ParameterizedTest
  @CsvSource({
    "d MMMM uuuu, en, 23 November 2026, 2026-11-23",
    "d MMMM uuuu, en, 1 march 2024, 2024-03-01",
    "d MMMM uuuu, de, 3 März 2026, 2026-03-03",
    "d 'de' MMMM 'de' uuuu, pt, 5 de fevereiro de 2026, 2026-02-05",
    "dd/MM/uuuu, en, 29/02/2024, 2024-02-29",
    "EEEE d MMM uuuu, en, Monday 23 Nov 2026, 2026-11-23"
  })
  void readsDays(String pattern, String locale, String text, String day) {
    Step step = step("read-day: { pattern: \"" + pattern + "\", locale: " + locale + " }");
    assertThat(step.compile().apply(Text.of(text))).isEqualTo(Day.parse(day));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "yesterday",
        "30 February 2026",
        "29 February 2023",
        "23 November 26",
        "",
        "23 November",
        "Tuesday 23 November 2026",
        "23 Novembre 2026",
        "23 November 2026 or so"
      })
  void neverGuessesADay(String text) {
    assertThat(apply("read-day: { pattern: d MMMM uuuu, locale: en }", text))
        .isInstanceOfSatisfying(
            Problem.class, problem -> assertThat(problem.found()).isEqualTo(text));
  }

  @ParameterizedTest
  @ValueSource(strings = {"d MMMM", "HH:mm", "qqqqqqqq", "{"})
  void patternThatSaysNoWholeDayIsRefused(String pattern) {
    assertThatThrownBy(() -> step("read-day: { pattern: \"" + pattern + "\" }"))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(pattern);
  }

  /** Month ends as java.time documents them for LocalDate.plus. */
  @ParameterizedTest
  @CsvSource({
    "P7D, 2026-11-23, 2026-11-30, moved 7 days later",
    "P1M, 2024-01-31, 2024-02-29, moved 1 month later",
    "P1M, 2026-01-31, 2026-02-28, moved 1 month later",
    "-P10D, 2026-01-05, 2025-12-26, moved 10 days earlier",
    "P2W, 2026-12-20, 2027-01-03, moved 14 days later"
  })
  void movesDays(String period, String from, String to, String sentence) {
    Step step = step("move: " + period);
    assertThat(step.compile().apply(Day.parse(from))).isEqualTo(Day.parse(to));
    assertThat(step.sentence()).isEqualTo(sentence);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "en;8;8",
        "en;1,234.50;1234.5",
        "en;-3;-3",
        "pt;1.234,5;1234.5",
        "de;0,1;0.1",
        "en; 7 ;7",
        "en;123456789012345678901234567890.1;123456789012345678901234567890.1"
      })
  void readsNumbersExactly(String locale, String text, String number) {
    assertThat(apply("read-number: { locale: " + locale + " }", text))
        .isEqualTo(Decimal.parse(number));
  }

  @ParameterizedTest
  @ValueSource(strings = {"eight", "8 or 9", "", "8kg", "٨x"})
  void textThatIsNoNumberIsAProblem(String text) {
    assertThat(apply("read-number", text)).isInstanceOf(Problem.class);
  }

  @ParameterizedTest
  @CsvSource({"10, 1", "8, 1", "7, 3", "5, 3", "4.5, ", "4, 6", "-100, 6", "11, "})
  void putsNumbersIntoBands(String number, String gives) {
    Computed computed =
        step("bands: { \"8..10\": 1, \"5..7\": 3, \"..4\": 6 }")
            .compile()
            .apply(Decimal.parse(number));
    if (gives == null) {
      assertThat(computed).isInstanceOf(Problem.class);
    } else {
      assertThat(computed).isEqualTo(Decimal.parse(gives));
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "bands: { \"1..5\": 1, \"5..7\": 2 }",
        "bands: { \"..5\": 1, \"..7\": 2 }",
        "bands: { \"7..5\": 1 }",
        "bands: {}",
        "bands: { \"a..b\": 1 }"
      })
  void bandsThatMakeNoSenseAreRefused(String yaml) {
    assertThatThrownBy(() -> step(yaml)).isInstanceOf(DocumentException.class);
  }

  @Test
  void shortensAtAWordAndSaysSo() {
    assertThat(apply("shorten: 20", "The door does not close at all"))
        .isEqualTo(new Warned(Text.of("The door does not…"), "shortened from 30 to 20 characters"));
    assertThat(apply("shorten: 20", "The door")).isEqualTo(Text.of("The door"));
  }

  /** Source: Unicode UAX 29, extended grapheme clusters are not to be cut. */
  @Test
  void neverCutsInsideACharacterAsPeopleSeeIt() {
    Seeds.forSeeds(
        400,
        seeds -> {
          String text = seeds.text() + "👩‍🌾é".repeat(seeds.below(9)) + seeds.text();
          int longest = 2 + seeds.below(30);
          Computed computed = new Shorten(longest).compile().apply(Text.of(text));
          if (!(computed instanceof Warned warned)) {
            return;
          }
          String cut = warned.value().display();
          assertThat(cut.length()).isLessThanOrEqualTo(longest);
          String kept = cut.substring(0, cut.length() - 1);
          BreakIterator clusters = BreakIterator.getCharacterInstance(Locale.ROOT);
          clusters.setText(text);
          assertThat(text.startsWith(kept)).isTrue();
          assertThat(clusters.isBoundary(kept.length())).isTrue();
        });
  }

  @Test
  void nothingStaysNothingThroughAChainUntilAStepTakesIt() {
    Chain chain = Chain.compile(List.of(new Trim(), new Shorten(5)), ValueType.TEXT);
    assertThat(chain.run(Nothing.NOTHING, Chain.Trail.NONE)).isEqualTo(Nothing.NOTHING);
    Chain filled = Chain.compile(List.of(new Trim(), new IfNothing("none")), ValueType.TEXT);
    assertThat(filled.run(Nothing.NOTHING, Chain.Trail.NONE)).isEqualTo(Text.of("none"));
  }

  @Test
  void chainThatDoesNotFitNamesTheStepAndTheRemedy() {
    assertThatThrownBy(
            () ->
                Chain.compile(
                    List.of(new Trim(), new Move(java.time.Period.ofDays(7))), ValueType.TEXT))
        .hasMessage(
            "the step “moved 7 days later” takes a day but gets a text; read it as a day first"
                + " (read-day)");
  }

  @TestFactory
  List<DynamicTest> everyKindIsReadFromItsOwnExampleAndSpeaks() {
    return StepKinds.ALL.stream()
        .map(
            kind ->
                DynamicTest.dynamicTest(
                    kind.name(),
                    () -> {
                      Step step = step(kind.example());
                      assertThat(step.sentence()).isNotBlank();
                      assertThat(kind.summary()).endsWith(".");
                    }))
        .toList();
  }

  /** A step is total over the types it takes: whatever the value, it gives an answer. */
  @TestFactory
  List<DynamicTest> everyStepIsTotalOverItsType() {
    return StepKinds.ALL.stream()
        .map(
            kind ->
                DynamicTest.dynamicTest(
                    kind.name(),
                    () -> {
                      Step step = step(kind.example());
                      Step.Function function = step.compile();
                      Seeds.forSeeds(
                          500,
                          seeds -> {
                            Value value = seeds.value();
                            if (step.typing(value.type()) instanceof Typing.Gives gives) {
                              Computed computed = function.apply(value);
                              if (computed instanceof Value given) {
                                assertThat(given.type()).isEqualTo(gives.type());
                              }
                            }
                          });
                    }))
        .toList();
  }

  @Test
  void unknownStepNamesTheNearestKnown() {
    assertThatThrownBy(() -> step("shorten-to: 5"))
        .hasMessageContaining("no step is called “shorten-to”; did you mean “shorten”?");
  }
}
