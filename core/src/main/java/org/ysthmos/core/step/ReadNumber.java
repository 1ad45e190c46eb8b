package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.text.ParsePosition;
import java.util.Locale;
import org.ysthmos.core.document.DocumentNode;
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
      new StepKind(
          "read-number",
          "Reads a text as an exact number, with the decimal sign of a language.",
          "read-number: { locale: pt }",
          ReadNumber::read);

  private static Step read(DocumentNode node) {
    if (node.isText()) {
      return new ReadNumber(Locale.ENGLISH);
    }
    node.only("locale");
    return new ReadNumber(Locale.forLanguageTag(node.need("locale").text()));
  }

  @Override
  public String sentence() {
    return locale.equals(Locale.ENGLISH)
        ? "read as a number"
        : "read as a number written in " + locale.getDisplayName(Locale.ENGLISH);
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.TEXT, in, ValueType.NUMBER, "it is read from a text");
  }

  @Override
  public Function compile() {
    DecimalFormatSymbols symbols = DecimalFormatSymbols.getInstance(locale);
    return in -> {
      String text = in.display().strip();
      return plain(text) ? Decimal.of(Long.parseLong(text)) : grouped(text, symbols);
    };
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

  private Computed grouped(String text, DecimalFormatSymbols symbols) {
    // DecimalFormat keeps state while it reads, so each call has its own.
    DecimalFormat format = new DecimalFormat("#,##0.#", symbols);
    format.setParseBigDecimal(true);
    ParsePosition at = new ParsePosition(0);
    Number read = format.parse(text, at);
    if (read instanceof BigDecimal number && at.getIndex() == text.length()) {
      return new Decimal(number);
    }
    return new Problem(
        "“" + text + "” is no number",
        text,
        "Correct the number at its source, or read it another way, then send again");
  }
}
