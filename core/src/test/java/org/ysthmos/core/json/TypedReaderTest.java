package org.ysthmos.core.json;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.math.BigDecimal;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

class TypedReaderTest {

  private static final JsonMapper JSON = ExactJson.mapper();

  private static Computed read(String json, String type) throws Exception {
    return TypedReader.read(JSON.readTree(json), ValueType.parse(type).orElseThrow());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "\"8\";text;8",
        "8;text;8",
        "true;text;true",
        "8.50;number;8.5",
        "true;flag;yes",
        "\"2026-11-23\";day;2026-11-23",
        "\"2026-11-23T17:00:00+01:00\";moment;2026-11-23T16:00:00Z",
        "\"https://a.example/1\";link;https://a.example/1",
        "7;person;7",
        "\"low\";choice;low",
        "[\"a\",\"b\"];list of text;a, b",
        "[1,2];list of number;1, 2"
      })
  void readsTheDeclaredType(String json, String type, String display) throws Exception {
    Computed computed = read(json, type);
    assertThat(computed).isInstanceOf(Value.class);
    assertThat(((Value) computed).display()).isEqualTo(display);
    assertThat(((Value) computed).type().toString()).isEqualTo(type);
  }

  /** RFC 8259 section 6: a number may have any size and precision; the last three are its own. */
  @ParameterizedTest
  @CsvSource({
    "19.999999999999999999, number, 19.999999999999999999",
    "12345678901234567890123.5, text, 12345678901234567890123.5",
    "1.50, text, 1.50",
    "123e3, text, 123000",
    "-0.0, number, 0",
    "1E400, number, 1E400",
    "3.141592653589793238462643383279, number, 3.141592653589793238462643383279",
    "9007199254740993, number, 9007199254740993"
  })
  void numbersAreWhatWasWritten(String json, String type, String number) throws Exception {
    Computed computed = read(json, type);
    assertThat(computed).isInstanceOf(Value.class);
    assertThat(((Value) computed).display()).isEqualTo(new BigDecimal(number).toPlainString());
  }

  /** A few signs that would fill a disk when they are written out. */
  @ParameterizedTest
  @ValueSource(strings = {"1e999999999", "-1e-999999999", "1e1001"})
  void numbersOfMoreDigitsThanAreTakenAreProblems(String json) throws Exception {
    for (String type : List.of("number", "text")) {
      assertThat(read(json, type))
          .isInstanceOfSatisfying(
              Problem.class,
              problem -> assertThat(problem.toString()).contains("more than 1000 digits"));
    }
  }

  /** A day is never made of a moment, nor a number of a text: that takes a step. */
  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "\"8\";number",
        "\"yes\";flag",
        "\"2026-11-23T17:00:00Z\";day",
        "\"2026-11-23\";moment",
        "20261123;day",
        "8;link",
        "\"a\";list of text",
        "[\"a\"];text",
        "{\"a\":1};text",
        "[1,\"b\"];list of number"
      })
  void otherShapesAreProblemsThatNameBothTypes(String json, String type) throws Exception {
    assertThat(read(json, type))
        .isInstanceOfSatisfying(
            Problem.class,
            problem -> assertThat(problem.message()).contains("was declared").contains("came as"));
  }

  /** RFC 3986 section 3.1 for schemes; which of them a click may follow is common practice. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "https://desk.example/t/1|true", "HTTP://desk.example|true", "mailto:rui@example.org|true",
        "tel:+351210000000|true", "javascript:alert(1)|false", "JavaScript:alert(1)|false",
        "data:text/html,x|false", "file:///etc/passwd|false", "/relative|false",
        "not an address|false", "mid:1@example.org|false"
      })
  void linkIsFollowedOnlyByAStatedScheme(String address, boolean taken) {
    JsonNode node = JsonNodeFactory.instance.textNode(address);
    FieldShape field = FieldShape.of("/l", "link", ValueType.LINK);
    assertThat(field.read(node) instanceof Link).isEqualTo(taken);
    boolean mail = address.startsWith("mid:");
    assertThat(field.withSchemes(Set.of("mid")).read(node) instanceof Link)
        .isEqualTo(taken || mail);
  }

  @Test
  void missingAndNullAreNothing() throws Exception {
    assertThat(read("null", "day")).isEqualTo(Nothing.NOTHING);
    assertThat(TypedReader.read(JSON.readTree("{}").path("x"), ValueType.listOf(ValueType.TEXT)))
        .isEqualTo(Nothing.NOTHING);
  }

  @Test
  void whateverComesGivesAValueOfTheTypeOrAProblem() {
    String[] types = {"text", "number", "flag", "day", "moment", "link", "list of text"};
    Seeds.forSeeds(
        2000,
        seeds -> {
          JsonNode node = seeds.json(3);
          ValueType type = ValueType.parse(types[seeds.below(types.length)]).orElseThrow();
          if (TypedReader.read(node, type) instanceof Value value && value != Nothing.NOTHING) {
            assertThat(value.type()).isEqualTo(type);
          }
        });
  }
}
