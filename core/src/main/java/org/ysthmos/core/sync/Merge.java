package org.ysthmos.core.sync;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Brings together what was done to one value on both sides. */
record Merge(Way way, Value baseLeft, Value baseRight, Value left, Value right) {

  /** What each side is to hold. */
  record Values(Value left, Value right) {}

  /** Empty where both cannot be kept. */
  Optional<Values> merged() {
    return isText(left) && isText(right) ? texts() : lists();
  }

  private static boolean isText(Value value) {
    return value instanceof Text;
  }

  /**
   * Each side gets what was added to the other and loses what was removed there; what only that
   * side can say stays with it.
   */
  private Optional<Values> lists() {
    Optional<Value> toLeft = moved(Side.RIGHT, baseRight, right, left);
    Optional<Value> toRight = moved(Side.LEFT, baseLeft, left, right);
    return toLeft.flatMap(first -> toRight.map(second -> new Values(first, second)));
  }

  private Optional<Value> moved(Side from, Value base, Value now, Value to) {
    Optional<Set<Value>> had = items(base);
    Optional<Set<Value>> has = items(now);
    Optional<Set<Value>> target = items(to);
    if (had.isEmpty() || has.isEmpty() || target.isEmpty()) {
      return Optional.empty();
    }
    Optional<Set<Value>> added = across(way, from, without(has.get(), had.get()), now);
    Optional<Set<Value>> removed = across(way, from, without(had.get(), has.get()), base);
    if (added.isEmpty() || removed.isEmpty()) {
      return Optional.empty();
    }
    Set<Value> all = new LinkedHashSet<>(target.get());
    all.removeAll(without(removed.get(), added.get()));
    all.addAll(added.get());
    return Optional.of(all.equals(target.get()) ? to : list(all, to, now));
  }

  private static Set<Value> without(Set<Value> some, Set<Value> others) {
    Set<Value> rest = new LinkedHashSet<>(some);
    rest.removeAll(others);
    return rest;
  }

  private static Optional<Set<Value>> across(Way way, Side from, Set<Value> items, Value like) {
    if (items.isEmpty()) {
      return Optional.of(Set.of());
    }
    return way.across(from, list(items, like, like)) instanceof Crossing.Becomes becomes
        ? items(becomes.value())
        : Optional.empty();
  }

  /** The items of a list, each once; nothing is an empty one. */
  private static Optional<Set<Value>> items(Value value) {
    return switch (value) {
      case ListValue list -> Optional.of(new LinkedHashSet<>(list.items()));
      case Nothing nothing -> Optional.of(Set.of());
      default -> Optional.empty();
    };
  }

  private static Value list(Set<Value> items, Value like, Value orLike) {
    if (items.isEmpty()) {
      return Nothing.NOTHING;
    }
    ListValue model =
        like instanceof ListValue list ? list : orLike instanceof ListValue list ? list : null;
    return new ListValue(
        model == null ? items.iterator().next().type() : model.element(), List.copyOf(items));
  }

  /**
   * By paragraphs, where both sides hold them alike: what the first cannot say of the other would
   * be lost on its way there and back.
   */
  private Optional<Values> texts() {
    Optional<String> base = text(baseLeft);
    Optional<String> otherBase = becomes(way, Side.RIGHT, baseRight);
    Optional<String> otherNow = becomes(way, Side.RIGHT, right);
    boolean alike =
        otherNow
            .map(text -> way.across(Side.LEFT, Text.of(text)))
            .filter(new Crossing.Becomes(right)::equals)
            .isPresent();
    if (base.isEmpty() || !otherBase.equals(base) || otherNow.equals(base) || !alike) {
      return Optional.empty();
    }
    return Paragraphs.merge(base.get(), left.display(), otherNow.orElseThrow())
        .flatMap(text -> values(way, text));
  }

  private static Optional<String> text(Value value) {
    return isText(value) || value == Nothing.NOTHING
        ? Optional.of(value.display())
        : Optional.empty();
  }

  private static Optional<String> becomes(Way way, Side from, Value value) {
    return value == Nothing.NOTHING
        ? Optional.of("")
        : way.across(from, value) instanceof Crossing.Becomes becomes
            ? text(becomes.value())
            : Optional.empty();
  }

  private static Optional<Values> values(Way way, String text) {
    Value merged = Text.of(text);
    return way.across(Side.LEFT, merged) instanceof Crossing.Becomes becomes
        ? Optional.of(new Values(merged, becomes.value()))
        : Optional.empty();
  }

  /** All of both: the items of both lists, or one text after the other. */
  static Optional<Values> both(Way way, Value left, Value right) {
    if (isText(left) && isText(right)) {
      return becomes(way, Side.RIGHT, right)
          .flatMap(text -> values(way, left.display() + "\n\n" + text));
    }
    return new Merge(way, Nothing.NOTHING, Nothing.NOTHING, left, right).lists();
  }
}
