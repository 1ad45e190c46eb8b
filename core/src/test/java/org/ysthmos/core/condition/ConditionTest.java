package org.ysthmos.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.MemoryWorld;

class ConditionTest {

  private static Decision decide(String when, Map<String, String> answers) {
    String document =
        HazardReports.DOCUMENT.replaceFirst("(?s)when:\n.*?match:", "when: " + when + "\nmatch:");
    BridgeVersion bridge = BridgeCompiler.compile(document, 1, HazardReports.CATALOG);
    return Decider.decide(
        bridge,
        HazardReports.event("vd-1"),
        MemoryWorld.finding(HazardReports.report(answers)),
        Mode.EXPLAINED);
  }

  @ParameterizedTest(name = "{0} with place {1}: {2}")
  @CsvSource(
      delimiter = ';',
      value = {
        "{ value: report/answers/place, is: present };Pond;true",
        "{ value: report/answers/place, is: present };' ';false",
        "{ value: report/answers/place, is: empty };'';true",
        "{ value: report/answers/place, equal: Pond };Pond;true",
        "{ value: report/answers/place, equal: Pond };pond;false",
        "{ value: report/answers/place, one-of: [Pond, Lawn] };Lawn;true",
        "{ not: { value: report/answers/place, equal: Pond } };Pond;false",
        "{ not: { value: report/answers/place, equal: Pond } };Lawn;true",
        "{ any: [ { value: report/answers/place, equal: Pond },"
            + " { value: report/answers/mail, is: present } ] };Lawn;true",
        "{ any: [ { value: report/answers/place, equal: Pond },"
            + " { value: report/answers/mail, is: empty } ] };Lawn;false",
        "{ all: [] };Lawn;true",
        "{ value: event/kind, equal: created };Lawn;true",
        "{ value: event/record, equal: vd-2 };Lawn;false"
      })
  void passesOrStops(String when, String place, boolean passes) {
    Decision decision = decide(when, Map.of("place", place));
    assertThat(decision.verdict()).isEqualTo(passes ? Verdict.CREATE : Verdict.PASSED_BY);
    assertThat(decision.because().isEmpty()).isEqualTo(passes);
  }

  @ParameterizedTest
  @CsvSource({"eight", "'8 or 9'"})
  void valueThatCannotBeComputedFailsInsteadOfPassingBy(String danger) {
    Decision decision =
        decide(
            "{ value: report/answers/danger, steps: [read-number], at-least: 2 }",
            Map.of("danger", danger));
    assertThat(decision.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(decision.failures().getFirst().field()).contains("how dangerous");
    assertThat(decision.failures().getFirst().found()).contains(danger);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{ not: { value: report/answers/place, equal: Pond } };it passes unless place is “Pond”",
        "{ all: [ { not: { not: { value: report/answers/place, equal: Lawn } } } ] };it passes unless place is not “Lawn”",
        "{ not: { any: [ { value: report/answers/place, is: present } ] } };it passes unless place is given"
      })
  void whyItPassedByIsSaidAsPeopleWould(String when, String because) {
    assertThat(decide(when, Map.of("place", "Pond")).because()).asString().contains(because);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{ equal: Pond };is not “Pond”",
        "{ is: present };is not given",
        "{ contains: x };does not contain “x”",
        "{ starts-with: x };does not start with “x”",
        "{ ends-with: x };does not end with “x”",
        "{ matches: x+ };does not match the pattern “x+”",
        "{ not: { contains: x } };contains “x”"
      })
  void oppositeOfATestIsSaidAsPeopleWould(String test, String opposite) {
    Operator operator = Operators.read(DocumentNode.parse(test));
    assertThat(new Operator.Not(operator).sentence()).isEqualTo(opposite);
  }
}
