package org.ysthmos.core.sync;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What both sides will agree on once what is under way to them is written, by the names of the
 * fields. A field that is written to both is agreed on only once both are written: were it sooner,
 * the side that was not would count as changed, and undo the other.
 *
 * @param held what each side holds then
 * @param writes which of the fields are written to each side
 * @param asMade fields of a task that is made which are not written: what it holds then is agreed
 *     on
 * @param open the sides to which something is still under way
 * @param written the sides that were written
 * @param parts why the two are a pair no more then; empty if they stay one
 */
public record OnceWritten(
    Both<Map<String, Value>> held,
    Both<Set<String>> writes,
    Set<String> asMade,
    Set<Side> open,
    Set<Side> written,
    Optional<String> parts) {

  public static final OnceWritten NOTHING =
      new OnceWritten(new Both<>(Map.of(), Map.of()), new Both<>(Set.of(), Set.of()), Set.of());

  public OnceWritten {
    held = new Both<>(Map.copyOf(held.left()), Map.copyOf(held.right()));
    writes = new Both<>(Set.copyOf(writes.left()), Set.copyOf(writes.right()));
    asMade = Set.copyOf(asMade);
    open = Set.copyOf(open);
    written = Set.copyOf(written);
  }

  /** Nothing of it is written yet. */
  public OnceWritten(Both<Map<String, Value>> held, Both<Set<String>> writes, Set<String> asMade) {
    this(held, writes, asMade, sidesOf(writes), Set.of(), Optional.empty());
  }

  /**
   * Something last is done to the task of a side, after which the two are a pair no more. Were they
   * parted sooner, what was not done could not be tried again.
   */
  public static OnceWritten parting(Side side, String why) {
    return new OnceWritten(
        NOTHING.held, NOTHING.writes, Set.of(), Set.of(side), Set.of(), Optional.of(why));
  }

  private static Set<Side> sidesOf(Both<Set<String>> writes) {
    Set<Side> sides = EnumSet.noneOf(Side.class);
    for (Side side : Side.values()) {
      if (!writes.of(side).isEmpty()) {
        sides.add(side);
      }
    }
    return sides;
  }

  /** The fields whose values a side is to tell once it is written. */
  public Set<String> wanted(Side side) {
    Set<String> wanted = new LinkedHashSet<>(writes.of(side));
    wanted.addAll(asMade);
    return wanted;
  }

  /**
   * A side was written.
   *
   * @param stored what it holds now, as far as it is known
   */
  public OnceWritten written(Side side, Map<String, Value> stored) {
    Map<String, Value> now = new HashMap<>(held.of(side));
    for (String field : writes.of(side)) {
      now.computeIfPresent(field, stored::getOrDefault);
    }
    asMade.forEach(field -> now.put(field, stored.getOrDefault(field, Nothing.NOTHING)));
    return new OnceWritten(
        Both.by(one -> one == side ? now : held.of(one)),
        writes,
        asMade,
        without(open, side),
        with(written, side),
        parts);
  }

  /** What was sent to a side was not written. */
  public OnceWritten notWritten(Side side) {
    return new OnceWritten(held, writes, asMade, without(open, side), written, Optional.empty());
  }

  private static Set<Side> without(Set<Side> sides, Side side) {
    Set<Side> rest = new LinkedHashSet<>(sides);
    rest.remove(side);
    return rest;
  }

  private static Set<Side> with(Set<Side> sides, Side side) {
    Set<Side> all = new LinkedHashSet<>(sides);
    all.add(side);
    return all;
  }

  /** Whether nothing is under way any more. */
  public boolean isOver() {
    return open.isEmpty();
  }

  /**
   * What both agree on by now; a field of which something was not written stays as it was agreed.
   */
  public Agreed agreed(Agreed before) {
    return before.with(settled(Side.LEFT), settled(Side.RIGHT));
  }

  private Map<String, Value> settled(Side side) {
    Map<String, Value> values = new HashMap<>(held.of(side));
    values.keySet().removeIf(field -> !isWritten(field));
    return values;
  }

  private boolean isWritten(String field) {
    for (Side to : Side.values()) {
      boolean made = asMade.contains(field) && !writes.of(to).isEmpty();
      if ((made || writes.of(to).contains(field)) && !written.contains(to)) {
        return false;
      }
    }
    return true;
  }
}
