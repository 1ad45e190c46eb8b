package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.ysthmos.core.decide.PairOfShores.held;
import static org.ysthmos.core.decide.PairOfShores.pair;
import static org.ysthmos.core.decide.PairOfShores.to;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class SyncDeciderTest {

  private static final String LONG = "Mend the sluice gate at the weir";

  private final Shores shores = new Shores();

  @Test
  void taskThatIsInNoPairIsMadeOnTheOtherSide() {
    shores.holding("b1", "title", LONG, "lane", "doing", "due", "2026-12-01T17:00:00Z");
    Decision decision = shores.decide(Side.LEFT, "created", "b1");
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    PlannedDelivery made = to(Side.RIGHT, decision).orElseThrow();
    assertThat(made.system()).isEqualTo("ledger");
    assertThat(made.record()).isEmpty();
    assertThat(made.fields())
        .containsEntry("title", Text.of("Mend the sluice…"))
        .containsEntry("status", new Choice("in-work"))
        .containsEntry("due", new Day(LocalDate.parse("2026-12-01")));
    Synced synced = decision.synced().orElseThrow();
    // What the ledger shortened counts as agreed on the board as it stands there.
    assertThat(synced.onceWritten().held().left()).containsEntry("title", Text.of(LONG));
    assertThat(synced.onceWritten().asMade()).containsExactly("note");
    assertThat(synced.records().left()).contains("b1");
    assertThat(Synced.taskKey(synced.key(), Side.RIGHT).hash())
        .isNotEqualTo(Synced.taskKey(synced.key(), Side.LEFT).hash());
  }

  /**
   * Whoever changed what; but for what stands for each other already, and what goes no such way.
   */
  @Test
  void oneSideFollowsTheOtherOnce() {
    shores
        .paired(pair())
        .holding("b1", "title", "Mend it well", "lane", "doing", "note", "by boat")
        .holding("l1", "title", "Repair", "status", "in-work", "due", "2026-12-01");
    Decision ledgerLeads =
        shores.decide(Shores.BRIDGE, Side.LEFT, Look.KIND, "b1", "{\"leads\":\"right\"}");
    assertThat(to(Side.LEFT, ledgerLeads).orElseThrow().fields())
        .containsOnly(
            Map.entry("title", Text.of("Repair")),
            Map.entry("due", Moment.parse("2026-12-01T17:00:00Z")));
    // The note only goes to the ledger, and was entered on the board.
    assertThat(to(Side.RIGHT, ledgerLeads).orElseThrow().fields())
        .containsOnly(Map.entry("note", Text.of("by boat")));
    assertThat(ledgerLeads.synced().orElseThrow().conflicts()).isEmpty();

    Decision boardLeads =
        shores.decide(Shores.BRIDGE, Side.LEFT, Look.KIND, "b1", "{\"leads\":\"left\"}");
    assertThat(to(Side.LEFT, boardLeads)).isEmpty();
    assertThat(to(Side.RIGHT, boardLeads).orElseThrow().fields())
        .containsEntry("title", Text.of("Mend it well"))
        .containsEntry("due", Nothing.NOTHING);
    // The same words in an event of a system ask for nothing.
    Decision told =
        shores.decide(Shores.BRIDGE, Side.LEFT, "changed", "b1", "{\"leads\":\"left\"}");
    assertThat(told.synced().orElseThrow().conflicts()).hasSize(1);
  }

  /** The page of a task is told to the other, whichever of them was there first. */
  @Test
  void pageOfATaskStandsInTheOther() {
    String bridge =
        Shores.BRIDGE + "  page: { left: made/link, right: link, direction: to-right }\n";
    Link page = Link.of("https://board.example/tasks/b1");
    shores.holding("b1", "title", "Mend", "lane", "doing");
    Decision made = shores.decide(bridge, Side.LEFT, "created", "b1", "{}");
    assertThat(to(Side.RIGHT, made).orElseThrow().fields()).containsEntry("link", page);

    // The one on the board was made of the job: it has its page only then.
    shores.paired(pair()).holding("l1", "title", "Mend", "status", "in-work");
    Decision looked = shores.decide(bridge, Side.LEFT, "look", "b1", "{}");
    assertThat(looked.deliveries()).hasSize(1);
    assertThat(to(Side.RIGHT, looked).orElseThrow().fields()).containsOnly(Map.entry("link", page));
    assertThat(Shores.bridge(bridge).between().orElseThrow().tellsBack(Side.LEFT)).isTrue();
    assertThat(Shores.bridge(bridge).between().orElseThrow().tellsBack(Side.RIGHT)).isFalse();
  }

  @Test
  void idOfATaskStandsInTheOther() {
    String bridge = Shores.BRIDGE.replace("left: note, right: note", "left: made/id, right: note");
    shores.holding("b1", "title", "Mend", "lane", "doing");
    Decision made = shores.decide(bridge, Side.LEFT, "created", "b1", "{}");
    assertThat(to(Side.RIGHT, made).orElseThrow().fields()).containsEntry("note", Text.of("b1"));
  }

  private Decision meet(String left, String right) {
    return shores.decide(
        Shores.BRIDGE, Side.LEFT, Look.KIND, left, Look.meeting(right).data().toString());
  }

  /** What stands for each other is agreed on; what only one has goes across; the rest is asked. */
  @Test
  void twoTasksThatAreThereMeet() {
    shores
        .holding("b1", "title", LONG, "lane", "doing", "note", "by boat")
        .holding("l1", "title", "Mend the sluice…", "status", "in-work", "due", "2026-12-01");
    Decision met = meet("b1", "l1");
    assertThat(met.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(to(Side.RIGHT, met).orElseThrow().fields())
        .containsOnly(Map.entry("note", Text.of("by boat")));
    assertThat(to(Side.LEFT, met).orElseThrow().fields())
        .containsOnly(Map.entry("due", Moment.parse("2026-12-01T17:00:00Z")));
    Synced synced = met.synced().orElseThrow();
    assertThat(synced.records()).isEqualTo(new Both<>(Optional.of("b1"), Optional.of("l1")));
    assertThat(synced.conflicts()).isEmpty();

    shores.holding("l1", "title", "Repair", "status", "done");
    assertThat(meet("b1", "l1").synced().orElseThrow().conflicts())
        .extracting(Synced.Disagreement::field)
        .containsExactly("title", "status");
  }

  @Test
  void taskThatIsInAPairMeetsNoOtherAndOneThatIsGoneMeetsNone() {
    shores
        .holding("b1", "title", "Mend", "lane", "doing")
        .holding("l1", "title", "Mend", "status", "in-work")
        .holding("b2", "title", "Mend", "lane", "doing");
    assertThat(meet("b1", "l2").failures().getFirst().kind()).isEqualTo(FailureKind.LOOKUP_EMPTY);
    assertThat(meet("b3", "l1").failures().getFirst().message()).contains("“b3”");
    shores.paired(pair());
    assertThat(meet("b2", "l1").failures().getFirst().message())
        .isEqualTo("task “l1” of Ledger is in a pair with another, or was");
    // The same two again are the pair that they are.
    assertThat(meet("b1", "l1").verdict()).isEqualTo(Verdict.UNCHANGED);
    shores
        .paired(
            new SyncedPair(
                pair().key(),
                pair().records(),
                pair().agreed(),
                Map.of(),
                Optional.of("a person said so")))
        .holding("l1", "title", "Mend it", "status", "in-work");
    Decision united = meet("b1", "l1");
    assertThat(to(Side.LEFT, united).orElseThrow().fields())
        .containsOnly(Map.entry("title", Text.of("Mend it")));
    assertThat(united.synced().orElseThrow().parted()).isEmpty();
  }

  @Test
  void whatIsNotWantedAcrossIsPassedByAndIfTheEventSaysSoNotEvenRead() {
    assertThat(shores.decide(Shores.BRIDGE, Side.RIGHT, "created", "l1", "{}").verdict())
        .isEqualTo(Verdict.PASSED_BY);
    assertThat(shores.asked()).isEmpty();
    shores.holding("l1", "title", "Mend", "status", "open");
    Decision read =
        shores.decide(Shores.BRIDGE, Side.RIGHT, "created", "l1", "{\"label\":\"works\"}");
    assertThat(read.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(shores.asked()).containsExactly("l1");
    shores.holding("l1", "title", "Mend", "status", "open", "label", "works");
    assertThat(
            shores
                .decide(Shores.BRIDGE, Side.RIGHT, "created", "l1", "{\"label\":\"works\"}")
                .verdict())
        .isEqualTo(Verdict.CREATE);
  }

  @Test
  void changesOfBothSidesGoAcrossInOneDecisionEachWithTheTagOfWhatWasRead() {
    shores
        .paired(pair())
        .holding("b1", "title", "Mend it", "lane", "doing")
        .holding("l1", "title", "Mend", "status", "done");
    Decision decision = shores.decide(Side.LEFT, "changed", "b1");
    assertThat(decision.verdict()).isEqualTo(Verdict.UPDATE);
    PlannedDelivery right = to(Side.RIGHT, decision).orElseThrow();
    PlannedDelivery left = to(Side.LEFT, decision).orElseThrow();
    assertThat(right.fields()).containsOnly(Map.entry("title", Text.of("Mend it")));
    assertThat(right.tag()).contains("tag of l1");
    assertThat(left.fields()).containsOnly(Map.entry("lane", new Choice("finished")));
    assertThat(left.record()).contains("b1");
    assertThat(left.idempotencyKey()).isNotEqualTo(right.idempotencyKey());
    // The same event seen from the other side comes to the same.
    Decision other = shores.decide(Side.RIGHT, "changed", "l1");
    assertThat(to(Side.LEFT, other).orElseThrow().fields()).isEqualTo(left.fields());
  }

  @Test
  void nothingIsWrittenWhereBothStandForEachOtherWhateverWasAgreed() {
    shores
        .paired(pair())
        .holding("b1", "title", "Mend", "lane", "wanted")
        .holding("l1", "title", "Mend", "status", "planned");
    Decision decision = shores.decide(Side.RIGHT, "changed", "l1");
    assertThat(decision.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(decision.deliveries()).isEmpty();
    assertThat(decision.synced().orElseThrow().agreed().of(Side.RIGHT, "status"))
        .isEqualTo(new Choice("planned"));
  }

  @Test
  void personIsAskedWhereBothChangedAndTheAnswerIsCarriedOut() {
    shores
        .paired(pair())
        .holding("b1", "title", "Mend it well", "lane", "doing")
        .holding("l1", "title", "Repair", "status", "in-work");
    Decision asked = shores.decide(Side.LEFT, "changed", "b1");
    assertThat(asked.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(asked.because()).contains("a person is asked");
    Synced.Disagreement one = asked.synced().orElseThrow().conflicts().getFirst();
    assertThat(one.before()).isEqualTo(new Both<>(Text.of("Mend"), Text.of("Mend")));
    assertThat(one.now()).isEqualTo(new Both<>(Text.of("Mend it well"), Text.of("Repair")));

    shores.paired(
        pair(
            new Agreed(held("Mend", "doing"), held("Mend", "in-work")),
            Map.of("title", new Answer.Wins(Side.RIGHT))));
    Decision said = shores.decide(Side.LEFT, "changed", "b1");
    assertThat(to(Side.LEFT, said).orElseThrow().fields())
        .containsOnly(Map.entry("title", Text.of("Repair")));
    assertThat(said.synced().orElseThrow().conflicts()).isEmpty();
  }

  @Test
  void laterOfTwoIsToldByTheTimesOfTheSystems() {
    Map<String, Value> left = held("Mend", "doing");
    left.put("due", new Moment(Instant.parse("2026-12-01T17:00:00Z")));
    Map<String, Value> right = held("Mend", "in-work");
    right.put("due", new Day(LocalDate.parse("2026-12-01")));
    shores
        .paired(pair(new Agreed(left, right), Map.of()))
        .holding(
            "b1",
            "title",
            "Mend",
            "lane",
            "doing",
            "due",
            "2026-12-05T17:00:00Z",
            "at",
            "2026-11-27T10:00:00Z")
        .holding(
            "l1",
            "title",
            "Mend",
            "status",
            "in-work",
            "due",
            "2026-12-09",
            "at",
            "2026-11-27T11:00:00Z");
    Decision decision = shores.decide(Side.LEFT, "changed", "b1");
    assertThat(to(Side.LEFT, decision).orElseThrow().fields())
        .containsEntry("due", new Moment(Instant.parse("2026-12-09T17:00:00Z")));
    assertThat(to(Side.RIGHT, decision)).isEmpty();

    // The ledger says eleven, and its clock was two hours ahead: it was nine.
    Decision behind =
        shores.ahead(Side.RIGHT, Duration.ofHours(2)).decide(Side.LEFT, "changed", "b1");
    assertThat(to(Side.RIGHT, behind).orElseThrow().fields())
        .containsEntry("due", new Day(LocalDate.parse("2026-12-05")));
    assertThat(to(Side.LEFT, behind)).isEmpty();
  }

  @Test
  void sideThatOnlyFollowsIsPutRight() {
    Map<String, Value> left = held("Mend", "doing");
    left.put("note", Text.of("with oak"));
    Map<String, Value> right = held("Mend", "in-work");
    right.put("note", Text.of("with oak"));
    shores
        .paired(pair(new Agreed(left, right), Map.of()))
        .holding("b1", "title", "Mend", "lane", "doing", "note", "with oak")
        .holding("l1", "title", "Mend", "status", "in-work", "note", "with pine");
    assertThat(to(Side.RIGHT, shores.decide(Side.RIGHT, "changed", "l1")).orElseThrow().fields())
        .containsOnly(Map.entry("note", Text.of("with oak")));
  }

  @Test
  void valueThatCannotBeCarriedFailsWithItsFieldAndNothingIsWritten() {
    shores
        .paired(pair())
        .holding("b1", "title", "Mend it", "lane", "doing")
        .holding("l1", "title", " ", "status", "in-work");
    Decision decision = shores.decide(Side.RIGHT, "changed", "l1");
    assertThat(decision.synced().map(Synced::conflicts).orElseThrow()).hasSize(1);
    shores.holding("b1", "title", "Mend", "lane", "doing");
    Decision failed = shores.decide(Side.RIGHT, "changed", "l1");
    assertThat(failed.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(failed.failures().getFirst().message()).startsWith("title: it is required");
    assertThat(failed.deliveries()).isEmpty();
  }

  @Test
  void sideThatDoesNotAnswerFailsTheEventForNow() {
    shores.paired(pair()).silent();
    Decision decision = shores.decide(Side.LEFT, "changed", "b1");
    assertThat(decision.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(decision.failures().getFirst().kind()).isEqualTo(FailureKind.UNREACHABLE);
  }
}
