package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/**
 * Writes a number as a text, with the signs of a language.
 *
 * @param places how many places are written; empty for as many as the number has
 * @param grouped whether thousands are set off
 */
public record WriteNumber(OptionalInt places, boolean grouped, Locale locale) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "write-number",
              StepKind.Family.NUMBER,
              "Writes a number as a text, with the decimal and grouping signs of a language.")
          .with(
              Option.optional(
                  "places",
                  Option.Plain.WHOLE_NUMBER,
                  "how many places are written, rounded half up; as many as there are if not said"))
          .with(Option.optional("grouped", Option.Plain.FLAG, "thousands are set off"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose signs; English if not said"))
          .example(
              "write-number: { places: 2, grouped: true, locale: pt-PT }",
              Decimal.parse("12345.5"),
              "12\u00a0345,50")
          .example("write-number", Decimal.parse("7.25"), "7.25")
          .reads(
              options ->
                  new WriteNumber(
                      options.has("places")
                          ? OptionalInt.of(options.whole("places", 0, 50))
                          : OptionalInt.empty(),
                      options.flag("grouped"),
                      options.locale()));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    places.ifPresent(number -> options.put("places", number));
    Written.and(options, "grouped", grouped, false);
    return Written.and(options, "locale", locale.toLanguageTag(), "en");
  }

  @Override
  public String sentence() {
    return "written as a text in "
        + locale.getDisplayName(Locale.ENGLISH)
        + (places.isPresent() ? " with " + places.getAsInt() + " places" : "");
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.NUMBER), in, "a number", "read it as a number first (read-number)");
    DecimalFormatSymbols symbols = DecimalFormatSymbols.getInstance(locale);
    return Compiled.of(
        ValueType.TEXT, (value, reading) -> Text.of(write(((Decimal) value).number(), symbols)));
  }

  private String write(BigDecimal number, DecimalFormatSymbols symbols) {
    // DecimalFormat keeps state while it writes, so each call has its own.
    DecimalFormat format = new DecimalFormat(grouped ? "#,##0" : "0", symbols);
    int scale = places.orElse(Math.max(0, number.scale()));
    format.setMinimumFractionDigits(scale);
    format.setMaximumFractionDigits(scale);
    format.setRoundingMode(RoundingMode.HALF_UP);
    return format.format(number);
  }
}
