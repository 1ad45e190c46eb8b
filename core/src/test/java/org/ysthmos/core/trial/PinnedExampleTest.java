package org.ysthmos.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;

class PinnedExampleTest {

  private static final BridgeVersion BRIDGE = Garden.bridge("hazard-to-grounds");

  private static TrialWorld worldWith(Map<String, String> answers) {
    TrialWorld world = Garden.world();
    ObjectNode report = HazardReports.report(answers);
    report.put("id", "vd-1");
    world.add("visitor-desk", "hazard-reports", report);
    return world;
  }

  private static PinnedExample pinned() {
    TrialWorld world = worldWith(Map.of());
    Event event = HazardReports.event("vd-1");
    Decision decision = Decider.decide(BRIDGE, event, world, Mode.PLAIN);
    return PinnedExample.pin("a loose plank", event, decision, BRIDGE, world);
  }

  @Test
  void holdsWithTheAnswersOfThenWhateverTheSystemSaysNow() {
    PinnedExample example = pinned();
    assertThat(example.check(example.decide(BRIDGE, worldWith(Map.of("danger", "1"))))).isEmpty();
    assertThat(example.check(example.decide(BRIDGE, Garden.world()))).isEmpty();
  }

  @Test
  void namesWhatARuleMakesOtherThanExpected() {
    PinnedExample example = pinned();
    BridgeVersion changed =
        BridgeCompiler.compile(
            Garden.document("hazard-to-grounds").replace("move: P7D", "move: P8D"),
            1,
            Garden.CATALOG);
    assertThat(example.check(example.decide(changed, Garden.world())))
        .containsExactly(
            new PinnedExample.Difference("due", "2026-11-30T17:00:00Z", "2026-12-01T17:00:00Z"));
  }

  @Test
  void goesRoundAsJson() {
    PinnedExample example = pinned();
    assertThat(PinnedExample.read(example.write())).isEqualTo(example);
  }

  @Test
  void severalTasksArePinnedByTheirNames() {
    TrialWorld world = Garden.world();
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    Event event =
        Garden.event(
            "exhibitions/programme",
            "created",
            "x",
            "{\"id\":\"x\",\"title\":\"Mosses\",\"opens\":\"2026-12-24\"}");
    Decision decision = Decider.decide(bridge, event, world, Mode.PLAIN);
    PinnedExample example = PinnedExample.pin("mosses", event, decision, bridge, world);
    assertThat(example.fields()).containsKeys("opening", "thank");
    assertThat(PinnedExample.read(example.write())).isEqualTo(example);
    assertThat(example.check(example.decide(bridge, world))).isEmpty();
  }
}
