package org.ysthmos.core.step;

import java.text.BreakIterator;
import java.util.Locale;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/**
 * Changes capitals and small letters.
 *
 * @param to what they become
 * @param locale whose rules are followed; Turkish has a capital İ of i
 */
public record ChangeCase(To to, Locale locale) implements Step {

  /** What capitals and small letters become. */
  public enum To {
    UPPER("in capitals"),
    LOWER("in small letters"),
    /** The first letter a capital, the others as they are. */
    SENTENCE("starting with a capital"),
    /** The first letter of each word a capital, the others small. */
    WORDS("each word starting with a capital");

    private final String words;

    To(String words) {
      this.words = words;
    }
  }

  static final StepKind KIND =
      StepKind.of("case", StepKind.Family.TEXT, "Changes capitals and small letters.")
          .bare(Option.required("to", Option.Words.of(To.class), "what they become"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose rules; English if not said"))
          .example("case: sentence", "loose plank on the boardwalk", "Loose plank on the boardwalk")
          .example("case: { to: upper, locale: tr }", "istanbul", "İSTANBUL")
          .example("case: words", "INÊS de sequeira", "Inês De Sequeira")
          .reads(options -> new ChangeCase(options.node("to").word(To.class), options.locale()));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(
        Written.of("to", DocumentNode.wordOf(to)), "locale", locale.toLanguageTag(), "en");
  }

  @Override
  public String sentence() {
    return to.words;
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    return Compiled.of(ValueType.TEXT, (value, reading) -> Text.checked(changed(value.display())));
  }

  private String changed(String text) {
    return switch (to) {
      case UPPER -> text.toUpperCase(locale);
      case LOWER -> text.toLowerCase(locale);
      case SENTENCE -> capital(text);
      case WORDS -> words(text.toLowerCase(locale));
    };
  }

  /** The first grapheme cluster in capitals, so that a letter keeps its accents. */
  private String capital(String text) {
    int end = TextLength.CHARACTERS.cut(text, 1);
    return text.substring(0, end).toUpperCase(locale) + text.substring(end);
  }

  private String words(String text) {
    StringBuilder out = new StringBuilder(text.length());
    BreakIterator words = BreakIterator.getWordInstance(locale);
    words.setText(text);
    int start = words.first();
    for (int end = words.next(); end != BreakIterator.DONE; start = end, end = words.next()) {
      out.append(capital(text.substring(start, end)));
    }
    return out.toString();
  }
}
