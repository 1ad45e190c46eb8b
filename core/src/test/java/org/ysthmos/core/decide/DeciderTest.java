package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.MemoryWorld;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class DeciderTest {

  private static final BridgeVersion BRIDGE = HazardReports.bridge();
  private static final Event EVENT = HazardReports.event("vd-20418");

  private static Decision decide(World world) {
    return Decider.decide(BRIDGE, EVENT, world, Mode.EXPLAINED);
  }

  private static MemoryWorld finding(Map<String, String> changes) {
    return MemoryWorld.finding(HazardReports.report(changes));
  }

  @Test
  void createsATaskWithEveryField() {
    Decision decision = decide(finding(Map.of()));
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(decision.task())
        .containsEntry("title", Text.of("Fern gully, lower boardwalk: Loose plank"))
        .containsEntry("due", Moment.parse("2026-11-30T17:00:00Z"))
        .containsEntry("priority", Decimal.of(1))
        .containsEntry("notes", Text.of("Sent in by visitor.418@mail.example"));
    PlannedDelivery delivery = decision.deliveries().getFirst();
    assertThat(delivery.record()).isEmpty();
    assertThat(delivery.fields().sequencedKeySet())
        .containsExactly("title", "lane", "due", "priority", "assignees", "notes");
  }

  @Test
  void eventThatIsOvertakenPassesByBeforeAnythingIsAsked() {
    MemoryWorld world = finding(Map.of()).overtaken("2", "3");
    Decision decision = decide(world);
    assertThat(decision.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(decision.because()).isEqualTo("it tells of version 2, and version 3 came before it");
    assertThat(decision.deliveries()).isEmpty();
    assertThat(world.asked()).isZero();
  }

  @Test
  void explainsTheWayOfTheDueDate() {
    Explanation.Lineage due =
        decide(finding(Map.of())).explanation().fields().stream()
            .filter(lineage -> lineage.target().key().equals("due"))
            .findFirst()
            .orElseThrow();
    assertThat(due.sources())
        .singleElement()
        .satisfies(
            source -> {
              assertThat(source.address()).isEqualTo("report/answers/seenOn");
              assertThat(source.where()).isEqualTo("report");
            });
    assertThat(due.steps())
        .extracting(step -> ((Value) step.value()).display())
        .containsExactly("2026-11-23", "2026-11-30", "2026-11-30T17:00:00Z");
  }

  @Test
  void knownPairTurnsCreateIntoUnchangedOrUpdateOfWhatChanged() {
    MemoryWorld world = finding(Map.of());
    Decision first = decide(world);
    world.pair(first.key().orElseThrow(), new World.PairState(Optional.of("gb-1"), first.task()));
    assertThat(decide(world).verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(decide(world).deliveries()).isEmpty();

    ObjectNode edited = HazardReports.report(Map.of("danger", "3"));
    world.answerWith(new World.Found(java.util.List.of(edited)));
    Decision update = decide(world);
    assertThat(update.verdict()).isEqualTo(Verdict.UPDATE);
    PlannedDelivery change = update.deliveries().getFirst();
    assertThat(change.record()).contains("gb-1");
    assertThat(change.fields()).containsExactly(Map.entry("priority", Decimal.of(6)));
  }

  @Test
  void valueThatWentAwayIsDeliveredAsNothing() {
    BridgeVersion bridge =
        BridgeCompiler.compile(
            HazardReports.DOCUMENT.replace(
                "notes:\n    texts:\n      - \"Sent in by {report/answers/mail}\"\n",
                "notes:\n    texts:\n"),
            1,
            HazardReports.CATALOG);
    MemoryWorld world = finding(Map.of("photo", "https://p.example/1"));
    Decision first = Decider.decide(bridge, EVENT, world, Mode.PLAIN);
    world.pair(first.key().orElseThrow(), new World.PairState(Optional.of("gb-1"), first.task()));
    world.answerWith(new World.Found(java.util.List.of(HazardReports.report(Map.of()))));
    assertThat(Decider.decide(bridge, EVENT, world, Mode.PLAIN).deliveries().getFirst().fields())
        .containsExactly(Map.entry("notes", Nothing.NOTHING));
  }

  @Test
  void taskThatIsLeftRemovedIsNotMadeAgainByWhatComesLater() {
    MemoryWorld world = finding(Map.of());
    Decision first = decide(world);
    var left = new World.PairState(Optional.of("gb-1"), Map.of(), false, World.Stays.REMOVED, 0);
    world.pair(first.key().orElseThrow(), left);
    Decision later = decide(world);
    assertThat(later.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(later.deliveries()).isEmpty();
    assertThat(later.tasks().getFirst().because()).contains("left so");
  }

  @Test
  void taskThatIsMadeAnewHasAKeyOfItsOwn() {
    MemoryWorld world = finding(Map.of());
    Decision first = decide(world);
    var gone = new World.PairState(Optional.empty(), Map.of(), false, World.Stays.NO, 1);
    world.pair(first.key().orElseThrow(), gone);
    Decision anew = decide(world);
    assertThat(anew.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(anew.deliveries().getFirst().fields())
        .isEqualTo(first.deliveries().getFirst().fields());
    assertThat(anew.deliveries().getFirst().idempotencyKey())
        .isNotEqualTo(first.deliveries().getFirst().idempotencyKey());
  }

  @Test
  void ownWritingIsPassedByUnlessTheBridgeAsksForIt() {
    MemoryWorld world = finding(Map.of()).ownWrite();
    Decision passed = decide(world);
    assertThat(passed.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(passed.because()).contains("written there from here");
    assertThat(world.asked()).isZero();
    BridgeVersion hearing =
        BridgeCompiler.compile(
            HazardReports.DOCUMENT.replace("event: [", "own-writes: true, event: ["),
            1,
            HazardReports.CATALOG);
    assertThat(Decider.decide(hearing, EVENT, world, Mode.PLAIN).verdict())
        .isEqualTo(Verdict.CREATE);
  }

  @Test
  void nothingOlderIsWrittenOverWhatALaterEventWrote() {
    MemoryWorld world = finding(Map.of());
    Decision first = decide(world);
    ObjectNode edited = HazardReports.report(Map.of("danger", "3"));
    world.answerWith(new World.Found(java.util.List.of(edited)));
    var stands = new World.PairState(Optional.of("gb-1"), first.task(), true, World.Stays.NO, 0);
    world.pair(first.key().orElseThrow(), stands);
    Decision late = decide(world);
    assertThat(late.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(late.deliveries()).isEmpty();
    assertThat(late.tasks().getFirst().because()).startsWith("a later event has written this task");
  }

  @Test
  void pairWhoseTaskWasNeverMadeIsCreatedWithTheSameKey() {
    MemoryWorld world = finding(Map.of());
    Decision first = decide(world);
    world.pair(first.key().orElseThrow(), new World.PairState(Optional.empty(), Map.of()));
    Decision second = decide(world);
    assertThat(second.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(second.deliveries().getFirst().idempotencyKey())
        .isEqualTo(first.deliveries().getFirst().idempotencyKey());
  }

  @Test
  void testThatStopsTheEventIsNamed() {
    Decision decision = decide(finding(Map.of("danger", "1")));
    assertThat(decision.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(decision.because())
        .isEqualTo("it passes only when how dangerous is at least 2; it was “1”");
    assertThat(decision.explanation().tests()).hasSize(2);
  }

  @Test
  void everyProblemOfAnEventIsToldAtOnceWithFieldValueAndRemedy() {
    Decision decision = decide(finding(Map.of("seenOn", "yesterday", "danger", "11")));
    assertThat(decision.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(decision.deliveries()).isEmpty();
    assertThat(decision.failures())
        .extracting(f -> f.field().orElseThrow(), f -> f.found().orElseThrow())
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple("Due", "yesterday"),
            org.assertj.core.groups.Tuple.tuple("Priority", "11"));
    assertThat(decision.failures()).allSatisfy(f -> assertThat(f.remedy()).isPresent());
  }

  @Test
  void lookupThatFindsNothingOrTooMuchFailsAsSaid() {
    MemoryWorld world = MemoryWorld.finding();
    assertThat(decide(world).failures().getFirst().kind()).isEqualTo(FailureKind.LOOKUP_EMPTY);
    world.answerWith(
        new World.Found(
            java.util.List.of(HazardReports.report(Map.of()), HazardReports.report(Map.of()))));
    assertThat(decide(world).failures().getFirst().kind()).isEqualTo(FailureKind.LOOKUP_AMBIGUOUS);
    Failure down = Failure.of(FailureKind.UNREACHABLE, "down");
    world.answerWith(new World.Unanswered(down));
    assertThat(decide(world).failures()).containsExactly(down);
  }

  @Test
  void lookupThatFindsNothingPassesByOrGoesOnWhereTheBridgeSaysSo() {
    BridgeVersion passing =
        BridgeCompiler.compile(
            HazardReports.DOCUMENT.replace("none: fail", "none: pass-by"),
            1,
            HazardReports.CATALOG);
    assertThat(Decider.decide(passing, EVENT, MemoryWorld.finding(), Mode.PLAIN).verdict())
        .isEqualTo(Verdict.PASSED_BY);
    BridgeVersion going =
        BridgeCompiler.compile(
            HazardReports.DOCUMENT.replace("none: fail", "none: empty"), 1, HazardReports.CATALOG);
    Decision decision = Decider.decide(going, EVENT, MemoryWorld.finding(), Mode.PLAIN);
    assertThat(decision.because()).contains("place is given");
  }

  @Test
  void keyWithAnAbsentPartIsAnErrorAndNoEmptyKey() {
    Event blank =
        Garden.event("friends-register/pledges", "made", "x", "{\"number\":\" \",\"on\":\"\"}");
    Decision decision =
        Decider.decide(Garden.bridge("pledge-to-follow-up"), blank, Garden.world(), Mode.PLAIN);
    assertThat(decision.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(decision.failures().getFirst().message())
        .isEqualTo("The match key has no value for “number”");
  }

  @Test
  void shortenedTitleIsDeliveredWithAWarning() {
    Decision decision = decide(finding(Map.of("problem", "very ".repeat(40) + "loose")));
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(decision.task().get("title").display()).hasSizeLessThanOrEqualTo(120).endsWith("…");
    assertThat(decision.warnings())
        .singleElement()
        .satisfies(warning -> assertThat(warning.field()).isEqualTo("title"));
  }

  /** Laws over seeded reports, most of them broken in some way. */
  @Test
  void plainAndExplainedDecideTheSameAndNothingIsEverThrown() {
    Seeds.forSeeds(
        2000,
        seeds -> {
          Map<String, String> changes = new LinkedHashMap<>();
          for (String answer : java.util.List.of("place", "problem", "seenOn", "danger", "mail")) {
            if (seeds.below(3) == 0) {
              changes.put(answer, seeds.text());
            }
          }
          ObjectNode report = HazardReports.report(changes);
          if (seeds.below(4) == 0) {
            ((ObjectNode) report.get("answers")).set("seenOn", seeds.json(2));
          }
          if (seeds.below(10) == 0) {
            report.set("answers", seeds.json(2));
          }
          Event event =
              seeds.below(5) == 0
                  ? HazardReports.event("x", seeds.json(3))
                  : HazardReports.event(seeds.text());
          World world = MemoryWorld.finding(report);
          Decision plain = Decider.decide(BRIDGE, event, world, Mode.PLAIN);
          Decision explained = Decider.decide(BRIDGE, event, world, Mode.EXPLAINED);
          assertThat(explained)
              .usingRecursiveComparison()
              .ignoringFields("explanation")
              .isEqualTo(plain);
          assertThat(plain.explanation()).isSameAs(Explanation.NONE);
          assertThat(Decider.decide(BRIDGE, event, world, Mode.EXPLAINED)).isEqualTo(explained);
          assertThat(plain.failures().isEmpty()).isEqualTo(plain.verdict() != Verdict.FAILED);
        });
  }
}
