package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.decide.World.Stays;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.testkit.ManyLists;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.uses.Thing;

class PlacesTest {

  private static final Instant NOON = Instant.parse("2026-11-27T12:00:00Z");

  private static final String RULES =
      """
      when: { value: /open, equal: yes }
      match: [place/id, /id]
      fields:
        title: { text: "{/title} ({place/crew})" }
        notes: { text: "From {place/name}" }
        priority: place/priority
      """;

  private static final String BY_TABLE =
      """
      bridge: beds
      name: Beds
      purpose: Each list of the beds has a list of jobs
      from: { system: beds, places: { of: lists, table: lists }, event: [created, changed] }
      to: { system: jobs, collection: { of: lists, take: goes-to } }
      """
          + RULES;

  private static String named(String places) {
    return """
        bridge: beds
        name: Beds
        purpose: All lists of the beds go to the north
        from: { system: beds, places: %s, event: created }
        to: { system: jobs, collection: north }
        match: [place/id, /id]
        fields: { title: { text: "{/title} of {place/id}" } }
        """
        .formatted(places);
  }

  private static BridgeVersion compile(String document, int lists) {
    return BridgeCompiler.compile(document, 1, ManyLists.catalog(ManyLists.table(lists)));
  }

  private static Event event(String collection, String record, String title, boolean open) {
    ObjectNode data = JsonNodeFactory.instance.objectNode();
    data.put("id", record).put("title", title).put("open", open);
    return new Event(
        collection + "/" + record + "@1", "beds", collection, "created", record, NOON, data);
  }

  private static TrialWorld world(int lists) {
    return new TrialWorld(ManyLists.catalog(ManyLists.table(lists)), Map.of());
  }

  /** What eighty copies would say, each with what its place is written into it. */
  private static String copyFor(int i) {
    return """
        bridge: beds
        name: Beds
        purpose: One list of the beds has a list of jobs
        from: { system: beds, collection: "lists:bed-%d", event: [created, changed] }
        to: { system: jobs, collection: "lists:job-%d" }
        values: { place: { always: bed-%d } }
        when: { value: /open, equal: yes }
        match: [values/place, /id]
        fields:
          title: { text: "{/title} (crew %d)" }
          notes: { text: "From List bed-%d" }
          priority: { always: %d }
        """
        .formatted(i, 1 + i % 7, i, i % 5, i, i % 3);
  }

  @Test
  void decidesAsAsManyCopiesWould() {
    int lists = 80;
    BridgeVersion one = compile(BY_TABLE, lists);
    List<BridgeVersion> copies =
        IntStream.rangeClosed(1, lists).mapToObj(i -> compile(copyFor(i), lists)).toList();
    Seeds.forSeeds(
        300,
        seeds -> {
          int list = 1 + seeds.below(lists);
          Event event =
              event(
                  "lists:bed-" + list,
                  "t-" + seeds.below(9),
                  "Rake " + seeds.below(100),
                  seeds.below(4) > 0);
          Decision made = Decider.decide(one, event, world(lists), Mode.PLAIN);
          Decision copied = Decider.decide(copies.get(list - 1), event, world(lists), Mode.PLAIN);
          assertThat(made.verdict()).isEqualTo(copied.verdict());
          assertThat(made.key()).isEqualTo(copied.key());
          assertThat(made.tasks().stream().map(TaskDecision::delivery).toList())
              .isEqualTo(copied.tasks().stream().map(TaskDecision::delivery).toList());
        });
  }

  @Test
  void theSameRecordOfTwoPlacesIsTwoThings() {
    BridgeVersion bridge = compile(BY_TABLE, 9);
    Decision first =
        Decider.decide(bridge, event("lists:bed-1", "7", "Rake", true), world(9), Mode.PLAIN);
    Decision second =
        Decider.decide(bridge, event("lists:bed-2", "7", "Rake", true), world(9), Mode.PLAIN);
    assertThat(first.key().orElseThrow().hash()).isNotEqualTo(second.key().orElseThrow().hash());
    assertThat(bridge.remarks()).isEmpty();
  }

  @Test
  void saysSoWhereTheMatchKeyLeavesThePlaceOut() {
    BridgeVersion bridge = compile(BY_TABLE.replace("[place/id, /id]", "[/id]"), 9);
    assertThat(bridge.remarks()).hasSize(1);
    assertThat(bridge.remarks().getFirst().message()).contains("add place/id");
  }

  @Test
  void looksAnotherWayFromEachPlace() {
    BridgeVersion bridge = compile(BY_TABLE, 9);
    assertThat(bridge.views()).hasSize(9);
    assertThat(bridge.heard()).startsWith("lists:bed-1", "lists:bed-2").hasSize(9);
    assertThat(bridge.sourceName()).isEqualTo("9 places");
    assertThat(bridge.targetName()).isEqualTo("7 places");
    BridgeVersion third = bridge.seenFrom("beds", "lists:bed-3");
    assertThat(third.target().collection()).isEqualTo("lists:job-4");
    assertThat(third.seenFrom("beds", "lists:bed-3")).isSameAs(third);
    assertThat(bridge.names(Thing.collection("beds", "lists:bed-9"))).isTrue();
    assertThat(bridge.names(Thing.collection("jobs", "lists:job-7"))).isTrue();
    assertThat(bridge.tables()).containsExactly("lists");
  }

  @ParameterizedTest
  @CsvSource({"beds,lists:bed-99", "jobs,lists:bed-1"})
  void passesByWhatComesFromNoneOfItsPlaces(String system, String collection) {
    BridgeVersion bridge = compile(BY_TABLE, 9);
    Event event = event(collection, "7", "Rake", true);
    Event there =
        new Event(event.id(), system, collection, event.kind(), event.record(), NOON, event.data());
    Decision decision = Decider.decide(bridge, there, world(9), Mode.PLAIN);
    assertThat(decision.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(decision.because()).contains("none of the bridge's");
  }

  @Test
  void aTaskIsChangedWhereItStandsWhateverTheTableSaysNow() {
    BridgeVersion bridge = compile(BY_TABLE, 9);
    TrialWorld world = world(9);
    Event event = event("lists:bed-3", "7", "Rake", true);
    Decision first = Decider.decide(bridge, event, world, Mode.PLAIN);
    assertThat(delivery(first).collection()).isEqualTo("lists:job-4");
    world.pair(
        first.key().orElseThrow(),
        new PairState(
            Optional.of("j-1"), Map.of(), false, Stays.NO, 0, Optional.of("lists:job-1")));
    Decision then = Decider.decide(bridge, event, world, Mode.PLAIN);
    assertThat(then.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(delivery(then).collection()).isEqualTo("lists:job-1");
    assertThat(delivery(then).record()).contains("j-1");
  }

  private static PlannedDelivery delivery(Decision decision) {
    return decision.tasks().getFirst().delivery().orElseThrow();
  }

  @Test
  void aLookupInThePlaceAsksThePlaceThatTheEventCameFrom() {
    String looking =
        BY_TABLE.replace(
            "when: {", "lookups: { task: { in: place, by: { id: /id }, none: fail } }\nwhen: {");
    BridgeVersion bridge = compile(looking, 9);
    for (BridgeVersion view : bridge.views()) {
      assertThat(view.lookups().getFirst().shape().collection())
          .isEqualTo(view.source().collection());
    }
    assertThat(BridgeWriter.write(bridge.definition())).contains("in: place");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{ of: lists, named: [a, b c, \"ü/7\"] }",
        "{ of: lists, all: [a, b], left-out: [c] }",
        "{ named: [north, south] }",
        "{ of: lists, table: lists, column: list, left-out: [x] }",
        "{ of: lists, table: lists }",
      })
  void isWrittenAsItWasRead(String places) {
    BridgeVersion bridge = compile(named(places), 3);
    String written = BridgeWriter.write(bridge.definition());
    BridgeVersion again = compile(written, 3);
    assertThat(again.definition()).isEqualTo(bridge.definition());
    assertThat(again.heard()).isEqualTo(bridge.heard());
    assertThat(BridgeWriter.write(BridgeReader.read(DocumentNode.parse(written))))
        .isEqualTo(written);
  }

  @Test
  void namesWhatIsWrongOnceForAllPlacesAndElseOfWhich() {
    String rows =
        """
          - { list: bed-1, goes-to: job-1, crew: a, priority: 1 }
          - { list: bed-2, crew: b, priority: 2 }
          - { list: bed-3, crew: c, priority: 3 }
        """;
    Catalog catalog = ManyLists.catalog(ManyLists.table(rows));
    assertThat(problems(BY_TABLE, catalog))
        .singleElement()
        .satisfies(
            one ->
                assertThat(one).startsWith("of the places “bed-2”, “bed-3”: its row says nothing"));
    String wrong = BY_TABLE.replace("priority: place/priority", "priority: /titel");
    assertThat(problems(wrong, ManyLists.catalog(ManyLists.table(9))))
        .singleElement()
        .satisfies(one -> assertThat(one).contains("“/titel”").doesNotContain("bed-"));
  }

  private static List<String> problems(String document, Catalog catalog) {
    try {
      return List.of(BridgeCompiler.compile(document, 1, catalog).definition().name());
    } catch (DocumentException refused) {
      return refused.problems().stream().map(DocumentProblem::message).toList();
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{ of: lists };say which places",
        "{ of: lists, named: [a], all: [b] };say which places",
        "{ of: lists, named: [a, a] };named twice",
        "{ of: lists, named: [] };at least one place",
        "{ of: lists, named: [a], left-out: [b] };no other is offered",
        "{ of: lists, named: [a], column: list };a column is one of a table",
        "{ named: [nort] };did you mean “north”",
        "{ of: lists, table: list };did you mean “lists”",
        "{ of: lists, table: lists, column: crw };did you mean “crew”",
        "{ of: lists, table: lists, column: crew };name the same place",
        "{ of: lists, named: [aaaaaaaaaabbbbbbbbbbccccccccccddddddddddeeeeeeeeeeffffffffff] };too long",
      })
  void refusesWhatCannotBeHeard(String places, String why) {
    assertThatThrownBy(() -> compile(named(places), 9)).hasMessageContaining(why);
  }

  @Test
  void aTableThatNamesNoPlaceIsRefused() {
    assertThatThrownBy(
            () ->
                BridgeCompiler.compile(
                    named("{ of: lists, table: lists }"),
                    1,
                    ManyLists.catalog(ManyLists.table("  []"))))
        .hasMessageContaining("names no place");
  }

  @Test
  void onlyATableCanNameWhereEachPlaceGoes() {
    assertThatThrownBy(
            () ->
                compile(
                    named("{ of: lists, named: [a] }")
                        .replace("collection: north", "collection: { of: lists, take: goes-to }"),
                    9))
        .hasMessageContaining("a table that names places to write to");
  }

  @Test
  void idsOfPlacesAreEncodedAndReadBack() {
    Seeds.forSeeds(
        200,
        seeds -> {
          String id = seeds.text();
          if (!id.isEmpty()) {
            String collection = new PlaceId("lists", id).collection();
            assertThat(collection).doesNotContain("/", " ", "\n");
            assertThat(PlaceId.parse(collection)).contains(new PlaceId("lists", id));
          }
        });
    assertThat(PlaceId.parse("hazard-reports")).isEmpty();
    assertThat(PlaceId.parse("lists:%zz")).isEmpty();
  }
}
