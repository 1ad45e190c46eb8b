package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

class ChainTest {

  private static Chain compile(String steps, ValueType type) {
    return Chain.compile(
        StepKinds.readAll(DocumentNode.parse("steps: " + steps)), type, Steps.SCOPE);
  }

  @Test
  void nothingStaysNothingThroughAChainUntilAStepTakesIt() {
    assertThat(Steps.chain("[trim, shorten: 5]", Nothing.NOTHING, ValueType.TEXT))
        .isEqualTo(Nothing.NOTHING);
    assertThat(Steps.chain("[trim, if-nothing: none]", Nothing.NOTHING, ValueType.TEXT))
        .isEqualTo(Text.of("none"));
  }

  @Test
  void tellsTheTypeAfterEachStepWhileItIsEdited() {
    assertThat(
            compile(
                    "[read-day: iso, move: P7D, at: { time: \"17:00\", zone: Europe/Lisbon }]",
                    ValueType.TEXT)
                .types())
        .containsExactly(ValueType.DAY, ValueType.DAY, ValueType.MOMENT);
  }

  @ParameterizedTest(name = "{0} over a {1}")
  @CsvSource(
      delimiter = ';',
      value = {
        "[trim, move: P7D];text;steps/1;the step “moved 7 days later” takes a day but gets a text;"
            + "read it as a day first (read-day)",
        "[trim];list of text;steps/0;takes a text but gets a list of text;join the list first",
        "[join: x];text;steps/0;takes a list but gets a text;split, or in-list",
        "[bands: { \"1..\": 1 }];text;steps/0;takes a number but gets a text;read-number",
        "[write: d MMMM uuuu];moment;steps/0;reads differently in each zone;state one with zone",
        "[write: { pattern: d MMMM, zone: Europe/Lisbon }];day;steps/0;no zone changes;leave",
        "[move: PT1H];day;steps/0;takes a moment but gets a day;make one of the day first (at)",
        "[read-day: iso];moment;steps/0;takes a text but gets a moment;day-in",
        "[put: \"{value}\"];moment;steps/0;takes one value but gets a moment;write it out first",
        "[if-nothing: soon];day;steps/0;is no day;write it as 2026-11-30",
        "[for-each: [trim, move: P1D]];list of text;steps/0/steps/1;takes a day but gets a text;"
            + "read-day",
        "[if: { more-than: 3, use: x }];text;steps/0;has no meaning for a text;takes a number",
        "[by-table: mail-lanes];text;steps/0;gives 1 keys but;folder, flagged",
        "[by-table: nowhere];text;steps/0;no table nowhere;no table",
        "[by-table: { table: mail-lanes, with: [/folder] }];text;steps/0;say which with take;lane"
      })
  void chainThatDoesNotFitNamesTheStepThePlaceAndTheRemedy(
      String steps, String type, String place, String says, String remedy) {
    assertThatThrownBy(() -> compile(steps, ValueType.parse(type).orElseThrow()))
        .isInstanceOfSatisfying(
            Misfit.class,
            misfit -> {
              assertThat(misfit.path()).isEqualTo(place);
              assertThat(misfit.message()).contains(says).contains(remedy);
            });
  }

  @Test
  void gapsBetweenBandsAreRemarkedOnAndNotRefused() {
    assertThat(
            compile("[bands: { \"8..10\": 1, \"5..7\": 3, \"..<5\": 6 }]", ValueType.NUMBER)
                .remarks())
        .singleElement()
        .satisfies(
            remark -> {
              assertThat(remark.path()).isEqualTo("steps/0");
              assertThat(remark.message()).contains("between 7 and 8, such as 7.5");
            });
    assertThat(compile("[bands: { \"5..\": 1, \"..<5\": 6 }]", ValueType.NUMBER).remarks())
        .isEmpty();
  }

  @Test
  void warningsOfStepsArePassedOnAndTheValueGoesOn() {
    Chain chain = compile("[shorten: 10, case: upper]", ValueType.TEXT);
    List<String> warnings = new ArrayList<>();
    List<String> trail = new ArrayList<>();
    Computed result =
        chain.run(
            Text.of("water the ferns"),
            Steps.reading(),
            warnings::add,
            (sentence, computed) -> trail.add(sentence + "=" + Steps.shown(computed)));
    assertThat(result).isEqualTo(Text.of("WATER THE…"));
    assertThat(warnings).containsExactly("shortened from 15 to 10 characters");
    assertThat(trail)
        .containsExactly(
            "=water the ferns", "shortened to 10 characters=water the…", "in capitals=WATER THE…");
  }
}
