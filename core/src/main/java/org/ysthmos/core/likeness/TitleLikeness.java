package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How alike two titles are: one less the share of characters that would have to be changed. They
 * are compared as they stand and with their words in the order of the alphabet, and the better
 * counts. Titles whose numbers or mail addresses differ are of different things, however alike they
 * read: bed 12 and bed 13 differ by one character. So are titles in which words stand in the place
 * of altogether other words, as they come of rules that put a place before what is the matter there
 * (both common practice, no source).
 *
 * @param score from {@link #LEAST} to 1
 * @param edits how many characters differ
 * @param otherOrder whether they are this alike only with their words in another order
 */
public record TitleLikeness(double score, int edits, boolean otherOrder) {

  /** From where on two titles are told as alike. Common practice, no source. */
  public static final double LEAST = 0.85;

  /** How much may differ of titles of which the longer has so many characters. */
  static int mostEdits(int longer) {
    return (int) Math.floor((1 - LEAST) * longer + 1e-9);
  }

  /** How alike two titles are; empty if they are not. */
  public static Optional<TitleLikeness> of(String one, String other) {
    return of(PlainTitle.of(one), PlainTitle.of(other));
  }

  static Optional<TitleLikeness> of(PlainTitle one, PlainTitle other) {
    if (one.isBlank() || !one.marks().equals(other.marks())) {
      return Optional.empty();
    }
    Optional<TitleLikeness> standing = compared(one.words(), other.words(), false);
    if (standing.filter(likeness -> likeness.edits() == 0).isPresent()) {
      return standing;
    }
    Optional<TitleLikeness> ordered = compared(one.ordered(), other.ordered(), true);
    if (standing.or(() -> ordered).isEmpty() || isOfOthers(one, other)) {
      return Optional.empty();
    }
    return ordered
        .filter(better -> standing.isEmpty() || better.score() > standing.get().score())
        .or(() -> standing);
  }

  /** Whether words of the one stand in the place of altogether other words of the other. */
  private static boolean isOfOthers(PlainTitle one, PlainTitle other) {
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

  private static Optional<TitleLikeness> compared(String one, String other, boolean otherOrder) {
    int longer = Math.max(one.length(), other.length());
    int most = mostEdits(longer);
    int edits = EditDistance.within(one, other, most);
    return edits > most
        ? Optional.empty()
        : Optional.of(new TitleLikeness(1 - (double) edits / longer, edits, otherOrder));
  }

  /** As people read it, for example {@code 3 characters of the title differ}. */
  public String words() {
    String order = otherOrder ? ", its words in another order" : "";
    return switch (edits) {
      case 0 -> "The titles are the same" + order;
      case 1 -> "One character of the title differs" + order;
      default -> "%d characters of the title differ%s".formatted(edits, order);
    };
  }
}
