package org.ysthmos.core.likeness;

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
    return new TitleComparison(PlainTitle.of(one)).with(PlainTitle.of(other));
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
