package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import org.ysthmos.core.bridge.CompiledTwoWay.Translation;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Crossing;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.PlayThrough;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.StatusCheck;
import org.ysthmos.core.sync.StatusFinding;
import org.ysthmos.core.sync.StatusFinding.Lost;
import org.ysthmos.core.sync.StatusFinding.NeverReached;
import org.ysthmos.core.sync.StatusFinding.NotMapped;
import org.ysthmos.core.sync.StatusFinding.NotSeen;
import org.ysthmos.core.sync.StatusTable;
import org.ysthmos.core.sync.SyncField;
import org.ysthmos.core.sync.Way;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * A field whose values are looked up, whichever way it goes, as a table of statuses.
 *
 * @param table what each status is on the other side, all others included where these are stated
 * @param statuses of each side: those that its system names, then what else the rules name
 */
public record StatusField(
    CompiledTwoWay.Field field, StatusTable table, Both<SequencedSet<String>> statuses) {

  /**
   * Empty if some way of the field is no look-up, or if no change of it is carried: what is only
   * written when a task is made has no way back.
   */
  public static Optional<StatusField> of(CompiledTwoWay.Field field) {
    if (field.rule().direction() == Direction.ONCE) {
      return Optional.empty();
    }
    boolean lookedUp = false;
    for (Side side : Side.values()) {
      switch (field.to().of(side)) {
        case Translation.ByValues values -> lookedUp = true;
        case Translation.None none -> {}
        case Translation.BySteps steps -> {
          return Optional.empty();
        }
        case Translation.ByPair pair -> {
          return Optional.empty();
        }
      }
    }
    return lookedUp ? Optional.of(tableOf(field)) : Optional.empty();
  }

  private static StatusField tableOf(CompiledTwoWay.Field field) {
    Both<SequencedSet<String>> statuses = Both.by(side -> statuses(field, side));
    StatusTable table =
        new StatusTable(
            across(field, Side.LEFT, statuses.left()), across(field, Side.RIGHT, statuses.right()));
    return new StatusField(field, table, statuses);
  }

  private static SequencedSet<String> statuses(CompiledTwoWay.Field field, Side side) {
    SequencedSet<String> all = new LinkedHashSet<>(field.at().of(side).shape().names().keySet());
    said(field, side.across()).ifPresent(values -> all.addAll(values.values().keySet()));
    said(field, side)
        .ifPresent(
            values -> {
              all.addAll(values.values().values());
              values.otherwise().ifPresent(all::add);
            });
    return all;
  }

  /** What the document says of what goes to a side. */
  private static Optional<TwoWay.Translation.Values> said(CompiledTwoWay.Field field, Side to) {
    return field
        .rule()
        .to(to)
        .filter(TwoWay.Translation.Values.class::isInstance)
        .map(TwoWay.Translation.Values.class::cast);
  }

  private static Map<String, String> across(
      CompiledTwoWay.Field field, Side from, SequencedSet<String> statuses) {
    Map<String, String> across = new LinkedHashMap<>();
    for (String status : statuses) {
      if (crossing(field, from, value(field, from, status)) instanceof Crossing.Becomes becomes) {
        across.put(status, becomes.value().display());
      }
    }
    return across;
  }

  private static Crossing crossing(CompiledTwoWay.Field field, Side from, Value value) {
    return switch (field.to().of(from.across())) {
      case Translation.ByValues values -> values.of(value);
      case Translation.None none -> none.stays();
      case Translation.BySteps steps -> throw new IllegalStateException("it is looked up");
      case Translation.ByPair pair -> throw new IllegalStateException("it is looked up");
    };
  }

  private static Value value(CompiledTwoWay.Field field, Side side, String status) {
    return status.isEmpty()
        ? Nothing.NOTHING
        : Constant.parse(status, field.at().of(side).shape().type());
  }

  /** The field of a side, as its system describes it. */
  public FieldShape shape(Side side) {
    return field.at().of(side).shape();
  }

  /** Whether changes of a side are looked up for the other. */
  public boolean goes(Side from) {
    return field.to().of(from.across()) instanceof Translation.ByValues
        && field.rule().direction().carries(from);
  }

  /**
   * What people should know before it is used; nothing of a side from which nothing goes, as that
   * is what was asked for.
   */
  public List<StatusFinding> findings() {
    return StatusCheck.of(table, statuses.left(), statuses.right()).stream()
        .filter(this::counts)
        .toList();
  }

  private boolean counts(StatusFinding finding) {
    return switch (finding) {
      case NotMapped one -> goes(one.side());
      case NotSeen one -> goes(one.side());
      case NeverReached one -> goes(one.side().across());
      case Lost one -> goes(one.side()) && goes(one.side().across());
    };
  }

  /** A status that somebody sets on a side. */
  public record Setting(Side side, String status) {}

  /**
   * What both sides become as statuses are set one after the other.
   *
   * @param left what both have agreed on at first
   * @param right the same
   */
  public List<PlayThrough.Played> play(String left, String right, List<Setting> changes) {
    TwoWay.Field rule = field.rule();
    Way way = (from, value) -> crossing(field, from, value);
    List<PlayThrough.Change> made = new ArrayList<>(changes.size());
    for (Setting change : changes) {
      made.add(new PlayThrough.Change(change.side(), value(field, change.side(), change.status())));
    }
    return PlayThrough.of(
        new SyncField(rule.name(), rule.direction(), rule.both(), rule.drift(), way),
        value(field, Side.LEFT, left),
        value(field, Side.RIGHT, right),
        made);
  }
}
