package org.ysthmos.core.likeness;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A title as it is compared: without case, accents, punctuation and doubled spaces.
 *
 * @param words as they stand in the title
 * @param ordered the same words in the order of the alphabet
 * @param numbers the words that hold digits, in order
 */
record PlainTitle(String words, String ordered, List<String> numbers) {

  /** Of a longer title only so much is compared, in characters. */
  private static final int LONGEST = 200;

  private static final Pattern MARKS = Pattern.compile("\\p{M}+");
  private static final Pattern NO_WORD = Pattern.compile("[^\\p{L}\\p{N}]+");

  static PlainTitle of(String title) {
    String begun = title.length() > LONGEST ? title.substring(0, LONGEST) : title;
    String bare = MARKS.matcher(Normalizer.normalize(begun, Normalizer.Form.NFKD)).replaceAll("");
    String words = NO_WORD.matcher(bare.toLowerCase(Locale.ROOT)).replaceAll(" ").strip();
    List<String> sorted = new ArrayList<>(List.of(words.split(" ")));
    sorted.sort(null);
    return new PlainTitle(
        words,
        String.join(" ", sorted),
        sorted.stream().filter(word -> word.chars().anyMatch(Character::isDigit)).toList());
  }

  /** Whether there is anything to compare. */
  boolean isBlank() {
    return words.isEmpty();
  }
}
