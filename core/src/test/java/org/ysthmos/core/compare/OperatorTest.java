package org.ysthmos.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueOrder;
import org.ysthmos.core.value.ValueType;

class OperatorTest {

  private static Computed ask(String operator, Value value, ValueType type) {
    return Operators.read(DocumentNode.parse(operator))
        .compile(type, Steps.SCOPE)
        .ask(value, Steps.reading());
  }

  @ParameterizedTest(name = "{0} {1}: {2} is {3}")
  @CsvSource(
      delimiter = ';',
      value = {
        "text;Pond;{ is: present };yes",
        "text;' ';{ is: present };no",
        "text;' ';{ is: empty };yes",
        "text;Pond;{ equal: Pond };yes",
        "text;Pond;{ equal: pond };no",
        "text;Straße;{ equal-ignoring-case: STRASSE };yes",
        "text;Pond;{ one-of: [Lawn, Pond] };yes",
        "text;Pond;{ contains: on };yes",
        "text;Pond;{ starts-with: Po };yes",
        "text;Pond;{ ends-with: Po };no",
        "text;Bed 12;{ matches: \"[0-9]{2}$\" };yes",
        "text;Pond;{ not: { contains: x } };yes",
        "text;school-visits;{ equal: { value: /folder } };yes",
        "text;Pond;{ equal: { value: /folder } };no",
        "number;8;{ equal: 8.0 };yes",
        "number;8;{ more-than: 8 };no",
        "number;8;{ at-least: 8 };yes",
        "number;8;{ less-than: 8.01 };yes",
        "number;8;{ at-most: 7 };no",
        "number;8;{ between: { from: 8, to: 10 } };yes",
        "number;7.9;{ between: { from: 8, to: 10 } };no",
        "day;2026-11-30;{ before: 2026-12-01 };yes",
        "day;2026-11-30;{ after: 2026-11-30 };no",
        "day;2026-11-30;{ between: { from: 2026-11-30, to: 2026-11-30 } };yes",
        "moment;2026-11-30T17:00:00Z;{ before: \"2026-11-30T18:00:00+02:00\" };no",
        "flag;yes;{ equal: yes };yes",
        "choice;open;{ one-of: [open, reopened] };yes"
      })
  void asksOneValue(String type, String value, String operator, String answer) {
    ValueType of = ValueType.parse(type).orElseThrow();
    assertThat(ask(operator, Constant.parse(value, of), of))
        .isEqualTo(Constant.parse(answer, ValueType.FLAG));
  }

  @Test
  void listContainsAnItemAndIsEmptyWithoutItems() {
    ListValue list = ListValue.ofTexts("bus", "guide");
    assertThat(ask("{ contains: bus }", list, list.type())).isEqualTo(Flag.YES);
    assertThat(ask("{ contains: bu }", list, list.type())).isEqualTo(Flag.NO);
    assertThat(ask("{ is: empty }", ListValue.ofTexts(), list.type())).isEqualTo(Flag.YES);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{ equal: x }",
        "{ contains: x }",
        "{ one-of: [x] }",
        "{ matches: x }",
        "{ is: present }"
      })
  void absentValueIsOnlyEverEmpty(String operator) {
    assertThat(ask(operator, Nothing.NOTHING, ValueType.TEXT)).isEqualTo(Flag.NO);
    assertThat(ask("{ is: empty }", Nothing.NOTHING, ValueType.TEXT)).isEqualTo(Flag.YES);
  }

  /** Each operator is read back from what it is written as, and its negation says the opposite. */
  @Test
  void operatorsGoRoundAndNegate() {
    List<String> written =
        List.of(
            "{ is: present }",
            "{ equal: a }",
            "{ equal-ignoring-case: a }",
            "{ one-of: [a, b] }",
            "{ contains: a }",
            "{ starts-with: { value: /folder } }",
            "{ ends-with: a }",
            "{ matches: a+ }");
    Seeds.forSeeds(
        200,
        seeds -> {
          Operator operator =
              Operators.read(DocumentNode.parse(seeds.oneOf(written.toArray(String[]::new))));
          Map.Entry<String, Object> entry = Operators.written(operator);
          SequencedMap<String, Object> document = new LinkedHashMap<>();
          document.put(entry.getKey(), entry.getValue());
          assertThat(Operators.read(DocumentNode.parse(DocumentText.write(document))))
              .isEqualTo(operator);
          Value value = Text.of(seeds.text());
          Computed answer =
              operator.compile(ValueType.TEXT, Steps.SCOPE).ask(value, Steps.reading());
          Computed opposite =
              new Operator.Not(operator)
                  .compile(ValueType.TEXT, Steps.SCOPE)
                  .ask(value, Steps.reading());
          assertThat(Flag.isYes(answer)).isNotEqualTo(Flag.isYes(opposite));
        });
  }

  /** Unicode code points order these two, code units would the other way round. */
  @Test
  void textsAreOrderedByCodePoints() {
    assertThat(ValueOrder.compare(Text.of("\uFF61"), Text.of("\uD83C\uDF3F"))).isNegative();
  }
}
