package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.NumberText;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Reads a text as an exact decimal number, the whole text or not at all.
 *
 * @param locale whose decimal and grouping signs are read
 */
public record ReadNumber(Locale locale) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "read-number",
              StepKind.Family.NUMBER,
              "Reads a text as an exact number, with the decimal and grouping signs of a language.")
          .bare(
              Option.optional(
                  "locale", Option.Plain.LOCALE, "whose signs are read; English if not said"))
          .example("read-number", "1,234.50", "1234.5")
          .example("read-number: pt", "1.234,5", "1234.5")
          .example("read-number", "12,5", "“12,5” is no number as written in English")
          .reads(options -> new ReadNumber(options.locale()));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(Written.nothing(), "locale", locale.toLanguageTag(), "en");
  }

  @Override
  public String sentence() {
    return locale.equals(Locale.ENGLISH)
        ? "read as a number"
        : "read as a number written in " + locale.getDisplayName(Locale.ENGLISH);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.TEXT), in, "a text", "a number is read from a text");
    NumberText numbers = NumberText.of(locale);
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> {
          String text = WhiteSpace.strip(value.display());
          return plain(text) ? Decimal.of(Long.parseLong(text)) : written(text, numbers);
        });
  }

  /** Digits only, which read the same in every language; the common case, and fast. */
  private static boolean plain(String text) {
    if (text.isEmpty() || text.length() > 18) {
      return false;
    }
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c < '0' || c > '9') {
        return false;
      }
    }
    return true;
  }

  private Computed written(String text, NumberText numbers) {
    Optional<BigDecimal> number =
        text.length() > 2 * Decimal.MOST_DIGITS ? Optional.empty() : numbers.read(text);
    return number.isPresent()
        ? Decimal.checked(number.get())
        : new Problem(
            "“%s” is no number as written in %s"
                .formatted(text, locale.getDisplayLanguage(Locale.ENGLISH)),
            text,
            "Correct the number at its source, or read it in another language, then send again");
  }
}
