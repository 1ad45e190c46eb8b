package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/**
 * Writes a day or a moment as a text.
 *
 * @param pattern a {@link DateTimeFormatter} pattern, or {@code iso} or {@code iso-week}
 * @param zone where people read it; needed for a moment, without meaning for a day
 */
public record WriteDate(String pattern, Locale locale, Optional<ZoneId> zone) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "write",
              StepKind.Family.DATE,
              "Writes a day or a moment as a text; a moment in a stated zone.")
          .bare(Option.required("pattern", Option.Plain.TEXT, "how it is written"))
          .with(Option.optional("locale", Option.Plain.LOCALE, "whose names; English if not said"))
          .with(Option.optional("zone", Option.Plain.ZONE, "where a moment is read"))
          .example("write: EEEE d MMMM", Day.parse("2026-11-30"), "Monday 30 November")
          .example(
              "write: { pattern: \"d MMM uuuu, HH:mm\", zone: Pacific/Auckland }",
              Moment.parse("2026-11-30T17:00:00Z"),
              "1 Dec 2026, 06:00")
          .reads(WriteDate::read);

  private static Step read(StepOptions options) {
    Locale locale = options.locale();
    options.parsed(
        "pattern",
        pattern -> DatePatterns.formatter(pattern, locale, DateTimeFormatter.ISO_LOCAL_DATE));
    return new WriteDate(
        options.text("pattern"),
        locale,
        options.has("zone") ? Optional.of(options.zone("zone")) : Optional.empty());
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("pattern", pattern);
    Written.and(options, "locale", locale.toLanguageTag(), "en");
    zone.ifPresent(where -> options.put("zone", where.getId()));
    return options;
  }

  @Override
  public String sentence() {
    return "written “%s”%s%s"
        .formatted(
            pattern,
            locale.equals(Locale.ENGLISH) ? "" : " in " + locale.getDisplayName(Locale.ENGLISH),
            zone.map(where -> " as seen in " + AtTime.placeName(where)).orElse(""));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    boolean isMoment = in.equals(ValueType.MOMENT);
    Step.needs(isMoment || in.equals(ValueType.DAY), in, "a day or a moment", "read it first");
    if (isMoment != zone.isPresent()) {
      throw new Misfit(
          isMoment
              ? "gets a moment, which reads differently in each zone; state one with zone"
              : "gets a day, which no zone changes; leave the zone out");
    }
    DateTimeFormatter formatter =
        DatePatterns.formatter(
            pattern,
            locale,
            isMoment ? DateTimeFormatter.ISO_OFFSET_DATE_TIME : DateTimeFormatter.ISO_LOCAL_DATE);
    probe(formatter, isMoment);
    ZoneId where = zone.orElse(ZoneOffset.UTC);
    return Compiled.of(
        ValueType.TEXT,
        (value, reading) ->
            Text.of(
                formatter.format(
                    value instanceof Moment moment
                        ? moment.instant().atZone(where)
                        : ((Day) value).date())));
  }

  /** What a pattern asks of a date that it does not have is found now, not at the first event. */
  private static void probe(DateTimeFormatter formatter, boolean isMoment) {
    LocalDate day = LocalDate.of(2024, 2, 29);
    try {
      var unused = formatter.format(isMoment ? day.atStartOfDay(ZoneOffset.UTC) : day);
    } catch (DateTimeException e) {
      throw new Misfit("cannot be written from it: " + e.getMessage());
    }
  }
}
