package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Makes a moment of a day by a stated time in a stated zone; the only way from day to moment.
 *
 * <p>Where clocks went forward over the time, the moment is as much later as they went forward,
 * with a warning, unless that would be another day: then it is a problem, since a day is never
 * moved silently. Where clocks went back over it, the earlier of the two moments is taken, with a
 * warning.
 */
public record AtTime(TimeOfDay time, ZoneId zone) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "at",
              StepKind.Family.DATE,
              "Makes a moment of a day: the stated time in the stated zone. A time that clocks"
                  + " skipped or passed twice leaves a warning.")
          .with(
              Option.optional(
                  "time",
                  Option.Plain.TIME,
                  "the time of day, or a field that holds one as a text `{ value: address, otherwise:"
                      + " \"17:00\" }`"))
          .with(Option.optional("hour", Option.Plain.AMOUNT, "the hour instead, 0 to 23"))
          .with(
              Option.optional(
                  "minute", Option.Plain.AMOUNT, "the minute beside the hour; 0 if not said"))
          .with(Option.required("zone", Option.Plain.ZONE, "where the clock hangs"))
          .example(
              "at: { time: \"17:00\", zone: Europe/Lisbon }",
              Day.parse("2026-11-30"),
              "2026-11-30T17:00:00Z")
          .example(
              "at: { time: \"09:00\", zone: Pacific/Auckland }",
              Day.parse("2026-11-30"),
              "2026-11-29T20:00:00Z")
          .example(
              "at: { time: { value: /time }, zone: Europe/Lisbon }",
              Day.parse("2026-11-30"),
              "2026-11-30T16:30:00Z")
          .example(
              "at: { hour: { value: /hour }, minute: 15, zone: Europe/Lisbon }",
              Day.parse("2026-11-30"),
              "2026-11-30T09:15:00Z")
          .reads(AtTime::read);

  private static Step read(StepOptions options) {
    if (options.has("time") == options.has("hour")) {
      throw options.refuse("say the time of day, or its hour and minute");
    }
    if (options.has("time")) {
      if (options.has("minute")) {
        throw options.node("minute").refuse("a minute stands beside an hour");
      }
      return new AtTime(TimeOfDay.read(options.node("time")), options.zone("zone"));
    }
    Amount minute =
        options
            .get("minute")
            .map(node -> Amount.read(node, TimeOfDay.MINUTES))
            .orElse(new Amount.Fixed(BigDecimal.ZERO));
    return new AtTime(
        new TimeOfDay.OfHour(Amount.read(options.node("hour"), TimeOfDay.HOURS), minute),
        options.zone("zone"));
  }

  /** At a time that is written down. */
  public static AtTime of(LocalTime time, ZoneId zone) {
    return new AtTime(new TimeOfDay.Written(time), zone);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    time.write(options);
    options.put("zone", zone.getId());
    return options;
  }

  @Override
  public String sentence() {
    return "at " + time.sentence() + " in " + placeName(zone);
  }

  /** The last part of a zone's name, as people say it: {@code Lisbon} for {@code Europe/Lisbon}. */
  public static String placeName(ZoneId zone) {
    String id = zone.getId();
    return id.substring(id.lastIndexOf('/') + 1).replace('_', ' ');
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.DAY), in, "a day", "read it as a day first (read-day)");
    TimeOfDay.Compiled clock = time.compile(scope);
    return Compiled.of(
        ValueType.MOMENT,
        (value, reading) -> {
          TimeOfDay.Found found = clock.read(reading);
          return found.problem() != null
              ? found.problem()
              : at(((Day) value).date().atTime(Objects.requireNonNull(found.time())), zone);
        });
  }

  /** The moment of a clock's reading in a zone, with a warning where clocks changed over it. */
  static Computed at(LocalDateTime wanted, ZoneId zone) {
    List<ZoneOffset> offsets = zone.getRules().getValidOffsets(wanted);
    if (offsets.size() == 1) {
      return Moment.checked(wanted.toInstant(offsets.getFirst()));
    }
    Moment moment = Moment.of(wanted.atZone(zone).toInstant());
    LocalTime time = wanted.toLocalTime();
    LocalDate date = wanted.toLocalDate();
    if (!offsets.isEmpty()) {
      return new Warned(
          moment,
          "%s happened twice on %s in %s, clocks went back; the earlier is used"
              .formatted(time, date, placeName(zone)));
    }
    LocalDateTime shown = LocalDateTime.ofInstant(moment.instant(), zone);
    if (!shown.toLocalDate().equals(date)) {
      return new Problem(
          "%s at %s does not exist in %s: clocks skipped it".formatted(date, time, placeName(zone)),
          date.toString(),
          "State another time or zone for this field, then send again");
    }
    return new Warned(
        moment,
        "%s did not exist on %s in %s, clocks went forward; %s is used"
            .formatted(time, date, placeName(zone), shown.toLocalTime()));
  }
}
