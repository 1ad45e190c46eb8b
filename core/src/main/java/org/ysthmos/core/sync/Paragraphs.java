package org.ysthmos.core.sync;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Merges two versions of a text that were made apart, by paragraphs (Khanna, Kunal and Pierce, “A
 * Formal Investigation of Diff3”, 2007): where only one of them changed something, that change is
 * taken; where both changed the same place otherwise, nothing is.
 */
final class Paragraphs {

  private static final Pattern BETWEEN = Pattern.compile("\\R[ \\t]*(?:\\R[ \\t]*)+");

  /** Of longer texts a person says what they are. */
  private static final int MOST = 2_000;

  private Paragraphs() {}

  /** Empty where both changed the same place. */
  static Optional<String> merge(String base, String one, String other) {
    List<String> was = split(base);
    List<String> here = split(one);
    List<String> there = split(other);
    if (Stream.of(was, here, there).anyMatch(some -> some.size() > MOST)) {
      return Optional.empty();
    }
    int[] inOne = kept(was, here);
    int[] inOther = kept(was, there);
    List<String> merged = new ArrayList<>();
    int w = 0;
    int h = 0;
    int t = 0;
    while (w <= was.size()) {
      int stable = w;
      while (stable < was.size() && (inOne[stable] < 0 || inOther[stable] < 0)) {
        stable++;
      }
      boolean end = stable == was.size();
      int untilHere = end ? here.size() : inOne[stable];
      int untilThere = end ? there.size() : inOther[stable];
      Optional<List<String>> piece =
          either(was.subList(w, stable), here.subList(h, untilHere), there.subList(t, untilThere));
      if (piece.isEmpty()) {
        return Optional.empty();
      }
      merged.addAll(piece.get());
      if (!end) {
        merged.add(was.get(stable));
      }
      w = stable + 1;
      h = untilHere + 1;
      t = untilThere + 1;
    }
    return Optional.of(String.join("\n\n", merged));
  }

  private static List<String> split(String text) {
    return BETWEEN
        .splitAsStream(text.strip())
        .filter(paragraph -> !paragraph.isEmpty())
        .collect(Collectors.toList());
  }

  private static Optional<List<String>> either(
      List<String> was, List<String> here, List<String> there) {
    if (here.equals(was) || here.equals(there)) {
      return Optional.of(there);
    }
    return there.equals(was) ? Optional.of(here) : Optional.empty();
  }

  /** Where each paragraph is in a later version, by a longest common subsequence; -1 if nowhere. */
  private static int[] kept(List<String> was, List<String> now) {
    int[][] longest = new int[was.size() + 1][now.size() + 1];
    for (int i = was.size() - 1; i >= 0; i--) {
      for (int j = now.size() - 1; j >= 0; j--) {
        longest[i][j] =
            was.get(i).equals(now.get(j))
                ? longest[i + 1][j + 1] + 1
                : Math.max(longest[i + 1][j], longest[i][j + 1]);
      }
    }
    int[] kept = new int[was.size()];
    Arrays.fill(kept, -1);
    int i = 0;
    int j = 0;
    while (i < was.size() && j < now.size()) {
      if (was.get(i).equals(now.get(j))) {
        kept[i++] = j++;
      } else if (longest[i + 1][j] >= longest[i][j + 1]) {
        i++;
      } else {
        j++;
      }
    }
    return kept;
  }
}
