package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.util.Locale;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Reads a text as a day. Upper and lower case are alike; a day that no calendar has, such as 30
 * February, is a problem and never moved.
 *
 * @param pattern a {@link DateTimeFormatter} pattern, for example {@code d MMMM uuuu}
 * @param locale whose names of months and weekdays are read
 */
public record ReadDay(String pattern, Locale locale) implements Step {

  static final StepKind KIND =
      new StepKind(
          "read-day",
          "Reads a text as a calendar day by a pattern, with the month names of a language.",
          "read-day: { pattern: d MMMM uuuu, locale: en }",
          ReadDay::read);

  private static Step read(DocumentNode node) {
    node.only("pattern", "locale");
    DocumentNode pattern = node.need("pattern");
    String tag = node.get("locale").map(DocumentNode::text).orElse("en");
    try {
      ReadDay step = new ReadDay(pattern.text(), Locale.forLanguageTag(tag));
      if (!canDate(step.formatter())) {
        throw pattern.refuse(
            "“" + pattern.text() + "” does not say year, month and day; for example d MMMM uuuu");
      }
      return step;
    } catch (IllegalArgumentException e) {
      throw pattern.refuse("“" + pattern.text() + "” is no date pattern: " + e.getMessage());
    }
  }

  private static boolean canDate(DateTimeFormatter formatter) {
    LocalDate probe = LocalDate.of(2024, 2, 29);
    try {
      return LocalDate.parse(formatter.format(probe), formatter).equals(probe);
    } catch (DateTimeException incomplete) {
      return false;
    }
  }

  private DateTimeFormatter formatter() {
    return new DateTimeFormatterBuilder()
        .parseCaseInsensitive()
        .appendPattern(pattern)
        .toFormatter(locale)
        .withResolverStyle(ResolverStyle.STRICT);
  }

  @Override
  public String sentence() {
    return "read as a day written “" + pattern + "” in " + locale.getDisplayName(Locale.ENGLISH);
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.TEXT, in, ValueType.DAY, "a day is read from a text");
  }

  @Override
  public Function compile() {
    DateTimeFormatter formatter = formatter();
    return in -> {
      String text = in.display().strip();
      try {
        return new Day(LocalDate.parse(text, formatter));
      } catch (DateTimeParseException notThisWay) {
        return new Problem(
            "“%s” is no day written “%s” in %s"
                .formatted(text, pattern, locale.getDisplayName(Locale.ENGLISH)),
            text,
            "Correct the date at its source, or change how the bridge reads the day, then send"
                + " again");
      }
    };
  }
}
