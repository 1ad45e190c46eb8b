package org.ysthmos.core.failure;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class FailureSignatureTest {

  private static String of(String message) {
    return FailureSignature.of(Failure.of(FailureKind.VALUE_REFUSED, message), "ledger", "jobs");
  }

  @Test
  void sameCauseOfOtherRecordsIsTheSame() {
    assertThat(of("Ledger answered 422: no job “J-17”, due 2026-11-24T17:00:00Z"))
        .isEqualTo(of("Ledger answered 422: no job “J-2041”, due 2025-01-02T09:30:00Z"));
    assertThat(of("“yesterday” is no day")).isEqualTo(of("“next week” is no day"));
  }

  @Test
  void otherWordsKindsPlacesFieldsAndCodesAreOtherCauses() {
    Failure failure = Failure.of(FailureKind.VALUE_REFUSED, "It was refused");
    String own = FailureSignature.of(failure, "ledger", "jobs");
    assertThat(own)
        .isNotEqualTo(of("It was not refused"))
        .isNotEqualTo(FailureSignature.of(failure, "board", "jobs"))
        .isNotEqualTo(FailureSignature.of(failure, "ledger", "parts"))
        .isNotEqualTo(FailureSignature.of(failure.withField("due", ""), "ledger", "jobs"))
        .isNotEqualTo(FailureSignature.of(failure.withCode("409"), "ledger", "jobs"))
        .isNotEqualTo(
            FailureSignature.of(
                Failure.of(FailureKind.NOT_ALLOWED, "It was refused"), "ledger", "jobs"))
        .hasSize(32);
  }

  @Test
  void leavesOutWhatDiffersFromRecordToRecord() {
    assertThat(FailureSignature.pattern("Job 17 of “Fern gully” at gb-2041, 3 of 9"))
        .isEqualTo("Job # of “” at #, # of #");
  }
}
