package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** What holds for every step: its examples, its words, its type, its document. */
class StepKindsTest {

  private static final List<ValueType> TYPES = types();

  private static List<ValueType> types() {
    List<ValueType> types = new ArrayList<>();
    for (String word :
        List.of("text", "number", "flag", "day", "moment", "choice", "person", "link")) {
      ValueType type = ValueType.parse(word).orElseThrow();
      types.add(type);
      types.add(ValueType.listOf(type));
    }
    return types;
  }

  private static Stream<DynamicTest> forEachKind(Consumer<StepKind> law) {
    return StepKinds.ALL.stream()
        .map(kind -> DynamicTest.dynamicTest(kind.name(), () -> law.accept(kind)));
  }

  private static List<Step> stepsOf(StepKind kind) {
    return kind.examples().stream().map(example -> Steps.step(example.written())).toList();
  }

  @TestFactory
  Stream<DynamicTest> examplesGiveWhatTheySay() {
    return forEachKind(
        kind -> {
          assertThat(kind.examples()).isNotEmpty();
          for (StepKind.Example example : kind.examples()) {
            assertThat(Steps.shown(Steps.apply(example.written(), example.in())))
                .as(example.written())
                .isEqualTo(example.gives());
          }
        });
  }

  @TestFactory
  Stream<DynamicTest> everyStepSpeaks() {
    return forEachKind(
        kind -> {
          assertThat(kind.summary()).endsWith(".");
          stepsOf(kind).forEach(step -> assertThat(step.sentence()).isNotBlank());
        });
  }

  @TestFactory
  Stream<DynamicTest> documentOfAStepIsReadBackAsTheSameStep() {
    return forEachKind(
        kind -> {
          for (Step step : stepsOf(kind)) {
            String written =
                DocumentText.write(new LinkedHashMap<>(Map.of("step", step.toDocument())));
            assertThat(StepKinds.read(DocumentNode.parse(written).need("step"))).isEqualTo(step);
          }
        });
  }

  /** Whatever the value of a type that a step takes, it gives an answer of the type it says. */
  @TestFactory
  Stream<DynamicTest> everyStepIsTotalOverItsTypes() {
    return forEachKind(
        kind -> {
          int taken = 0;
          for (Step step : stepsOf(kind)) {
            for (ValueType type : TYPES) {
              Optional<Step.Compiled> compiled = compiled(step, type);
              if (compiled.isPresent()) {
                taken++;
                requireTotal(step, compiled.get(), type);
              }
            }
          }
          assertThat(taken).as("types taken").isPositive();
        });
  }

  private static Optional<Step.Compiled> compiled(Step step, ValueType type) {
    try {
      return Optional.of(step.compile(type, Steps.SCOPE));
    } catch (Misfit misfit) {
      assertThat(misfit.message()).isNotBlank();
      return Optional.empty();
    }
  }

  private static void requireTotal(Step step, Step.Compiled compiled, ValueType type) {
    Reading reading = Steps.reading();
    Seeds.forSeeds(
        120,
        seeds -> {
          Value in = step.takesNothing() && seeds.below(10) == 0 ? Nothing.NOTHING : seeds.of(type);
          Computed out = compiled.function().apply(in, reading);
          assertThat(compiled.function().apply(in, reading)).isEqualTo(out);
          if (out instanceof Problem problem) {
            assertThat(problem.message()).isNotBlank();
            return;
          }
          Value value = Warned.valueOf(out);
          if (value != Nothing.NOTHING) {
            assertThat(value.type()).isEqualTo(compiled.gives());
            assertThat(ValueJson.read(ValueJson.write(value))).isEqualTo(value);
          }
        });
  }

  @Test
  void unknownStepNamesTheNearestKnown() {
    assertThatThrownBy(() -> Steps.step("shorten-to: 5"))
        .hasMessageContaining("no step is called “shorten-to”; did you mean “shorten”?");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "trim: yes;has no options; write its name alone",
        "bands;needs options, for example bands: {",
        "round: { place: 2 };no key is called “place”; did you mean “places”?",
        "round: { how: up };“places” is missing here",
        "round: two;expected a whole number",
        "case: shouting;no word here is called “shouting”",
        "part: { missing: fail };say what the part stands after or before",
        "find-pattern: \"(\";is no pattern",
        "find-pattern: { pattern: \"a\", group: 1 };“group” is from 1 to 0",
        "find-pattern: \"((a{1000}){1000}){1000}\";more than 10000 repeats",
        "calculate: { plus: 1, times: 2 };write one of plus, minus, times or divided-by",
        "calculate: { divided-by: 0 };nothing can be divided by 0",
        "read-moment: { pattern: d MMMM uuuu HH:mm };say where the clock stood",
        "read-moment: { zone: Europe/Lisbon };RFC 3339 says its own offset",
        "read-day: YYYY-MM-dd;counts weeks by country; write iso-week",
        "read-day: d MMMM;does not say year, month and day",
        "at: { time: 5pm, zone: Europe/Lisbon };is no time of day",
        "at: { time: \"17:00\", zone: Lisbon };is no IANA time zone",
        "move: 7 days;is no period",
        "take: { nth: 1, at-most: 2 };write one of",
        "if: { use: 1 };an operator is missing here",
        "if: { equal: 1, more-than: 2, use: 1 };there is more than one operator",
        "put: \"{place}\";is no address",
        "split: \"\";say what stands between",
        "read-number: xx-yy-zz-this-is-none;is no language"
      })
  void optionsThatMakeNoSenseAreRefused(String yaml, String says) {
    assertThatThrownBy(() -> Steps.step(yaml))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(says);
  }
}
