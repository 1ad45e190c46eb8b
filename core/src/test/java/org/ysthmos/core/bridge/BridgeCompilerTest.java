package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.testkit.HazardReports;

class BridgeCompilerTest {

  private static DocumentException problems(String document) {
    return catchThrowableOfType(
        DocumentException.class, () -> BridgeCompiler.compile(document, 1, HazardReports.SHAPES));
  }

  static Stream<Arguments> mistakes() {
    return Stream.of(
        Arguments.of("purpose:", "porpose:", "did you mean “purpose”?"),
        Arguments.of(
            "report/answers/seenOn", "report/answers/seenon", "did you mean “/answers/seenOn”?"),
        Arguments.of("report/answers/seenOn", "rapport/answers/seenOn", "did you mean “report”?"),
        Arguments.of("match: [/submission]", "match: [/id]", "no field that comes with the event"),
        Arguments.of("match: [/submission]", "match: []", "at least one value"),
        Arguments.of("  lane:", "  lanes:", "no field of Paths and trees is called “lanes”"),
        Arguments.of(
            "      - at: { time: \"17:00\", zone: Europe/Lisbon }\n",
            "",
            "Due is a moment but the rule gives a day; say the time and the zone"),
        Arguments.of("- move: P7D", "- move: 7 days", "is no period"),
        Arguments.of("zone: Europe/Lisbon", "zone: Lisbon", "is no IANA time zone"),
        Arguments.of("- read-number\n      - bands", "- bands", "takes a number but gets a text"),
        Arguments.of("always: [bu-11]", "always: bu-11", "write them as a list"),
        Arguments.of("\"{report/answers/place}:", "\"{report/answers/place:", "no field"),
        Arguments.of("at-least: 2", "at-least: much", "is no number"),
        Arguments.of("steps: [read-number], at-least", "at-least", "has no meaning for a text"),
        Arguments.of("none: fail", "none: fial", "did you mean “fail”?"),
        Arguments.of(
            "to: { system: grounds-board", "to: { system: nowhere", "there is no collection"),
        Arguments.of("per: PT1H", "per: an hour", "is no span of time"),
        Arguments.of("bridge: hazard-to-grounds", "bridge: Hazard!", "lower case with hyphens"));
  }

  @ParameterizedTest(name = "{1}: {2}")
  @MethodSource("mistakes")
  void mistakeIsNamedWithItsPlaceAndRemedy(String right, String wrong, String says) {
    assertThat(HazardReports.DOCUMENT).contains(right);
    DocumentException refused = problems(HazardReports.DOCUMENT.replace(right, wrong));
    assertThat(refused).hasMessageContaining(says);
    assertThat(refused.problems()).allSatisfy(p -> assertThat(p.line()).isPositive());
  }

  @Test
  void allProblemsAreFoundAtOnceWithLineAndColumn() {
    DocumentException refused =
        problems(
            HazardReports.DOCUMENT
                .replace("report/answers/seenOn", "report/answers/seen")
                .replace("always: reported", "always: [reported]"));
    assertThat(refused.problems())
        .extracting(p -> p.path())
        .containsExactly("fields/lane", "fields/due");
    assertThat(refused.problems().getFirst().line()).isEqualTo(17);
    assertThat(refused.problems().getFirst().column()).isEqualTo(9);
  }

  @Test
  void requiredFieldThatIsMissingIsNamed() {
    String without = HazardReports.DOCUMENT.replaceFirst("(?s)  title:.*?  lane:", "  lane:");
    assertThat(problems(without)).hasMessageContaining("“title” is required by Paths and trees");
  }

  @Test
  void momentInATextNeedsAZone() {
    assertThat(
            problems(HazardReports.DOCUMENT.replace("{report/answers/photo}", "{report/sentAt}")))
        .hasMessageContaining("is a moment and would read differently in each zone");
  }

  @Test
  void whatIsNoYamlSaysWhere() {
    assertThatThrownBy(() -> BridgeCompiler.compile("bridge: [a\nname: b", 1, HazardReports.SHAPES))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining("line 2")
        .hasMessageContaining("this is not YAML");
  }
}
