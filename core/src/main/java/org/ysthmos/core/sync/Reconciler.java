package org.ysthmos.core.sync;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.sync.FieldOutcome.Adopted;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Conflict;
import org.ysthmos.core.sync.FieldOutcome.Failed;
import org.ysthmos.core.sync.FieldOutcome.Merged;
import org.ysthmos.core.sync.FieldOutcome.NotCarried;
import org.ysthmos.core.sync.FieldOutcome.Unchanged;
import org.ysthmos.core.sync.FieldOutcome.Waiting;
import org.ysthmos.core.value.Nothing;
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
      Agreed agreed, TaskNow left, TaskNow right, Map<String, Answer> answers) {
    List<FieldOutcome> outcomes = new ArrayList<>(fields.size());
    for (SyncField field : fields) {
      Sides sides = new Sides(field, agreed, left, right);
      FieldOutcome outcome = sides.outcome();
      Answer answer = answers.get(field.name());
      outcomes.add(outcome instanceof Conflict && answer != null ? sides.as(answer) : outcome);
    }
    return new Reconciliation(outcomes, agreed, left, right);
  }

  /**
   * What becomes of the fields of a pair where one side follows the other once, whichever of them
   * changed what. What the two agree on is not touched, and fields that do not go that way are held
   * against what was agreed, as ever.
   *
   * @param leads the side that is followed
   */
  public Reconciliation follow(Agreed agreed, TaskNow left, TaskNow right, Side leads) {
    List<FieldOutcome> outcomes =
        fields.stream()
            .map(field -> new Sides(field, agreed, left, right).following(leads))
            .toList();
    return new Reconciliation(outcomes, agreed, left, right);
  }

  /**
   * What becomes of a pair of which one task is gone.
   *
   * @param gone the side on which it is
   * @param remaining the task that is not
   * @param when what is stated for that
   */
  public GoneOutcome gone(Agreed agreed, Side gone, TaskNow remaining, WhenGone when) {
    Side there = gone.across();
    List<String> changed =
        fields.stream()
            .map(SyncField::name)
            .filter(name -> !remaining.of(name).equals(agreed.of(there, name)))
            .toList();
    return switch (when) {
      case ASK -> new GoneOutcome.Ask("It was removed on one side", changed);
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
  private record Sides(SyncField field, Agreed agreed, TaskNow left, TaskNow right) {

    private Value now(Side side) {
      return (side == Side.LEFT ? left : right).of(field.name());
    }

    private Value before(Side side) {
      return agreed.of(side, field.name());
    }

    private boolean changed(Side side) {
      return !now(side).equals(before(side));
    }

    FieldOutcome outcome() {
      boolean changedHere = changed(Side.LEFT);
      boolean changedThere = changed(Side.RIGHT);
      if (!changedHere && !changedThere) {
        return new Unchanged(field.name());
      }
      if (field.way().agree(now(Side.LEFT), now(Side.RIGHT))) {
        return new Adopted(field.name());
      }
      if (changedHere && changedThere) {
        return bothChanged();
      }
      Side on = changedHere ? Side.LEFT : Side.RIGHT;
      return field.direction().carries(on) ? carry(on, Optional.empty()) : drifted(on);
    }

    FieldOutcome following(Side leads) {
      boolean agree = field.way().agree(now(Side.LEFT), now(Side.RIGHT));
      return agree || !field.direction().carries(leads)
          ? outcome()
          : carry(leads, Optional.of(now(leads.across())).filter(any -> any != Nothing.NOTHING));
    }

    private FieldOutcome bothChanged() {
      return switch (field.direction()) {
        case BOTH ->
            switch (field.both()) {
              case ASK -> new Conflict(field.name(), BOTH_CHANGED);
              case LEFT_WINS -> over(Side.LEFT);
              case RIGHT_WINS -> over(Side.RIGHT);
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
        case TO_RIGHT -> followed(Side.LEFT);
        case TO_LEFT -> followed(Side.RIGHT);
        case ONCE ->
            new NotCarried(field.name(), Side.RIGHT, "It is only written when a task is made");
      };
    }

    /** The side that is followed changed, and the one that follows was changed too. */
    private FieldOutcome followed(Side side) {
      return field.drift() == Drift.ASK ? new Conflict(field.name(), BOTH_CHANGED) : over(side);
    }

    private FieldOutcome drifted(Side on) {
      if (field.direction() == Direction.ONCE) {
        return new NotCarried(field.name(), on, "It is only written when a task is made");
      }
      return switch (field.drift()) {
        case LEAVE -> new NotCarried(field.name(), on, "This side only follows; it stays as it is");
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
        case Crossing.Stays stays -> new NotCarried(field.name(), from, stays.because());
        case Crossing.Waits waits -> new Waiting(field.name(), from, waits);
        case Crossing.Fails fails -> new Failed(field.name(), from, fails.problem());
      };
    }

    private FieldOutcome written(Side to, Value value, Optional<Value> over) {
      return value.equals(now(to))
          ? new Adopted(field.name())
          : new Carried(field.name(), to, value, over);
    }

    private Optional<Side> later() {
      if (left.changedAt().isEmpty() || right.changedAt().isEmpty()) {
        return Optional.empty();
      }
      int order = left.changedAt().get().compareTo(right.changedAt().get());
      return order == 0 ? Optional.empty() : Optional.of(order > 0 ? Side.LEFT : Side.RIGHT);
    }

    private FieldOutcome merge() {
      return new Merge(
              field.way(), before(Side.LEFT), before(Side.RIGHT), now(Side.LEFT), now(Side.RIGHT))
          .merged()
          .map(this::merged)
          .orElseGet(
              () -> new Conflict(field.name(), BOTH_CHANGED + ", where both cannot be kept"));
    }

    private FieldOutcome merged(Merge.Values values) {
      Optional<Value> toLeft =
          Optional.of(values.left()).filter(any -> !any.equals(now(Side.LEFT)));
      Optional<Value> toRight =
          Optional.of(values.right()).filter(any -> !any.equals(now(Side.RIGHT)));
      return toLeft.isEmpty() && toRight.isEmpty()
          ? new Adopted(field.name())
          : new Merged(field.name(), toLeft, toRight);
    }

    FieldOutcome as(Answer answer) {
      return switch (answer) {
        case Answer.Wins wins -> over(wins.side());
        case Answer.Typed typed -> typed(typed.left());
        case Answer.Both both ->
            Merge.both(field.way(), now(Side.LEFT), now(Side.RIGHT))
                .map(this::merged)
                .orElseGet(() -> new Conflict(field.name(), "It can only be the one or the other"));
      };
    }

    private FieldOutcome typed(Value value) {
      return switch (field.way().across(Side.LEFT, value)) {
        case Crossing.Becomes becomes -> merged(new Merge.Values(value, becomes.value()));
        case Crossing.Stays stays -> new Conflict(field.name(), stays.because());
        case Crossing.Waits waits -> new Conflict(field.name(), waits.because());
        case Crossing.Fails fails -> new Conflict(field.name(), fails.problem().message());
      };
    }
  }
}
