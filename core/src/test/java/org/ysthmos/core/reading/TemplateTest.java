package org.ysthmos.core.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TemplateTest {

  @Test
  void takesWordsAndSlotsApart() {
    assertThat(Template.parse("{report/place}: {/submission}!").parts())
        .containsExactly(
            new Template.Slot(Address.parse("report/place")),
            new Template.Words(": "),
            new Template.Slot(Address.parse("/submission")),
            new Template.Words("!"));
  }

  @Test
  void doubledBraceIsTheSignItself() {
    assertThat(Template.parse("{{no slot}} {report/a~1b}").parts())
        .containsExactly(
            new Template.Words("{no slot} "), new Template.Slot(Address.parse("report/a~1b")));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{report/place;never closed",
        "place};without its {",
        "{place};is no address",
        "{report/a~2};~ in an address"
      })
  void whatCannotBeReadSaysWhy(String text, String why) {
    assertThatThrownBy(() -> Template.parse(text))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(why);
  }
}
