package org.ysthmos.core.suggest;

import java.text.Normalizer;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * How alike two names of fields are, from 0 to 1: the greater of the share of words in common and
 * of three-letter pieces in common, each as Dice's coefficient, 2·|A∩B| / (|A|+|B|) (L. R. Dice,
 * “Measures of the amount of ecologic association between species”, Ecology 26, 1945). Case,
 * accents, and the signs between words do not count, nor where {@code camelCase} breaks.
 */
public final class NameLikeness {

  private NameLikeness() {}

  /** The likeness of two names; 0 if either has no letter and no digit. */
  public static double of(String one, String other) {
    Set<String> words = words(one);
    Set<String> others = words(other);
    if (words.isEmpty() || others.isEmpty()) {
      return 0;
    }
    Set<String> common = new LinkedHashSet<>(words);
    common.retainAll(others);
    double byWord = 2.0 * common.size() / (words.size() + others.size());
    return Math.max(byWord, dice(pieces(words), pieces(others)));
  }

  private static Set<String> words(String name) {
    String plain =
        Normalizer.normalize(name.replaceAll("(?<=\\p{Ll})(?=\\p{Lu})", " "), Normalizer.Form.NFKD)
            .replaceAll("\\p{M}", "")
            .toLowerCase(Locale.ROOT);
    Set<String> words = new LinkedHashSet<>();
    for (String word : plain.split("[^\\p{L}\\p{N}]+", -1)) {
      if (!word.isEmpty()) {
        words.add(word);
      }
    }
    return words;
  }

  private static Map<String, Integer> pieces(Set<String> words) {
    // Spaces at both ends, so that the beginning and the end of a word count.
    String padded = "  " + String.join(" ", words) + "  ";
    Map<String, Integer> pieces = new HashMap<>();
    for (int i = 0; i + 3 <= padded.length(); i++) {
      pieces.merge(padded.substring(i, i + 3), 1, Integer::sum);
    }
    return pieces;
  }

  private static double dice(Map<String, Integer> one, Map<String, Integer> other) {
    int common = 0;
    int all = 0;
    for (Map.Entry<String, Integer> piece : one.entrySet()) {
      common += Math.min(piece.getValue(), other.getOrDefault(piece.getKey(), 0));
      all += piece.getValue();
    }
    for (int times : other.values()) {
      all += times;
    }
    return 2.0 * common / all;
  }
}
