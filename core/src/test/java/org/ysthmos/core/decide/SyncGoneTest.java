package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.ysthmos.core.decide.PairOfShores.pair;
import static org.ysthmos.core.decide.PairOfShores.to;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Text;

/** A task of a pair that is not there any more, or is only not found. */
class SyncGoneTest {

  private final Shores shores = new Shores();

  @Test
  void pairPartsOrTheOtherIsClosedOnceASideTellsThatItsTaskIsGone() {
    shores.paired(pair()).holding("l1", "title", "Mend", "status", "in-work");
    Decision parted = shores.decide(Side.LEFT, "removed", "b1");
    assertThat(parted.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(parted.synced().orElseThrow().parted()).contains("its task at Board was removed");

    shores.without("l1").holding("b1", "title", "Mend", "lane", "doing");
    Decision closed = shores.decide(Side.RIGHT, "removed", "l1");
    assertThat(to(Side.LEFT, closed).orElseThrow().fields())
        .containsOnly(Map.entry("lane", Text.of("finished")));
    assertThat(closed.synced().orElseThrow().parted()).isPresent();

    shores.without("b1");
    assertThat(shores.decide(Side.RIGHT, "removed", "l1").synced().orElseThrow().parted())
        .contains("both tasks are gone");
  }

  @Test
  void taskThatIsGoneIsMadeAgainOfTheOneThatIsLeftWhereThatIsStated() {
    String again = Shores.BRIDGE.replace("if-gone: part", "if-gone: make-again");
    shores.paired(pair()).holding("l1", "title", "Mend it", "status", "done");
    Decision made = shores.decide(again, Side.LEFT, "removed", "b1", "{}");
    assertThat(made.verdict()).isEqualTo(Verdict.CREATE);
    PlannedDelivery task = to(Side.LEFT, made).orElseThrow();
    assertThat(task.record()).isEmpty();
    assertThat(task.fields())
        .containsOnly(
            Map.entry("title", Text.of("Mend it")), Map.entry("lane", new Choice("finished")));
    Synced synced = made.synced().orElseThrow();
    assertThat(synced.key()).isEqualTo(pair().key());
    assertThat(synced.records().left()).isEmpty();
    assertThat(synced.records().right()).contains("l1");
    assertThat(synced.parted()).isEmpty();

    // The one that was made before had another key, by which a system would know it again.
    Decision second =
        new Shores()
            .paired(pair())
            .holding("l1", "title", "Mend it", "status", "done")
            .madeBefore()
            .decide(again, Side.LEFT, "removed", "b1", "{}");
    assertThat(to(Side.LEFT, second).orElseThrow().idempotencyKey())
        .isNotEqualTo(task.idempotencyKey());
    // Both are gone: there is nothing to make it of.
    Decision none = new Shores().paired(pair()).decide(again, Side.LEFT, "removed", "b1", "{}");
    assertThat(none.synced().orElseThrow().parted()).contains("both tasks are gone");
  }

  @Test
  void otherOneIsTakenAwayWhereThatIsStatedUnlessSomethingOfItWouldBeLost() {
    String deletes = Shores.BRIDGE.replace("if-gone: part", "if-gone: delete");
    shores.paired(pair()).holding("l1", "title", "Mend", "status", "in-work");
    Decision removes = shores.decide(deletes, Side.LEFT, "removed", "b1", "{}");
    PlannedDelivery delivery = to(Side.RIGHT, removes).orElseThrow();
    assertThat(delivery.removes()).isTrue();
    assertThat(delivery.record()).contains("l1");
    Synced synced = removes.synced().orElseThrow();
    assertThat(synced.parted()).contains("its task at Board was removed");
    assertThat(synced.onceWritten().isOver()).isFalse();
    assertThat(synced.onceWritten().written(Side.RIGHT, Map.of()).parts())
        .contains("its task at Board was removed");
    assertThat(synced.onceWritten().notWritten(Side.RIGHT).parts()).isEmpty();

    shores.holding("l1", "title", "Mend with the good rope", "status", "in-work");
    Decision asks = shores.decide(deletes, Side.LEFT, "removed", "b1", "{}");
    assertThat(asks.failures().getFirst().message()).contains("something was entered on the other");
    assertThat(to(Side.RIGHT, asks)).isEmpty();
  }

  @Test
  void taskOfASystemThatTakesNothingAwayIsAskedAbout() {
    String deletes = Shores.BRIDGE.replace("if-gone: close", "if-gone: delete");
    shores.paired(pair()).holding("b1", "title", "Mend", "lane", "doing");
    Decision asks = shores.decide(deletes, Side.RIGHT, "removed", "l1", "{}");
    assertThat(asks.failures().getFirst().message()).contains("(remove)");
    assertThat(asks.synced()).isEmpty();
  }

  @Test
  void taskThatIsOnlyNotFoundIsWaitedForAndThenAskedAbout() {
    shores.paired(pair()).holding("l1", "title", "Mend it", "status", "in-work").waiting();
    Decision waits = shores.decide(Side.RIGHT, "changed", "l1");
    assertThat(waits.failures().getFirst().kind()).isEqualTo(FailureKind.NOT_YET_THERE);
    Shores later =
        new Shores().paired(pair()).holding("l1", "title", "Mend it", "status", "in-work");
    Decision asks = later.decide(Side.RIGHT, "changed", "l1");
    assertThat(asks.failures().getFirst().kind()).isEqualTo(FailureKind.NOT_FOUND);
    assertThat(asks.failures().getFirst().remedy().orElseThrow()).contains("Part the two");
  }

  @Test
  void pairThatWasPartedOrTakenBackIsLeftAlone() {
    SyncedPair apart =
        new SyncedPair(
            pair().key(), pair().records(), pair().agreed(), Map.of(), Optional.of("said so"));
    shores.paired(apart).holding("b1", "title", "Mend it", "lane", "doing");
    assertThat(shores.decide(Side.LEFT, "changed", "b1").because()).contains("parted: said so");
    shores.paired(pair()).staying(World.Stays.TAKEN_BACK);
    assertThat(shores.decide(Side.LEFT, "changed", "b1").because()).contains("taken back");
  }

  /** A wrong address and a right that is lacking answer the same as a task that is gone. */
  @Test
  void taskThatIsNotFoundIsNoReasonToPassItsEventBy() {
    Decision lost = shores.decide(Side.LEFT, "created", "b7");
    assertThat(lost.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(lost.failures().getFirst().kind()).isEqualTo(FailureKind.LOOKUP_EMPTY);
    assertThat(shores.decide(Side.LEFT, "removed", "b7").verdict()).isEqualTo(Verdict.PASSED_BY);
    Decision both = shores.paired(pair()).decide(Side.LEFT, "changed", "b1");
    assertThat(both.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(both.synced()).isEmpty();
  }
}
