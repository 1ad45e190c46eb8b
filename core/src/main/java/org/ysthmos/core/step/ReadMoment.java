package org.ysthmos.core.step;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Reads a text as a moment: RFC 3339, which says its offset, or a pattern in a stated zone.
 *
 * @param pattern a {@link DateTimeFormatter} pattern, or {@code iso} for 2026-11-30T17:00; empty
 *     for RFC 3339
 * @param zone where the clock stood that was read; the UTC of RFC 3339 where there is no pattern
 */
public record ReadMoment(Optional<String> pattern, Locale locale, ZoneId zone) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "read-moment",
              StepKind.Family.DATE,
              "Reads a text as a moment: RFC 3339 by itself, or a pattern in a stated zone.")
          .with(
              Option.optional(
                  "pattern",
                  Option.Plain.TEXT,
                  "how day and time are written; RFC 3339 if not said"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose names; English if not said"))
          .with(Option.optional("zone", Option.Plain.ZONE, "where the clock stood; with a pattern"))
          .example("read-moment", "2026-11-30T18:00:00+01:00", "2026-11-30T17:00:00Z")
          .example(
              "read-moment: { pattern: \"d MMM uuuu, HH:mm\", zone: America/Halifax }",
              "30 Nov 2026, 13:00",
              "2026-11-30T17:00:00Z")
          .reads(ReadMoment::read);

  private static Step read(StepOptions options) {
    Locale locale = options.locale();
    if (!options.has("pattern")) {
      if (options.has("zone")) {
        throw options
            .node("zone")
            .refuse("RFC 3339 says its own offset; a zone goes with a pattern");
      }
      return new ReadMoment(Optional.empty(), locale, ZoneOffset.UTC);
    }
    if (!options.has("zone")) {
      throw options
          .node("pattern")
          .refuse("say where the clock stood, for example zone: Europe/Lisbon");
    }
    options.parsed("pattern", pattern -> DatePatterns.dayAndTime(pattern, locale));
    return new ReadMoment(Optional.of(options.text("pattern")), locale, options.zone("zone"));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    pattern.ifPresent(written -> options.put("pattern", written));
    Written.and(options, "locale", locale.toLanguageTag(), "en");
    pattern.ifPresent(written -> options.put("zone", zone.getId()));
    return options;
  }

  @Override
  public String sentence() {
    return "read as a moment " + way();
  }

  private String way() {
    return pattern
        .map(written -> "written “%s” in %s".formatted(written, AtTime.placeName(zone)))
        .orElse("written as RFC 3339");
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.TEXT), in, "a text", "a moment is read from a text");
    if (pattern.isEmpty()) {
      return Compiled.of(ValueType.MOMENT, (value, reading) -> rfc3339(value.display().strip()));
    }
    DateTimeFormatter formatter = DatePatterns.dayAndTime(pattern.get(), locale);
    return Compiled.of(
        ValueType.MOMENT,
        (value, reading) -> {
          String text = value.display().strip();
          try {
            return AtTime.at(LocalDateTime.parse(text, formatter), zone);
          } catch (DateTimeParseException notThisWay) {
            return unread(text);
          }
        });
  }

  private Computed rfc3339(String text) {
    try {
      return Moment.read(text);
    } catch (DateTimeParseException notThisWay) {
      return unread(text);
    }
  }

  private Problem unread(String text) {
    return new Problem(
        "“%s” is no moment %s".formatted(text, way()),
        text,
        "Correct it at its source, or change how the bridge reads the moment, then send again");
  }
}
