package org.ysthmos.core.sync;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;

/**
 * Which status of one side stands for which of the other, and back. A pair of statuses agrees if
 * either direction yields it. Where one side changes, the other is touched only if the two agree no
 * more, so that several statuses of one side may stand for one of the other without losing their
 * difference (the put-back rule of a lens: Foster and others, “Combinators for bidirectional tree
 * transformations”, 2007; that what agrees is not touched: hippocraticness, Stevens, “Bidirectional
 * model transformations in QVT”, 2010).
 */
public final class StatusTable {

  private final SequencedMap<String, String> there;
  private final SequencedMap<String, String> back;

  /**
   * @param there for statuses of {@link Side#LEFT} those of {@link Side#RIGHT}; a status that is
   *     not mapped changes nothing across
   * @param back the same for the other direction
   */
  public StatusTable(Map<String, String> there, Map<String, String> back) {
    this.there = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(there));
    this.back = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(back));
  }

  /** What statuses of a side become across; those that are not mapped are not in it. */
  public SequencedMap<String, String> from(Side side) {
    return side == Side.LEFT ? there : back;
  }

  /** What the status of a side becomes across; empty if it is not mapped. */
  public Optional<String> across(Side side, String status) {
    return Optional.ofNullable(from(side).get(status));
  }

  /** Whether two statuses stand for each other, in either direction. */
  public boolean agree(Statuses pair) {
    return across(Side.LEFT, pair.left()).filter(pair.right()::equals).isPresent()
        || across(Side.RIGHT, pair.right()).filter(pair.left()::equals).isPresent();
  }

  /**
   * What both sides are after one of them changed.
   *
   * @param pair with the change in it
   * @return the same if the two agree, or if the changed status is not mapped
   */
  public Statuses settle(Statuses pair, Side changed) {
    if (agree(pair)) {
      return pair;
    }
    return across(changed, pair.of(changed))
        .map(status -> pair.with(changed.across(), status))
        .orElse(pair);
  }
}
