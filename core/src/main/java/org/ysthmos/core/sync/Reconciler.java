package org.ysthmos.core.sync;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.sync.FieldOutcome.Adopted;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Conflict;
import org.ysthmos.core.sync.FieldOutcome.Failed;
import org.ysthmos.core.sync.FieldOutcome.Left;
import org.ysthmos.core.sync.FieldOutcome.Merged;
import org.ysthmos.core.sync.FieldOutcome.Unchanged;
import org.ysthmos.core.sync.FieldOutcome.Waiting;
import org.ysthmos.core.value.Value;

/**
 * Holds both sides of a pair against what they held when they last agreed, field by field, and says
 * what is to be written where. It looks at states, not at events, so that repeats, reorderings and
 * echoes of our own writing change nothing. Pure: the same states come to the same writes.
 */
public final class Reconciler {

  private static final String BOTH_CHANGED = "It was changed on both sides";

  private final List<SyncField> fields;

  public Reconciler(List<SyncField> fields) {
    this.fields = List.copyOf(fields);
  }

  /**
   * What becomes of the fields of a pair.
   *
   * @param agreed what both held when they last agreed
   * @param answers what a person said of fields, by their names; of no account where nothing is in
   *     conflict
   */
  public Reconciliation reconcile(
      Agreed agreed, TaskNow one, TaskNow other, Map<String, Answer> answers) {
    List<FieldOutcome> outcomes = new ArrayList<>(fields.size());
    for (SyncField field : fields) {
      Sides sides = new Sides(field, agreed, one, other);
      FieldOutcome outcome = sides.outcome();
      Answer answer = answers.get(field.name());
      outcomes.add(outcome instanceof Conflict && answer != null ? sides.as(answer) : outcome);
    }
    return new Reconciliation(outcomes, agreed, one, other);
  }

  /**
   * What becomes of a pair of which one task is gone.
   *
   * @param gone the side on which it is
   * @param left the task that is left
   * @param when what is stated for that
   */
  public GoneOutcome gone(Agreed agreed, Side gone, TaskNow left, WhenGone when) {
    Side there = gone.across();
    List<String> changed =
        fields.stream()
            .map(SyncField::name)
            .filter(name -> !left.of(name).equals(agreed.of(there, name)))
            .toList();
    return switch (when) {
      case CLOSE -> new GoneOutcome.Close(there);
      case DELETE ->
          changed.isEmpty()
              ? new GoneOutcome.Delete(there)
              : new GoneOutcome.Ask(
                  "It was removed on one side while something was entered on the other", changed);
      case PART -> new GoneOutcome.Part();
      case MAKE_AGAIN -> new GoneOutcome.MakeAgain(gone);
    };
  }

  /** One field on both sides. */
  private record Sides(SyncField field, Agreed agreed, TaskNow one, TaskNow other) {

    private Value now(Side side) {
      return (side == Side.ONE ? one : other).of(field.name());
    }

    private Value before(Side side) {
      return agreed.of(side, field.name());
    }

    private boolean changed(Side side) {
      return !now(side).equals(before(side));
    }

    FieldOutcome outcome() {
      boolean changedHere = changed(Side.ONE);
      boolean changedThere = changed(Side.OTHER);
      if (!changedHere && !changedThere) {
        return new Unchanged(field.name());
      }
      if (field.way().agree(now(Side.ONE), now(Side.OTHER))) {
        return new Adopted(field.name());
      }
      if (changedHere && changedThere) {
        return bothChanged();
      }
      Side on = changedHere ? Side.ONE : Side.OTHER;
      return field.direction().carries(on) ? carry(on, Optional.empty()) : drifted(on);
    }

    private FieldOutcome bothChanged() {
      return switch (field.direction()) {
        case BOTH ->
            switch (field.both()) {
              case ASK -> new Conflict(field.name(), BOTH_CHANGED);
              case ONE_WINS -> over(Side.ONE);
              case OTHER_WINS -> over(Side.OTHER);
              case LATER_WINS ->
                  later()
                      .map(this::over)
                      .orElseGet(
                          () ->
                              new Conflict(
                                  field.name(),
                                  BOTH_CHANGED + ", and no time says which was the later"));
              case MERGE -> merge();
            };
        case TO_OTHER -> followed(Side.ONE);
        case TO_ONE -> followed(Side.OTHER);
        case ONCE -> new Left(field.name(), Side.OTHER, "It is only written when a task is made");
      };
    }

    /** The side that is followed changed, and the one that follows was changed too. */
    private FieldOutcome followed(Side side) {
      return field.drift() == Drift.ASK ? new Conflict(field.name(), BOTH_CHANGED) : over(side);
    }

    private FieldOutcome drifted(Side on) {
      if (field.direction() == Direction.ONCE) {
        return new Left(field.name(), on, "It is only written when a task is made");
      }
      return switch (field.drift()) {
        case LEAVE -> new Left(field.name(), on, "This side only follows; it stays as it is");
        case RESTORE -> over(on.across());
        case ASK -> new Conflict(field.name(), "It was changed on the side that only follows");
      };
    }

    /** One side is written over with what the other has. */
    private FieldOutcome over(Side winner) {
      return carry(
          winner, Optional.of(now(winner.across())).filter(any -> changed(winner.across())));
    }

    private FieldOutcome carry(Side from, Optional<Value> over) {
      return switch (field.way().across(from, now(from))) {
        case Crossing.Becomes becomes -> written(from.across(), becomes.value(), over);
        case Crossing.Stays stays -> new Left(field.name(), from, stays.because());
        case Crossing.Waits waits -> new Waiting(field.name(), from, waits.because());
        case Crossing.Fails fails -> new Failed(field.name(), from, fails.problem());
      };
    }

    private FieldOutcome written(Side to, Value value, Optional<Value> over) {
      return value.equals(now(to))
          ? new Adopted(field.name())
          : new Carried(field.name(), to, value, over);
    }

    private Optional<Side> later() {
      if (one.changedAt().isEmpty() || other.changedAt().isEmpty()) {
        return Optional.empty();
      }
      int order = one.changedAt().get().compareTo(other.changedAt().get());
      return order == 0 ? Optional.empty() : Optional.of(order > 0 ? Side.ONE : Side.OTHER);
    }

    private FieldOutcome merge() {
      return new Merge(
              field.way(), before(Side.ONE), before(Side.OTHER), now(Side.ONE), now(Side.OTHER))
          .merged()
          .map(this::merged)
          .orElseGet(
              () -> new Conflict(field.name(), BOTH_CHANGED + ", where both cannot be kept"));
    }

    private FieldOutcome merged(Merge.Values values) {
      Optional<Value> toOne = Optional.of(values.one()).filter(any -> !any.equals(now(Side.ONE)));
      Optional<Value> toOther =
          Optional.of(values.other()).filter(any -> !any.equals(now(Side.OTHER)));
      return toOne.isEmpty() && toOther.isEmpty()
          ? new Adopted(field.name())
          : new Merged(field.name(), toOne, toOther);
    }

    FieldOutcome as(Answer answer) {
      return switch (answer) {
        case Answer.Wins wins -> over(wins.side());
        case Answer.Typed typed -> typed(typed.one());
        case Answer.Both both ->
            Merge.both(field.way(), now(Side.ONE), now(Side.OTHER))
                .map(this::merged)
                .orElseGet(() -> new Conflict(field.name(), "It can only be the one or the other"));
      };
    }

    private FieldOutcome typed(Value value) {
      return switch (field.way().across(Side.ONE, value)) {
        case Crossing.Becomes becomes -> merged(new Merge.Values(value, becomes.value()));
        case Crossing.Stays stays -> new Conflict(field.name(), stays.because());
        case Crossing.Waits waits -> new Conflict(field.name(), waits.because());
        case Crossing.Fails fails -> new Conflict(field.name(), fails.problem().message());
      };
    }
  }
}
