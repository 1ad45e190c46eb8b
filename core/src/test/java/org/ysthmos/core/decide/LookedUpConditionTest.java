package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.Text;

/** Conditions that need what is looked up, though not in what they start from. */
class LookedUpConditionTest {

  /** What a test compares with may be looked up, though what it starts from is not. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "{ value: /author, equal: { value: message/author } }",
        "{ value: values/who, equal: rui }",
        "{ value: /author, steps: [put: \"{message/author}\"], equal: rui }",
      })
  void whatATestComparesWithIsLookedUpBeforeItIsAsked(String when) {
    String document =
        Garden.document("seedling-to-ledger")
            .replace("when: { value: /reaction, equal: seedling }", "when: " + when)
            .replace(
                "match:",
                "values: { who: { always: x, steps: [put: \"{message/author}\"] } }\nmatch:");
    TrialWorld world = Garden.world();
    world.receive(
        Garden.event(
            "garden-chat/messages",
            "posted",
            "m2",
            """
            {"channel":"greenhouse","ts":"2","author":"rui","text":"Water the ferns","at":"2026-11-24T09:00:00Z"}
            """));
    Decision decision =
        Decider.decide(
            BridgeCompiler.compile(document, 1, Garden.CATALOG),
            Garden.event(
                "garden-chat/reactions",
                "added",
                "r2",
                """
                {"reaction":"seedling","channel":"greenhouse","ts":"2","author":"rui"}
                """),
            world,
            Mode.PLAIN);
    assertThat(decision.failures()).isEmpty();
    assertThat(decision.tasks().getFirst().fields().get("title"))
        .isEqualTo(Text.of("Water the ferns"));
  }
}
