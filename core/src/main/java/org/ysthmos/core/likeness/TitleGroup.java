package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntConsumer;
import org.jspecify.annotations.Nullable;

/**
 * Titles that name the same numbers and mail addresses, as no others can be alike. Few are given
 * one and all; of many those that can be alike, by the pieces that they share.
 */
final class TitleGroup {

  private static final int FEW = 100;

  /** By which titles are found as they stand, and with their words in order. */
  private record Pieces(GramIndex standing, GramIndex ordered) {

    void add(PlainTitle title) {
      standing.add(title.words());
      ordered.add(title.ordered());
    }
  }

  private final List<Integer> numbers = new ArrayList<>();
  private final List<PlainTitle> titles = new ArrayList<>();
  private @Nullable Pieces pieces;

  /**
   * @param number by which it is found
   */
  void add(int number, PlainTitle title) {
    numbers.add(number);
    titles.add(title);
    if (pieces != null) {
      pieces.add(title);
    } else if (titles.size() > FEW) {
      Pieces begun = new Pieces(new GramIndex(), new GramIndex());
      titles.forEach(begun::add);
      pieces = begun;
    }
  }

  /** Gives the numbers of the titles that may be alike, among them all that are, each once. */
  void candidates(PlainTitle title, IntConsumer found) {
    Pieces by = pieces;
    if (by == null) {
      numbers.forEach(found::accept);
      return;
    }
    BitSet seen = new BitSet(numbers.size());
    IntConsumer once =
        place -> {
          if (!seen.get(place)) {
            seen.set(place);
            found.accept(numbers.get(place));
          }
        };
    by.standing().candidates(title.words(), once);
    by.ordered().candidates(title.ordered(), once);
  }
}
