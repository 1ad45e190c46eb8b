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
import org.ysthmos.core.decide.PairOfShores;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.Shores;

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

  /** A task that was changed on the board, with the job of which it is the other one. */
  private static PinnedExample ofPair() {
    Shores shores =
        new Shores()
            .paired(PairOfShores.pair())
            .holding("b1", "title", "Mend the gate", "lane", "finished")
            .holding("l1", "title", "Mend it", "status", "in-work");
    Event event = Shores.event(Side.LEFT, "changed", "b1", "{}");
    BridgeVersion bridge = Shores.bridge(Shores.BRIDGE);
    Decision decision = Decider.decide(bridge, event, shores, Mode.PLAIN);
    return PinnedExample.pin("both", event, decision, bridge, shores);
  }

  @Test
  void exampleOfAPairHoldsWithBothTasksOfThen() {
    PinnedExample example = ofPair();
    assertThat(example.verdict()).isEqualTo("update");
    assertThat(example.fields().get("right")).containsEntry("status", "done");
    assertThat(PinnedExample.read(example.write())).isEqualTo(example);
    BridgeVersion bridge = Shores.bridge(Shores.BRIDGE);
    assertThat(example.check(example.decide(bridge, new Shores()))).isEmpty();

    BridgeVersion changed =
        Shores.bridge(Shores.BRIDGE.replace("finished: done }", "finished: planned }"));
    assertThat(example.check(example.decide(changed, new Shores())))
        .containsExactly(new PinnedExample.Difference("right/status", "done", "planned"));
  }

  @Test
  void laterEventsKnowOfThePairAndOfWhatWasWritten() {
    TrialWorld world = new TrialWorld(Shores.CATALOG, Map.of());
    BridgeVersion bridge = Shores.bridge(Shores.BRIDGE);
    Decision made = told(world, bridge, Side.LEFT, "created", "b1", "Mend it", "lane", "wanted");
    assertThat(made.verdict()).isEqualTo(Verdict.CREATE);
    Decision echo =
        Decider.decide(
            bridge.seenFrom("ledger", "jobs"),
            Shores.event(Side.RIGHT, "created", "new-1", "{}"),
            world,
            Mode.PLAIN);
    assertThat(echo.verdict()).isEqualTo(Verdict.UNCHANGED);

    Decision back =
        told(world, bridge, Side.RIGHT, "changed", "new-1", "Mend it", "status", "done");
    assertThat(back.tasks().getFirst().fields().get("lane").display()).isEqualTo("finished");
    Decision again =
        told(world, bridge, Side.LEFT, "changed", "b1", "Mend it well", "lane", "finished");
    assertThat(again.tasks().getFirst().delivery().orElseThrow().fields())
        .containsOnlyKeys("title");
    Decision gone =
        told(world, bridge, Side.LEFT, "removed", "b1", "Mend it well", "lane", "finished");
    assertThat(gone.synced().orElseThrow().parted()).isPresent();
  }

  private static Decision told(
      TrialWorld world,
      BridgeVersion bridge,
      Side side,
      String kind,
      String id,
      String title,
      String field,
      String status) {
    Event event =
        Shores.event(
            side,
            kind,
            id,
            "{\"id\":\"%s\",\"title\":\"%s\",\"%s\":\"%s\",\"label\":\"x\"}"
                .formatted(id, title, field, status));
    world.tells(event);
    Decision decision =
        Decider.decide(
            bridge.seenFrom(event.system(), event.collection()), event, world, Mode.PLAIN);
    world.carryOut(bridge, event, decision);
    return decision;
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
