package org.ysthmos.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.ysthmos.core.sync.FieldOutcome.Adopted;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Conflict;
import org.ysthmos.core.sync.FieldOutcome.Merged;
import org.ysthmos.core.sync.FieldOutcome.NotCarried;
import org.ysthmos.core.sync.FieldOutcome.Unchanged;
import org.ysthmos.core.sync.FieldOutcome.Waiting;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** What becomes of single fields, and of pairs of which one task is gone. */
class ReconcilerTest {

  private static final Instant NOON = Instant.parse("2026-11-03T12:00:00Z");
  private static final Instant LATER = NOON.plusSeconds(1);

  private static SyncField field(Direction direction, BothChanged both, Drift drift) {
    return new SyncField("f", direction, both, drift, Way.SAME);
  }

  private static SyncField both(BothChanged both) {
    return field(Direction.BOTH, both, Drift.LEAVE);
  }

  private static TaskNow task(Value value) {
    return new TaskNow(Map.of("f", value), Optional.empty());
  }

  private static Agreed agreed(Value left, Value right) {
    return new Agreed(Map.of("f", left), Map.of("f", right));
  }

  private static Reconciliation run(SyncField field, Value base, Value left, Value right) {
    return new Reconciler(List.of(field))
        .reconcile(agreed(base, base), task(left), task(right), Map.of());
  }

  private static FieldOutcome outcome(SyncField field, String base, String left, String right) {
    return run(field, Text.of(base), Text.of(left), Text.of(right)).outcomes().getFirst();
  }

  private static Carried carried(Side to, String value, String over) {
    return new Carried("f", to, Text.of(value), Optional.ofNullable(over).<Value>map(Text::of));
  }

  @Test
  void changeOfOneSideIsCarriedToTheOther() {
    SyncField field = both(BothChanged.ASK);
    assertThat(outcome(field, "a", "a", "a")).isEqualTo(new Unchanged("f"));
    assertThat(outcome(field, "a", "b", "a")).isEqualTo(carried(Side.RIGHT, "b", null));
    assertThat(outcome(field, "a", "a", "b")).isEqualTo(carried(Side.LEFT, "b", null));
    assertThat(outcome(field, "a", "b", "b")).isEqualTo(new Adopted("f"));
    assertThat(outcome(field, "a", "b", "c")).isInstanceOf(Conflict.class);
  }

  /** What is written over is named, so that nothing that a person typed is lost unseen. */
  @Test
  void whereBothChangedThePolicyOfTheFieldDecides() {
    assertThat(outcome(both(BothChanged.LEFT_WINS), "a", "b", "c"))
        .isEqualTo(carried(Side.RIGHT, "b", "c"));
    assertThat(outcome(both(BothChanged.RIGHT_WINS), "a", "b", "c"))
        .isEqualTo(carried(Side.LEFT, "c", "b"));
    // Paragraphs of one word clash.
    assertThat(outcome(both(BothChanged.MERGE), "a", "b", "c")).isInstanceOf(Conflict.class);
    assertThat(outcome(both(BothChanged.MERGE), "a\n\nz", "b\n\nz", "a\n\nz\n\nc"))
        .isEqualTo(
            new Merged(
                "f", Optional.of(Text.of("b\n\nz\n\nc")), Optional.of(Text.of("b\n\nz\n\nc"))));
  }

  @ParameterizedTest
  @CsvSource({
    "true, false, LEFT",
    "false, true, RIGHT",
    "true, true, ",
    "false, false, ",
  })
  void theLaterWinsByTheTimesOfTheSystems(boolean oneLater, boolean otherLater, Side winner) {
    Reconciliation came =
        new Reconciler(List.of(both(BothChanged.LATER_WINS)))
            .reconcile(
                agreed(Text.of("a"), Text.of("a")),
                new TaskNow(Map.of("f", Text.of("b")), Optional.of(oneLater ? LATER : NOON)),
                new TaskNow(Map.of("f", Text.of("c")), Optional.of(otherLater ? LATER : NOON)),
                Map.of());
    if (winner == null) {
      assertThat(came.outcomes().getFirst()).isInstanceOf(Conflict.class);
    } else {
      assertThat(came.writes(winner)).isEmpty();
      assertThat(came.writes(winner.across())).hasSize(1);
    }
    assertThat(outcome(both(BothChanged.LATER_WINS), "a", "b", "c"))
        .as("where no times are known")
        .isInstanceOf(Conflict.class);
  }

  @Test
  void sideThatOnlyFollowsMayDrift() {
    SyncField left = field(Direction.TO_RIGHT, BothChanged.ASK, Drift.LEAVE);
    SyncField restored = field(Direction.TO_RIGHT, BothChanged.ASK, Drift.RESTORE);
    SyncField asked = field(Direction.TO_RIGHT, BothChanged.ASK, Drift.ASK);
    assertThat(outcome(left, "a", "a", "x")).isInstanceOf(NotCarried.class);
    assertThat(outcome(restored, "a", "a", "x")).isEqualTo(carried(Side.RIGHT, "a", "x"));
    assertThat(outcome(asked, "a", "a", "x")).isInstanceOf(Conflict.class);
    // It follows again when the other changes, and says what it writes over.
    assertThat(outcome(left, "a", "b", "x")).isEqualTo(carried(Side.RIGHT, "b", "x"));
    assertThat(outcome(asked, "a", "b", "x")).isInstanceOf(Conflict.class);
    assertThat(outcome(left, "a", "b", "a")).isEqualTo(carried(Side.RIGHT, "b", null));
    SyncField once = field(Direction.ONCE, BothChanged.ASK, Drift.RESTORE);
    assertThat(outcome(once, "a", "b", "a")).isInstanceOf(NotCarried.class);
    assertThat(outcome(once, "a", "b", "c")).isInstanceOf(NotCarried.class);
  }

  /** A drift that was left is told once, not each time. */
  @Test
  void whatWasLeftIsAgreedOnAsItIs() {
    SyncField field = field(Direction.TO_RIGHT, BothChanged.ASK, Drift.LEAVE);
    Agreed after = run(field, Text.of("a"), Text.of("a"), Text.of("x")).after(Map.of(), Map.of());
    Reconciliation again =
        new Reconciler(List.of(field))
            .reconcile(after, task(Text.of("a")), task(Text.of("x")), Map.of());
    assertThat(again.outcomes()).containsExactly(new Unchanged("f"));
  }

  /** The other side keeps texts of ten characters at most, without blanks around. */
  @Test
  void whatASideStoresOtherwiseIsNoChange() {
    SyncField field = both(BothChanged.ASK);
    Reconciliation first = run(field, Text.of("a"), Text.of("  A very long title"), Text.of("a"));
    Agreed after = first.after(Map.of(), Map.of("f", Text.of("A very lon")));
    Reconciliation second =
        new Reconciler(List.of(field))
            .reconcile(
                after, task(Text.of("  A very long title")), task(Text.of("A very lon")), Map.of());
    assertThat(second.outcomes()).containsExactly(new Unchanged("f"));
  }

  @Test
  void statusesKeepWhatOnlyOneSideCanSay() {
    StatusTable table =
        new StatusTable(
            Map.of("doing", "started", "done", "finished"),
            Map.of("started", "doing", "waiting", "doing", "finished", "done"));
    SyncField status =
        new SyncField("f", Direction.BOTH, BothChanged.ASK, Drift.LEAVE, Way.of(table));
    Reconciler reconciler = new Reconciler(List.of(status));
    // The ledger waits; the board can only say that it is being done, and does so.
    assertThat(
            reconciler
                .reconcile(
                    agreed(Text.of("doing"), Text.of("started")),
                    task(Text.of("doing")),
                    task(Text.of("waiting")),
                    Map.of())
                .outcomes())
        .containsExactly(new Adopted("f"));
    // A status that is not mapped stays where it is, and is told once.
    Reconciliation dropped =
        reconciler.reconcile(
            agreed(Text.of("doing"), Text.of("started")),
            task(Text.of("doing")),
            task(Text.of("dropped")),
            Map.of());
    assertThat(dropped.outcomes())
        .containsExactly(new NotCarried("f", Side.RIGHT, "“dropped” is not mapped"));
    assertThat(dropped.after(Map.of(), Map.of()).of(Side.RIGHT, "f")).isEqualTo(Text.of("dropped"));
  }

  @Test
  void listsTakeWhatWasAddedAndRemovedOnBothSides() {
    // Labels are called otherwise on the other side, and “own” can only be said on the first.
    Way capitals =
        (from, value) ->
            new Crossing.Becomes(
                ListValue.ofTexts(
                    ((ListValue) value)
                        .items().stream()
                            .map(Value::display)
                            .filter(name -> !name.equals("own"))
                            .map(
                                name ->
                                    from == Side.LEFT
                                        ? name.toUpperCase(Locale.ROOT)
                                        : name.toLowerCase(Locale.ROOT))
                            .toArray(String[]::new)));
    SyncField labels = new SyncField("f", Direction.BOTH, BothChanged.MERGE, Drift.LEAVE, capitals);
    Reconciliation came =
        new Reconciler(List.of(labels))
            .reconcile(
                agreed(ListValue.ofTexts("a", "b", "own"), ListValue.ofTexts("A", "B")),
                task(ListValue.ofTexts("b", "own", "c")),
                task(ListValue.ofTexts("A", "B", "D")),
                Map.of());
    assertThat(came.writes(Side.LEFT))
        .isEqualTo(Map.of("f", ListValue.ofTexts("b", "own", "c", "d")));
    assertThat(came.writes(Side.RIGHT)).isEqualTo(Map.of("f", ListValue.ofTexts("B", "D", "C")));
    // All of them removed on one side while the other added one.
    assertThat(
            run(
                    both(BothChanged.MERGE),
                    ListValue.ofTexts("a"),
                    Nothing.NOTHING,
                    ListValue.ofTexts("a", "b"))
                .outcomes())
        .containsExactly(
            new Merged(
                "f", Optional.of(ListValue.ofTexts("b")), Optional.of(ListValue.ofTexts("b"))));
  }

  @Test
  void whatCannotBeSaidYetComesUpAgain() {
    SyncField parent =
        new SyncField(
            "f",
            Direction.BOTH,
            BothChanged.ASK,
            Drift.LEAVE,
            (from, value) -> new Crossing.Waits("gb-1", false));
    Reconciliation came = run(parent, Nothing.NOTHING, Text.of("t-1"), Nothing.NOTHING);
    assertThat(came.outcomes())
        .containsExactly(new Waiting("f", Side.LEFT, new Crossing.Waits("gb-1", false)));
    assertThat(came.after(Map.of(), Map.of())).isEqualTo(came.agreed());
  }

  @Test
  void conflictIsSettledByAnAnswer() {
    Reconciler reconciler = new Reconciler(List.of(both(BothChanged.ASK)));
    Map<String, Answer> answers = new HashMap<>();
    Agreed base = agreed(Text.of("a"), Text.of("a"));
    TaskNow left = task(Text.of("b"));
    TaskNow right = task(Text.of("c"));
    Reconciliation asked = reconciler.reconcile(base, left, right, answers);
    assertThat(asked.writes(Side.LEFT)).isEmpty();
    assertThat(asked.after(Map.of(), Map.of())).as("it comes up again").isEqualTo(base);

    answers.put("f", new Answer.Wins(Side.RIGHT));
    assertThat(reconciler.reconcile(base, left, right, answers).outcomes())
        .containsExactly(carried(Side.LEFT, "c", "b"));
    answers.put("f", new Answer.Both());
    assertThat(reconciler.reconcile(base, left, right, answers).writes(Side.RIGHT))
        .isEqualTo(Map.of("f", Text.of("b\n\nc")));
    answers.put("f", new Answer.Typed(Text.of("d")));
    Reconciliation typed = reconciler.reconcile(base, left, right, answers);
    assertThat(typed.writes(Side.LEFT)).isEqualTo(Map.of("f", Text.of("d")));
    assertThat(typed.writes(Side.RIGHT)).isEqualTo(Map.of("f", Text.of("d")));
    // An answer to what is no conflict any more writes nothing.
    assertThat(reconciler.reconcile(base, left, task(Text.of("b")), answers).outcomes())
        .containsExactly(new Adopted("f"));
  }

  @ParameterizedTest
  @EnumSource
  void ofAPairOfWhichOneTaskIsGoneNothingThatWasEnteredIsDeleted(Side gone) {
    Reconciler reconciler = new Reconciler(List.of(both(BothChanged.ASK)));
    Agreed base = agreed(Text.of("a"), Text.of("a"));
    Side there = gone.across();
    assertThat(reconciler.gone(base, gone, task(Text.of("a")), WhenGone.DELETE))
        .isEqualTo(new GoneOutcome.Delete(there));
    assertThat(reconciler.gone(base, gone, task(Text.of("b")), WhenGone.DELETE))
        .isEqualTo(
            new GoneOutcome.Ask(
                "It was removed on one side while something was entered on the other",
                List.of("f")));
    assertThat(reconciler.gone(base, gone, task(Text.of("b")), WhenGone.CLOSE))
        .isEqualTo(new GoneOutcome.Close(there));
    assertThat(reconciler.gone(base, gone, task(Text.of("b")), WhenGone.PART))
        .isEqualTo(new GoneOutcome.Part());
    assertThat(reconciler.gone(base, gone, task(Text.of("b")), WhenGone.MAKE_AGAIN))
        .isEqualTo(new GoneOutcome.MakeAgain(gone));
  }
}
