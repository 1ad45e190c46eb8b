package org.ysthmos.core.sync;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.value.Value;

/**
 * What one field becomes on both sides as people change it, one change after the other, by the same
 * merge as with real tasks.
 */
public final class PlayThrough {

  /** What somebody makes of a side. */
  public record Change(Side side, Value value) {}

  /**
   * What a change came to.
   *
   * @param left what stands there once all is written
   * @param right the same
   */
  public record Played(Change change, Value left, Value right, FieldOutcome outcome) {

    public Value of(Side side) {
      return side == Side.LEFT ? left : right;
    }
  }

  private PlayThrough() {}

  /**
   * Plays changes in their order.
   *
   * @param left what both have agreed on at first
   * @param right the same
   */
  public static List<Played> of(SyncField field, Value left, Value right, List<Change> changes) {
    Reconciler reconciler = new Reconciler(List.of(field));
    TaskNow leftNow = task(field, left);
    TaskNow rightNow = task(field, right);
    Agreed agreed = new Agreed(leftNow.fields(), rightNow.fields());
    List<Played> played = new ArrayList<>(changes.size());
    for (Change change : changes) {
      TaskNow changed = task(field, change.value());
      leftNow = change.side() == Side.LEFT ? changed : leftNow;
      rightNow = change.side() == Side.RIGHT ? changed : rightNow;
      Reconciliation made = reconciler.reconcile(agreed, leftNow, rightNow, Map.of());
      leftNow = written(field, made, Side.LEFT, leftNow);
      rightNow = written(field, made, Side.RIGHT, rightNow);
      agreed = made.after(made.writes(Side.LEFT), made.writes(Side.RIGHT));
      played.add(
          new Played(
              change,
              leftNow.of(field.name()),
              rightNow.of(field.name()),
              made.outcomes().getFirst()));
    }
    return List.copyOf(played);
  }

  private static TaskNow task(SyncField field, Value value) {
    return new TaskNow(Map.of(field.name(), value), Optional.empty());
  }

  private static TaskNow written(SyncField field, Reconciliation made, Side to, TaskNow before) {
    return Optional.ofNullable(made.writes(to).get(field.name()))
        .map(value -> task(field, value))
        .orElse(before);
  }
}
