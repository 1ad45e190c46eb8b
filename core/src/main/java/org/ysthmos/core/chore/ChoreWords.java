package org.ysthmos.core.chore;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.ysthmos.core.recurrence.RuleWords;

/**
 * Reads how often a chore comes round, as it stands in its row: all that {@link RuleWords} reads,
 * and beside it what counts from when it was done, such as {@code 10 days after it was done} or
 * {@code every Monday after it was done}.
 *
 * @param said the rule; of days after it was done, how many
 */
public record ChoreWords(RuleWords.Said said, Counts counts) {

  /** From when it counts. */
  public enum Counts {
    /** As a rule does, whatever becomes of its tasks. */
    FROM_START,
    /** So long after it was done. */
    FROM_DONE,
    /** At the rule's next time after it was done. */
    NEXT_AFTER_DONE
  }

  private static final Pattern AFTER_DONE =
      Pattern.compile(
          "(.+?),? (?:after|once|since) (?:it (?:was|is) )?(?:last )?done( at \\d{1,2}:\\d{2})?",
          Pattern.CASE_INSENSITIVE);

  private static final Pattern SPAN =
      Pattern.compile("(?:(\\d{1,3}|an?|one) )?(day|week|month|year)s?");

  /**
   * @throws IllegalArgumentException if it says nothing that is known; the message says what may be
   *     written
   */
  public static ChoreWords read(String written) {
    String words = written.strip().replaceAll("\\s+", " ");
    Matcher after = AFTER_DONE.matcher(words);
    if (!after.matches()) {
      return new ChoreWords(RuleWords.read(written), Counts.FROM_START);
    }
    String at = after.group(2) == null ? "" : after.group(2);
    Matcher span = SPAN.matcher(after.group(1).toLowerCase(Locale.ROOT));
    if (span.matches()) {
      String many = span.group(1) == null || span.group(1).matches("an?|one") ? "" : span.group(1);
      String every = "every %s %s%s".formatted(many, span.group(2), at);
      return new ChoreWords(RuleWords.read(every), Counts.FROM_DONE);
    }
    RuleWords.Said said = RuleWords.read(after.group(1) + at);
    return new ChoreWords(said, said.rule().isSpan() ? Counts.FROM_DONE : Counts.NEXT_AFTER_DONE);
  }
}
