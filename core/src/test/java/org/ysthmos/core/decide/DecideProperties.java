package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.GardenEvents;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;

/**
 * Laws of {@code decide} over seeded events for every bridge of the garden, most of the events
 * broken in some way: nothing is ever thrown, every failure is a typed one with words, both modes
 * agree, and deciding twice gives the same bytes.
 */
class DecideProperties {

  private static final ObjectMapper JSON = new ObjectMapper();

  private static Stream<DynamicTest> forEachBridge(BiConsumer<BridgeVersion, Event> law) {
    return Garden.BRIDGES.stream()
        .map(
            id ->
                DynamicTest.dynamicTest(
                    id, () -> law.accept(Garden.bridge(id), GardenEvents.sound(id))));
  }

  private static byte[] bytes(Decision decision) {
    return DecisionJson.write(decision).toString().getBytes(StandardCharsets.UTF_8);
  }

  @TestFactory
  Stream<DynamicTest> soundEventIsCarried() {
    return forEachBridge(
        (bridge, event) -> {
          Decision decision = Decider.decide(bridge, event, GardenEvents.world(), Mode.PLAIN);
          assertThat(decision.failures()).isEmpty();
          assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
        });
  }

  @TestFactory
  Stream<DynamicTest> nothingIsThrownAndEveryFailureIsATypedOneWithWords() {
    return forEachBridge(
        (bridge, sound) ->
            Seeds.forSeeds(
                700,
                seeds -> {
                  Event event = GardenEvents.broken(sound, seeds);
                  Decision decision =
                      Decider.decide(bridge, event, GardenEvents.world(), Mode.PLAIN);
                  assertThat(decision.failures().isEmpty())
                      .isEqualTo(decision.verdict() != Verdict.FAILED);
                  for (Failure failure : decision.failures()) {
                    assertThat(failure.message()).isNotBlank();
                    assertThat(failure.remedy()).isPresent();
                  }
                  if (decision.verdict() == Verdict.FAILED
                      || decision.verdict() == Verdict.PASSED_BY) {
                    assertThat(decision.deliveries()).isEmpty();
                  }
                }));
  }

  @TestFactory
  Stream<DynamicTest> plainIsExplainedAndTwiceIsTheSameBytes() {
    return forEachBridge(
        (bridge, sound) ->
            Seeds.forSeeds(
                300,
                seeds -> {
                  Event event = GardenEvents.broken(sound, seeds);
                  byte[] plain =
                      bytes(Decider.decide(bridge, event, GardenEvents.world(), Mode.PLAIN));
                  Decision explained =
                      Decider.decide(bridge, event, GardenEvents.world(), Mode.EXPLAINED);
                  assertThat(bytes(explained)).isEqualTo(plain);
                  assertThat(bytes(Decider.decide(bridge, event, GardenEvents.world(), Mode.PLAIN)))
                      .isEqualTo(plain);
                  for (Explanation.Lineage lineage : explained.explanation().fields()) {
                    assertThat(lineage.result()).isNotNull();
                  }
                }));
  }

  /** Compile, write the document, compile it again: the same decisions. */
  @TestFactory
  Stream<DynamicTest> bridgeReadBackFromItsDocumentDecidesTheSame() {
    return forEachBridge(
        (bridge, sound) -> {
          BridgeVersion again =
              BridgeCompiler.compile(BridgeWriter.write(bridge.definition()), 1, Garden.CATALOG);
          Seeds.forSeeds(
              150,
              seeds -> {
                Event event = GardenEvents.broken(sound, seeds);
                assertThat(bytes(Decider.decide(again, event, GardenEvents.world(), Mode.PLAIN)))
                    .isEqualTo(
                        bytes(Decider.decide(bridge, event, GardenEvents.world(), Mode.PLAIN)));
              });
        });
  }

  /** After what was decided is carried out, the same event changes nothing. */
  @TestFactory
  Stream<DynamicTest> sameEventAgainIsUnchanged() {
    return forEachBridge(
        (bridge, sound) ->
            Seeds.forSeeds(
                200,
                seeds -> {
                  Event event = GardenEvents.broken(sound, seeds);
                  TrialWorld world = GardenEvents.world();
                  Decision first = Decider.decide(bridge, event, world, Mode.PLAIN);
                  world.carryOut(event, first);
                  Decision second = Decider.decide(bridge, event, world, Mode.PLAIN);
                  assertThat(second.verdict())
                      .isEqualTo(
                          first.verdict() == Verdict.CREATE ? Verdict.UNCHANGED : first.verdict());
                }));
  }

  /**
   * Taking something out of each record of a list, with a condition. Source: the Jayway JsonPath
   * library judges on the same inputs.
   */
  @TestFactory
  Stream<DynamicTest> takingOutOfListsAgreesWithAnotherJsonTool() {
    return Stream.of("item/size", "item/name")
        .map(
            address ->
                DynamicTest.dynamicTest(
                    address, () -> Seeds.forSeeds(300, seeds -> compareLists(address, seeds))));
  }

  private static void compareLists(String address, Seeds seeds) {
    BridgeVersion bridge =
        BridgeCompiler.compile(
            """
            bridge: list
            name: List
            purpose: Compared with another tool
            from: { system: exhibitions, collection: programme, event: changed }
            to: { system: works-ledger, collection: jobs }
            match: [/id]
            fields:
              title: { always: list }
              labels:
                each: { in: /rooms, where: { value: item/size, more-than: 50 }, take: { text: "{%s}" } }
            ceiling: { creates: 1, per: PT1H }
            """
                .formatted(address),
            1,
            Garden.CATALOG);
    ObjectNode data = JSON.createObjectNode().put("id", "x");
    for (int i = seeds.below(6); i > 0; i--) {
      data.withArrayProperty("rooms")
          .addObject()
          .put("name", "n" + seeds.below(9))
          .put("size", seeds.below(100));
    }
    data.withArrayProperty("rooms");
    Decision decision =
        Decider.decide(
            bridge,
            Garden.event("exhibitions/programme", "changed", "r", data.toString()),
            GardenEvents.world(),
            Mode.PLAIN);
    List<Object> other =
        com.jayway.jsonpath.JsonPath.read(
            data.toString(), "$.rooms[?(@.size > 50)]." + address.substring(5));
    Value labels = decision.task().get("labels");
    assertThat(((ListValue) labels).items().stream().map(Value::display).toList())
        .isEqualTo(other.stream().map(String::valueOf).toList());
  }
}
