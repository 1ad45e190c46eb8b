package org.ysthmos.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ControlsTest {

  /**
   * XML 1.0 section 2.2: {@code Char ::= #x9 | #xA | #xD | [#x20-#xD7FF] | [#xE000-#xFFFD] | …}.
   */
  @Test
  void onlyWhatXmlCanHoldIsLeft() {
    for (int c = 0; c <= 0xFFFF; c++) {
      String left = Controls.without("a" + (char) c + "b");
      boolean xml =
          c == 0x9
              || c == 0xA
              || c == 0xD
              || (c >= 0x20 && c <= 0xD7FF)
              || (c >= 0xE000 && c <= 0xFFFD);
      boolean stays = xml && c != 0x7F;
      assertThat(left.length()).as("U+%04X", c).isEqualTo(stays ? 3 : 2);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "Größe\tund\r\nZeile", "\uD83C\uDF31 seedling", "日本語"})
  void textsOfPeopleStayAsTheyAre(String text) {
    assertThat(Controls.without(text)).isEqualTo(text);
  }
}
