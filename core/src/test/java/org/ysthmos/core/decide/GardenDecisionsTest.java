package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.MemoryWorld;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;

/** The mapping needs of the demo, each written down as a bridge and decided. */
class GardenDecisionsTest {

  private static Decision decide(String bridge, Event event, TrialWorld world) {
    return Decider.decide(Garden.bridge(bridge), event, world, Mode.EXPLAINED);
  }

  private static Decision decide(String bridge, Event event) {
    return decide(bridge, event, Garden.world());
  }

  private static String shown(TaskDecision task, String field) {
    return task.fields().getOrDefault(field, Nothing.NOTHING).display();
  }

  private static String shown(Decision decision, String field) {
    assertThat(decision.failures()).isEmpty();
    return shown(decision.tasks().getFirst(), field);
  }

  private static Event message(String ts, String text, String at) {
    return Garden.event(
        "garden-chat/messages",
        "posted",
        "m" + ts,
        """
        {"channel":"greenhouse","ts":"%s","author":"rui","text":"%s","at":"%s"}
        """
            .formatted(ts, text, at));
  }

  private static Event reaction(String kind, String ts) {
    return Garden.event(
        "garden-chat/reactions",
        "added",
        "r" + ts,
        """
        {"reaction":"%s","channel":"greenhouse","ts":"%s","author":"rui"}
        """
            .formatted(kind, ts));
  }

  @Test
  void reactionFindsItsMessageByChannelTimestampAndAuthor() {
    TrialWorld world = Garden.world();
    world.receive(message("1", "Sow the foxgloves", "2026-11-24T08:00:00Z"));
    world.receive(message("2", "Water the ferns", "2026-11-24T09:00:00Z"));
    Decision decision = decide("seedling-to-ledger", reaction("seedling", "2"), world);
    assertThat(shown(decision, "title")).isEqualTo("Water the ferns");
    assertThat(decision.answers())
        .singleElement()
        .satisfies(a -> assertThat(a.records()).hasSize(1));
  }

  @Test
  void ofSeveralMessagesTheOneFirstByTheStatedOrderIsTaken() {
    TrialWorld world = Garden.world();
    world.receive(message("1", "as first written", "2026-11-24T08:00:00Z"));
    world.receive(message("1", "as edited", "2026-11-24T08:05:00Z"));
    world.receive(message("1", "as edited before", "2026-11-24T08:01:00Z"));
    assertThat(shown(decide("seedling-to-ledger", reaction("seedling", "1"), world), "title"))
        .isEqualTo("as edited");
  }

  @Test
  void reactionWithoutItsMessageIsPassedByAndAnotherReactionAsksNothing() {
    Decision without = decide("seedling-to-ledger", reaction("seedling", "9"));
    assertThat(without.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(without.because()).contains("has no message with");
    Decision other = decide("seedling-to-ledger", reaction("thumb", "9"));
    assertThat(other.because()).contains("reaction is “seedling”");
    assertThat(other.answers()).isEmpty();
  }

  @Test
  void mailGoesToTheLaneOfItsFolderByATableOfTwoKeys() {
    Decision decision =
        decide(
            "school-mail-to-lanes",
            Garden.event(
                "post-room/mails",
                "flagged",
                "m1",
                """
                {"id":"m1","folder":"school-visits","from":"a@mail.example","subject":"Class 4B",
                 "html":"<p>Dear all,</p><p>we are <b>24</b>.</p>","flagged":true,
                 "received":"2026-11-27T23:30:00Z"}
                """));
    assertThat(shown(decision, "lane")).isEqualTo("bookings");
    assertThat(shown(decision, "priority")).isEqualTo("2");
    assertThat(shown(decision, "notes")).isEqualTo("Dear all,\n\nwe are 24.");
    // Friday late in Lisbon; two working days later is Tuesday.
    assertThat(shown(decision, "due")).isEqualTo("2026-12-01T09:00:00Z");
    assertThat(decision.explanation().named())
        .extracting(lineage -> lineage.target().key())
        .contains("flagged", "days");
  }

  @Test
  void unknownStewardIsGivenToTheSecretaryAndTakenDown() {
    Decision decision =
        decide(
            "pledge-to-follow-up",
            Garden.event(
                "friends-register/pledges",
                "made",
                "p1",
                """
                {"number":"p1","steward":"new@tidewrack.example","donor":"A. Lima",
                 "amount":"1.250,50","on":"24 de dezembro de 2026"}
                """));
    assertThat(shown(decision, "owner")).isEqualTo("tb-01");
    assertThat(shown(decision, "labels")).isEqualTo("large");
    // Two working days after Thursday 24 December, over the holiday and the closure.
    assertThat(shown(decision, "due")).isEqualTo("2027-01-04");
    assertThat(decision.tableUses())
        .containsExactly(new TableUse("stewards", List.of("new@tidewrack.example"), false));
  }

  private static Event ticket(String status, String was, String description) {
    return Garden.event(
        "climate-desk/tickets",
        "changed",
        "7",
        """
        {"number":7,"subject":"Palm house","status":"%s","was":{"status":"%s"},
         "requester":"u-3","description":"%s"}
        """
            .formatted(status, was, description));
  }

  @Test
  void ticketBecomesAJobOnlyWhenItsStatusChangesAndItsFaultCodeIsThere() {
    String text = "Cold.\\nFault code: f-204 \\n#urgent\\n# night\\n#urgent";
    Decision opened = decide("ticket-to-job", ticket("open", "new", text));
    assertThat(shown(opened, "title")).isEqualTo("F-204: Palm house");
    assertThat(shown(opened, "labels")).isEqualTo("urgent, night");
    assertThat(shown(opened, "owner")).isEqualTo("u-3");
    assertThat(decide("ticket-to-job", ticket("open", "open", text)).because())
        .contains("status changed to “open” or “reopened”; it stayed “open”");
    assertThat(decide("ticket-to-job", ticket("closed", "open", text)).verdict())
        .isEqualTo(Verdict.PASSED_BY);
    Decision without = decide("ticket-to-job", ticket("open", "new", "Cold."));
    assertThat(without.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(without.failures().getFirst().message()).contains("“Fault code:” is missing");
  }

  @Test
  void revisionUpdatesAndTheCaseTakenIsExplained() {
    TrialWorld world = Garden.world();
    String data =
        """
        {"path":"/records/2026/fern.pdf","revision":%d,"kind":"note","approved":"%s",
         "link":"https://leaf.example/fern"}
        """;
    Event added =
        Garden.event("leaf-library/plant-records", "added", "d", data.formatted(1, "Yes"));
    Decision first = decide("document-to-review", added, world);
    world.carryOut(added, first);
    assertThat(shown(first, "title")).isEqualTo("Review fern.pdf");
    assertThat(shown(first, "labels")).isEqualTo("approved, review");
    Event revised =
        Garden.event("leaf-library/plant-records", "revised", "d", data.formatted(2, "no"));
    Decision second = decide("document-to-review", revised, world);
    assertThat(second.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(second.deliveries().getFirst().fields().sequencedKeySet())
        .containsExactly("labels", "description");
    assertThat(
            first.explanation().fields().stream()
                .filter(lineage -> lineage.target().key().equals("labels"))
                .findFirst()
                .orElseThrow()
                .steps())
        .extracting(Explanation.StepValue::sentence)
        .containsExactly("because approved is “yes”, whatever its case");
  }

  @Test
  void setIsPlannedAroundItsAnchorOverWorkingDaysWithParentsFirst() {
    Decision decision = decide("exhibition-to-preparations", Garden.exhibition("2026-12-24"));
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(decision.tasks())
        .extracting(task -> task.member() + " " + shown(task, "due"))
        .containsExactlyInAnyOrder(
            "opening 2026-12-24",
            "invite 2026-11-12",
            "labels 2026-12-10",
            "hang 2026-12-21",
            "check 2026-12-23",
            "thank 2027-01-04");
    List<String> order = decision.tasks().stream().map(TaskDecision::member).toList();
    assertThat(order.indexOf("check")).isGreaterThan(order.indexOf("hang"));
    assertThat(order.indexOf("hang")).isGreaterThan(order.indexOf("opening"));
    assertThat(decision.deliveries())
        .filteredOn(delivery -> delivery.awaited().isPresent())
        .extracting(delivery -> delivery.awaited().orElseThrow().key().text())
        .containsExactlyInAnyOrder("x1 · opening", "x1 · opening", "x1 · opening", "x1 · hang");
    assertThat(shown(decision.tasks().getFirst(), "description"))
        .isEqualTo("It opens on Thursday 24 December");
  }

  @Test
  void setIsMadeOnlyIfNoneOfItExistsAndMovesOnlyWhatNobodyTouched() {
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    MemoryWorld world = MemoryWorld.finding();
    Decision first = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    for (TaskDecision task : first.tasks()) {
      if (!task.member().equals("thank")) {
        world.pair(task.key(), new World.PairState(Optional.of(task.member()), task.fields()));
      }
      if (task.member().equals("labels")) {
        world.touch(task.key());
      }
    }
    assertThat(Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN).verdict())
        .isEqualTo(Verdict.UNCHANGED);
    Decision moved = Decider.decide(bridge, Garden.exhibition("2026-12-22"), world, Mode.PLAIN);
    assertThat(moved.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(moved.tasks())
        .extracting(task -> task.member() + " " + task.verdict().words())
        .containsExactlyInAnyOrder(
            "opening update",
            "invite update",
            "labels unchanged",
            "hang update",
            "check update",
            "thank unchanged");
    assertThat(moved.tasks())
        .filteredOn(task -> task.verdict() == Verdict.UNCHANGED)
        .extracting(TaskDecision::because)
        .containsExactlyInAnyOrder(
            "someone has worked on it since; it is left as it is",
            "others of its set were made before; a set is made once");
  }

  @Test
  void childWhoseParentIsMadeAlreadyCarriesItsId() {
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    MemoryWorld world = MemoryWorld.finding();
    Decision first = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    for (TaskDecision task : first.tasks()) {
      boolean made = task.member().equals("opening");
      world.pair(
          task.key(),
          new World.PairState(made ? Optional.of("j-1") : Optional.empty(), task.fields()));
    }
    Decision again = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    TaskDecision invite =
        again.tasks().stream().filter(t -> t.member().equals("invite")).findFirst().orElseThrow();
    assertThat(invite.delivery().orElseThrow().fields()).containsEntry("parent", Text.of("j-1"));
    assertThat(invite.delivery().orElseThrow().awaited()).isEmpty();
  }

  /** A parent that is left and was never made will not come, so nothing may wait for it. */
  @Test
  void childWhoseParentIsLeftIsLeftTooAndWaitsForNothing() {
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    MemoryWorld world = MemoryWorld.finding();
    Decision first = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    for (TaskDecision task : first.tasks()) {
      // The parent has no pair at all; its children have pairs whose tasks were never made.
      if (!task.member().equals("opening")) {
        world.pair(task.key(), new World.PairState(Optional.empty(), Map.of()));
      }
    }
    Decision again = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    TaskDecision invite =
        again.tasks().stream().filter(t -> t.member().equals("invite")).findFirst().orElseThrow();
    assertThat(invite.delivery()).isEmpty();
    assertThat(invite.because())
        .isEqualTo("it belongs under “opening”, which is not there and is not made");
  }

  @Test
  void taskForEachRecordHasItsOwnKeyAndTwiceIsOnceWithAWarning() {
    TrialWorld world = Garden.world();
    Event first = Garden.exhibition("2026-12-24");
    Decision decision = decide("rooms-to-jobs", first, world);
    assertThat(decision.tasks())
        .extracting(task -> task.key().text() + ": " + shown(task, "title"))
        .containsExactly("x1 · r1: Clean Hall for Mosses", "x1 · r2: Clean Nook for Mosses");
    assertThat(shown(decision.tasks().getLast(), "description"))
        .isEqualTo("Large rooms: HALL, HALL");
    assertThat(decision.warnings()).extracting(Decision.Warning::member).containsExactly("r1");
    world.carryOut(first, decision);
    assertThat(decide("rooms-to-jobs", Garden.exhibition("2026-12-24"), world).verdict())
        .isEqualTo(Verdict.UNCHANGED);
  }

  @Test
  void taskForEachValueOfAList() {
    Decision decision = decide("crews-to-jobs", Garden.exhibition("2026-12-24"));
    assertThat(decision.tasks())
        .extracting(task -> shown(task, "title") + " / " + shown(task, "labels"))
        .containsExactly(
            "Mosses needs the glass crew / glasshouse", "Mosses needs the tree crew / tree crew");
  }

  @Test
  void eventWithoutItemsIsPassedBy() {
    Event none =
        Garden.event("exhibitions/programme", "changed", "x2", "{\"id\":\"x2\",\"rooms\":[]}");
    assertThat(decide("rooms-to-jobs", none).because()).contains("has no items");
    assertThat(decide("crews-to-jobs", none).because()).contains("has no items");
  }

  @Test
  void listWhereOneWasExpectedAndTheReverseAreNamed() {
    Event oneRoom =
        Garden.event(
            "exhibitions/programme", "changed", "x2", "{\"id\":\"x2\",\"rooms\":{\"id\":\"r1\"}}");
    assertThat(decide("rooms-to-jobs", oneRoom).failures().getFirst().message())
        .contains("came as a group of fields where a list of record was declared");
    Event twoTitles =
        Garden.event(
            "exhibitions/programme",
            "changed",
            "x2",
            "{\"id\":\"x2\",\"title\":[\"a\",\"b\"],\"crews\":[\"c\"]}");
    assertThat(decide("crews-to-jobs", twoTitles).failures().getFirst().message())
        .contains("came as a list where a text was declared");
  }

  @Test
  void sameQuestionIsAskedOnceInADecision() {
    String document =
        Garden.document("hazard-to-grounds")
            .replace(
                "lookups:\n",
                "lookups:\n  again: { in: visitor-desk/hazard-reports, by: { id: /submission } }\n");
    BridgeVersion bridge = BridgeCompiler.compile(document, 1, Garden.CATALOG);
    MemoryWorld world = MemoryWorld.finding(HazardReports.report(Map.of()));
    Decision decision = Decider.decide(bridge, HazardReports.event("vd-1"), world, Mode.PLAIN);
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(world.asked()).isEqualTo(1);
    assertThat(decision.answers()).hasSize(2);
  }

  /** The same due moment is another day for people who read it in Auckland. */
  @Test
  void warnsWhereTheTargetWouldShowAnotherDayToItsPeople() {
    Catalog elsewhere =
        Catalog.of(
            (system, collection) ->
                HazardReports.CATALOG
                    .collection(system, collection)
                    .map(shape -> shownIn(shape, ZoneId.of("Pacific/Auckland"))));
    BridgeVersion bridge = BridgeCompiler.compile(HazardReports.DOCUMENT, 1, elsewhere);
    Decision decision =
        Decider.decide(
            bridge,
            HazardReports.event("vd-1"),
            MemoryWorld.finding(HazardReports.report(Map.of())),
            Mode.PLAIN);
    assertThat(decision.warnings())
        .extracting(Decision.Warning::message)
        .containsExactly("it is 2026-11-30 in Lisbon, and people in Auckland will see 2026-12-01");
  }

  private static CollectionShape shownIn(CollectionShape shape, ZoneId zone) {
    return new CollectionShape(
        shape.system(),
        shape.systemName(),
        shape.collection(),
        shape.name(),
        shape.recordWord(),
        shape.titleField(),
        shape.parentField(),
        shape.fields().stream().map(field -> field.withShownIn(Optional.of(zone))).toList(),
        shape.eventFields());
  }
}
