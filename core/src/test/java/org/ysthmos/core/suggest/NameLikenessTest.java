package org.ysthmos.core.suggest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NameLikenessTest {

  @ParameterizedTest
  @CsvSource({
    "dueDate, due date, 1",
    "Due date, due_date, 1",
    "Título, titulo, 1",
    // Two of three words each: 2·2 / (3 + 3).
    "seen on site, seen on map, 0.667",
    "'', due, 0",
    "?!, due, 0"
  })
  void likenessOf(String one, String other, double expected) {
    assertThat(NameLikeness.of(one, other)).isCloseTo(expected, within(0.04));
  }

  @Test
  void isTheSameBothWays() {
    String[] names = {"due", "due on", "assignees", "Given to", "mail address", "e-mail", "x"};
    for (String one : names) {
      for (String other : names) {
        assertThat(NameLikeness.of(one, other))
            .isEqualTo(NameLikeness.of(other, one))
            .isBetween(0.0, 1.0);
      }
    }
  }

  @Test
  void wordsThatShareABeginningAreLikerThanOthers() {
    assertThat(NameLikeness.of("assignee", "assignees"))
        .isGreaterThan(NameLikeness.of("assignee", "asset"))
        .isGreaterThan(0.5);
  }
}
