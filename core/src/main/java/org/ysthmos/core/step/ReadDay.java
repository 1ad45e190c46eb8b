package org.ysthmos.core.step;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Reads a text as a day. Upper and lower case are alike; a day that no calendar has, such as 30
 * February, is a problem and never moved.
 *
 * @param patterns {@link java.time.format.DateTimeFormatter} patterns, or {@code iso} or {@code
 *     iso-week}; tried in order
 * @param locale whose names of months and weekdays are read
 */
public record ReadDay(List<String> patterns, Locale locale) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "read-day",
              StepKind.Family.DATE,
              "Reads a text as a calendar day by a pattern, with the names of months and weekdays"
                  + " of a language. `iso` reads 2026-11-30, `iso-week` reads 2026-W49-1.")
          .bare(
              Option.required(
                  "pattern",
                  Option.Plain.TEXTS,
                  "how the day is written; several are tried in order"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose names; English if not said"))
          .example("read-day: d MMMM uuuu", "23 November 2026", "2026-11-23")
          .example(
              "read-day: { pattern: \"EEEE d 'de' MMMM 'de' uuuu\", locale: pt }",
              "segunda-feira 23 de novembro de 2026",
              "2026-11-23")
          .example("read-day: [dd/MM/uuuu, iso]", "2026-11-23", "2026-11-23")
          .example("read-day: [dd/MM/uuuu, MM/dd/uuuu]", "03/04/2026", "2026-04-03")
          .example(
              "read-day: EEEE d MMMM uuuu",
              "Tuesday 23 November 2026",
              "“Tuesday 23 November 2026” says Tuesday, but 2026-11-23 is a Monday")
          .example("read-day: iso-week", "2026-W48-1", "2026-11-23")
          .example(
              "read-day: d MMMM uuuu",
              "30 February 2026",
              "“30 February 2026” is no day written “d MMMM uuuu” in English")
          .reads(ReadDay::read);

  public ReadDay {
    patterns = List.copyOf(patterns);
  }

  private static Step read(StepOptions options) {
    Locale locale = options.locale();
    DocumentNode pattern = options.node("pattern");
    List<String> patterns = pattern.texts();
    if (patterns.isEmpty()) {
      throw pattern.refuse("say how the day is written, for example d MMMM uuuu");
    }
    for (String one : patterns) {
      try {
        DayPattern.of(one, locale);
      } catch (IllegalArgumentException e) {
        throw pattern.refuse(String.valueOf(e.getMessage()));
      }
    }
    return new ReadDay(patterns, locale);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(
        Written.of("pattern", patterns.size() == 1 ? patterns.getFirst() : patterns),
        "locale",
        locale.toLanguageTag(),
        "en");
  }

  @Override
  public String sentence() {
    return "read as a day written " + way();
  }

  private String way() {
    return "“%s” in %s"
        .formatted(String.join("” or “", patterns), locale.getDisplayName(Locale.ENGLISH));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.TEXT),
        in,
        "a text",
        in.equals(ValueType.MOMENT)
            ? "a moment is a day only in a zone (day-in: Europe/Lisbon)"
            : "a day is read from a text");
    List<DayPattern> ways = patterns.stream().map(one -> DayPattern.of(one, locale)).toList();
    return Compiled.of(
        ValueType.DAY, (value, reading) -> day(WhiteSpace.strip(value.display()), ways));
  }

  private Computed day(String text, List<DayPattern> ways) {
    for (int i = 0; i < ways.size(); i++) {
      Optional<LocalDate> day = ways.get(i).read(text);
      if (day.isPresent()) {
        return alone(text, Day.checked(day.get()), i, ways);
      }
    }
    return new Problem(
        ways.stream()
            .flatMap(way -> way.contradiction(text, locale).stream())
            .findFirst()
            .orElse("“%s” is no day written %s".formatted(text, way())),
        text,
        "Correct the date at its source, or change how the bridge reads the day, then send"
            + " again");
  }

  /** The day that a pattern read, with a warning where a later one reads another of it. */
  private Computed alone(String text, Computed day, int pattern, List<DayPattern> ways) {
    if (!(day instanceof Day first)) {
      return day;
    }
    for (int i = pattern + 1; i < ways.size(); i++) {
      Optional<LocalDate> other = ways.get(i).read(text);
      if (other.isPresent() && !other.get().equals(first.date())) {
        return new Warned(
            first,
            "“%s” is %s as “%s” and %s as “%s”; the first is used"
                .formatted(
                    text, first.date(), patterns.get(pattern), other.get(), patterns.get(i)));
      }
    }
    return first;
  }
}
