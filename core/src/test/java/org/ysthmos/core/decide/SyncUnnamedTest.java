package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** A task that was made from here, though no answer said what it is called. */
class SyncUnnamedTest {

  private static final Map<String, Value> SENT =
      Map.of(
          "title", Text.of("Mend"),
          "status", new Choice("in-work"),
          "due", new Day(LocalDate.parse("2026-12-01")));

  private final Shores shores = new Shores();

  @BeforeEach
  void taskWhoseJobWasMade() {
    shores
        .paired(
            new SyncedPair(
                Synced.key("shores", Side.LEFT, "b1"),
                new Both<>(Optional.of("b1"), Optional.empty()),
                new Agreed(Map.of(), Map.of()),
                Map.of(),
                Optional.empty()))
        .unnamed("b1", SENT)
        .holding("b1", "title", "Mend", "lane", "doing", "due", "2026-12-01T17:00:00Z");
  }

  private Decision told(String... fields) {
    shores.holding("l7", fields);
    return shores.decide(Shores.BRIDGE, Side.RIGHT, "created", "l7", "{\"label\":\"board\"}");
  }

  @Test
  void isKnownByWhatItHoldsAndBecomesTheOtherOfItsPair() {
    Decision decision =
        told("title", "Mend", "status", "in-work", "due", "2026-12-01", "label", "board");
    assertThat(decision.verdict()).isEqualTo(Verdict.UNCHANGED);
    Synced synced = decision.synced().orElseThrow();
    assertThat(synced.key()).isEqualTo(Synced.key("shores", Side.LEFT, "b1"));
    assertThat(synced.records()).isEqualTo(new Both<>(Optional.of("b1"), Optional.of("l7")));
  }

  /** Several calls make a record, and the ledger may fill in what was not sent. */
  @ParameterizedTest
  @CsvSource(
      textBlock =
          """
          Mend, in-work, ,           ,        true
          Mend, in-work, 2026-12-01, as ever, true
          Mend, planned, 2026-12-01, ,        false
          Tend, in-work, 2026-12-01, ,        false
          Mend, in-work, 2026-12-02, ,        false
          """)
  void whatItHoldsOtherwiseMakesItAnother(
      String title, String status, String due, String note, boolean ours) {
    String[] fields = {
      "title", title, "status", status, "label", "board", "due", due, "note", note
    };
    Decision decision = told(fields);
    assertThat(decision.synced().orElseThrow().records().left().isPresent()).isEqualTo(ours);
    assertThat(decision.verdict() == Verdict.CREATE).isNotEqualTo(ours);
  }

  @Test
  void taskOfAPairThatWasPartedIsAnother() {
    shores.paired(
        new SyncedPair(
            Synced.key("shores", Side.LEFT, "b1"),
            new Both<>(Optional.of("b1"), Optional.empty()),
            new Agreed(Map.of(), Map.of()),
            Map.of(),
            Optional.of("a person said so")));
    assertThat(told("title", "Mend", "status", "in-work", "label", "board").verdict())
        .isEqualTo(Verdict.CREATE);
  }
}
