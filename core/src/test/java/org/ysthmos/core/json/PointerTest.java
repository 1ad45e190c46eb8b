package org.ysthmos.core.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.testkit.Seeds;

/** Field addresses are JSON Pointers. Source of the examples: RFC 6901 section 5. */
class PointerTest {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String DOCUMENT =
      """
      {"foo":["bar","baz"],"":0,"a/b":1,"c%d":2,"e^f":3,"g|h":4,"i\\\\j":5,"k\\"l":6," ":7,"m~n":8}
      """;

  @ParameterizedTest(name = "{0} gives {1}")
  @CsvSource(
      quoteCharacter = '`',
      value = {
        "`/foo`;`[\"bar\",\"baz\"]`",
        "`/foo/0`;`\"bar\"`",
        "`/`;`0`",
        "`/a~1b`;`1`",
        "`/c%d`;`2`",
        "`/e^f`;`3`",
        "`/g|h`;`4`",
        "`/i\\j`;`5`",
        "`/k\"l`;`6`",
        "`/ `;`7`",
        "`/m~0n`;`8`"
      },
      delimiter = ';')
  void examplesOfSection5(String pointer, String found) throws Exception {
    assertThat(Pointer.parse(pointer).in(JSON.readTree(DOCUMENT))).isEqualTo(JSON.readTree(found));
  }

  @Test
  void emptyPointerIsTheWholeDocument() throws Exception {
    JsonNode document = JSON.readTree(DOCUMENT);
    assertThat(Pointer.parse("").in(document)).isSameAs(document);
  }

  @ParameterizedTest
  @ValueSource(strings = {"/foo/2", "/foo/-", "/foo/01", "/foo/1e0", "/nothing", "/foo/0/x"})
  void whatIsNotThereIsMissing(String pointer) throws Exception {
    assertThat(Pointer.parse(pointer).in(JSON.readTree(DOCUMENT)).isMissingNode()).isTrue();
  }

  @ParameterizedTest
  @ValueSource(strings = {"foo", "/a~", "/a~2b", "/~/x"})
  void whatSection3DoesNotAllowIsRefused(String pointer) {
    assertThatThrownBy(() -> Pointer.parse(pointer)).isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void writtenAndReadAgainItIsTheSame() {
    Seeds.forSeeds(
        300,
        seeds -> {
          var tokens = java.util.List.of(seeds.text(), seeds.text() + "~/", seeds.text());
          Pointer pointer = new Pointer(tokens);
          assertThat(Pointer.parse(pointer.toString())).isEqualTo(pointer);
        });
  }
}
