package org.ysthmos.core.incident;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A cause being weighed. Each piece of evidence adds or takes away a weight; what each weighs is
 * common practice, no source: {@link #PROVES} alone makes a cause sure unless something speaks
 * against it, {@link #STRONG} makes it likely, {@link #WEAK} makes it possible.
 */
final class Weighing {

  /** A fact that hardly anything else explains. */
  static final int PROVES = 8;

  /** A fact that this cause explains better than others do. */
  static final int STRONG = 4;

  /** A fact that fits. */
  static final int WEAK = 2;

  private static final int SURE_FROM = 8;
  private static final int LIKELY_FROM = 4;

  private final Cause cause;
  private final List<String> speaksFor = new ArrayList<>();
  private final List<String> speaksAgainst = new ArrayList<>();
  private Optional<String> headline = Optional.empty();
  private int weight;

  Weighing(Cause cause) {
    this.cause = cause;
  }

  /** Names the cause with what is known of it, in place of its usual words. */
  Weighing as(String words) {
    headline = Optional.of(words);
    return this;
  }

  Weighing because(int more, String sentence) {
    weight += more;
    speaksFor.add(sentence);
    return this;
  }

  Weighing because(boolean holds, int more, String sentence) {
    return holds ? because(more, sentence) : this;
  }

  Weighing although(boolean holds, int less, String sentence) {
    if (holds) {
      weight -= less;
      speaksAgainst.add(sentence);
    }
    return this;
  }

  /** What it comes to; empty if more speaks against it than for it. */
  Optional<Conclusion.Finding> finding(String name) {
    if (weight <= 0) {
      return Optional.empty();
    }
    return Optional.of(
        new Conclusion.Finding(
            cause,
            headline.orElseGet(() -> cause.headline(name)),
            sure(),
            weight,
            List.copyOf(speaksFor),
            List.copyOf(speaksAgainst)));
  }

  private Conclusion.Sure sure() {
    if (weight >= SURE_FROM) {
      return Conclusion.Sure.SURE;
    }
    return weight >= LIKELY_FROM ? Conclusion.Sure.LIKELY : Conclusion.Sure.POSSIBLE;
  }
}
