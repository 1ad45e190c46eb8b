package org.ysthmos.core.likeness;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * A title as it is compared: without case, accents, punctuation and doubled spaces.
 *
 * @param words as they stand in the title
 * @param ordered the same words in the order of the alphabet
 * @param marks what names one thing among many: words that hold digits, and mail addresses, in the
 *     order of the alphabet
 */
record PlainTitle(String words, String ordered, List<String> marks) {

  /** Of a longer title only so much is compared, in characters. */
  private static final int LONGEST = 200;

  private static final Pattern ACCENTS = Pattern.compile("\\p{M}+");
  private static final Pattern MAIL = Pattern.compile("[^\\s@]+@[\\p{L}\\p{N}.-]*[\\p{L}\\p{N}]");
  private static final Pattern NO_WORD = Pattern.compile("[^\\p{L}\\p{N}]+");

  static PlainTitle of(String title) {
    String begun = title.length() > LONGEST ? title.substring(0, LONGEST) : title;
    String bare = ACCENTS.matcher(Normalizer.normalize(begun, Normalizer.Form.NFKD)).replaceAll("");
    String small = bare.toLowerCase(Locale.ROOT);
    String words = NO_WORD.matcher(small).replaceAll(" ").strip();
    List<String> sorted = new ArrayList<>(List.of(words.split(" ")));
    sorted.sort(null);
    return new PlainTitle(
        words,
        String.join(" ", sorted),
        Stream.concat(
                sorted.stream().filter(word -> word.chars().anyMatch(Character::isDigit)),
                mails(small))
            .toList());
  }

  private static Stream<String> mails(String title) {
    return title.indexOf('@') < 0
        ? Stream.empty()
        : MAIL.matcher(title).results().map(MatchResult::group).sorted();
  }

  /** The words, as they stand in the title. */
  List<String> wordByWord() {
    return List.of(words.split(" "));
  }

  /** Whether there is anything to compare. */
  boolean isBlank() {
    return words.isEmpty();
  }
}
