package org.ysthmos.core.incident;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.ysthmos.core.failure.FailureKind;

class IncidentKeyTest {

  @ParameterizedTest
  @CsvSource({
    "RATE_LIMITED, board, REFUSED/board",
    "QUOTA_FULL, board, REFUSED/board",
    "NOT_ALLOWED, board, REFUSED/board",
    "NOT_SIGNED_IN, board, REFUSED/board",
    "UNREACHABLE, board, AWAY/board",
    "ANSWER_UNKNOWN, board, AWAY/board",
    "VALUE_REFUSED, board, ALIKE/0f3c",
    "NOT_FOUND, board, ALIKE/0f3c",
    "MAPPING_ERROR, '', ALIKE/0f3c",
    "NOT_ALLOWED, '', ALIKE/0f3c",
  })
  void failuresOfOneCauseHaveOneKey(FailureKind kind, String system, String key) {
    assertThat(IncidentKey.of(kind, system, "0f3c").text()).isEqualTo(key);
  }

  @ParameterizedTest
  @EnumSource(FailureKind.class)
  void isReadAsItIsWritten(FailureKind kind) {
    IncidentKey key = IncidentKey.of(kind, "works/ledger", "0f3c");
    assertThat(IncidentKey.parse(key.text())).isEqualTo(key);
  }

  @Test
  void whatIsNoKeyIsRefused() {
    assertThatThrownBy(() -> IncidentKey.parse("board"))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("board");
  }
}
