package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Compares one title with others, as {@link TitleLikeness} says. */
final class TitleComparison {

  private final PlainTitle one;
  private final EditDistance standing;
  private final EditDistance ordered;

  TitleComparison(PlainTitle one) {
    this.one = one;
    this.standing = EditDistance.from(one.words());
    this.ordered = EditDistance.from(one.ordered());
  }

  /** How alike the other is; empty if it is not. */
  Optional<TitleLikeness> with(PlainTitle other) {
    if (one.isBlank() || !one.marks().equals(other.marks())) {
      return Optional.empty();
    }
    int longer = Math.max(one.words().length(), other.words().length());
    int most = TitleLikeness.mostEdits(longer);
    int asTheyStand = standing.to(other.words(), most);
    int inOrder = asTheyStand == 0 ? most + 1 : ordered.to(other.ordered(), most);
    int edits = Math.min(asTheyStand, inOrder);
    if (edits > most || (edits > 0 && isOfOthers(other))) {
      return Optional.empty();
    }
    return Optional.of(
        new TitleLikeness(1 - (double) edits / longer, edits, inOrder < asTheyStand));
  }

  /** Whether words of the one stand in the place of altogether other words of the other. */
  private boolean isOfOthers(PlainTitle other) {
    String left = without(one, other);
    String right = without(other, one);
    if (left.isEmpty() || right.isEmpty()) {
      return false;
    }
    int most = Math.max(left.length(), right.length()) / 2;
    return EditDistance.within(left, right, most) > most;
  }

  /** The words of a title that the other lacks, in their order. */
  private static String without(PlainTitle one, PlainTitle other) {
    List<String> words = new ArrayList<>(one.wordByWord());
    for (String word : other.wordByWord()) {
      boolean unused = words.remove(word);
    }
    return String.join("", words);
  }
}
