package org.ysthmos.core.step;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SequencedMap;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.compare.Operand;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Counts the days from the day in hand to another; fewer than none if that is earlier.
 *
 * @param calendar whose working days are counted; empty for all days
 */
public record DaysUntil(Operand day, Optional<String> calendar) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "days-until",
              StepKind.Family.DATE,
              "Counts the days to another day, which is written down or stands in a field `{ value:"
                  + " address }`; with a calendar, its working days after the day in hand up to the"
                  + " other. An earlier day gives a number below 0.")
          .with(Option.required("day", Option.Plain.OPERAND, "the other day"))
          .with(Option.optional("calendar", Option.Plain.CALENDAR, "whose working days"))
          .example("days-until: { day: \"2026-03-02\" }", Day.parse("2026-01-31"), "30")
          .example("days-until: { day: { value: /until } }", Day.parse("2026-12-31"), "-7")
          .example(
              "days-until: { day: { value: /until }, calendar: office }",
              Day.parse("2026-11-27"),
              "19")
          .reads(
              options ->
                  new DaysUntil(
                      options.operand("day"),
                      options.has("calendar")
                          ? Optional.of(options.text("calendar"))
                          : Optional.empty()));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("day", day.toDocument());
    calendar.ifPresent(id -> options.put("calendar", id));
    return options;
  }

  @Override
  public String sentence() {
    return calendar
        .map(id -> "working days (%s) until %s".formatted(id, day.sentence()))
        .orElseGet(() -> "days until " + day.sentence());
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.DAY),
        in,
        "a day",
        in.equals(ValueType.MOMENT)
            ? "a moment is a day only in a zone (day-in: Europe/Lisbon)"
            : "read it as a day first (read-day)");
    calendar.ifPresent(scope::calendar);
    Operand.Compiled other = day.compile(ValueType.DAY, scope);
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> {
          Computed until = other.read(reading);
          if (until instanceof Problem problem) {
            return problem;
          }
          Value end = Warned.valueOf(until);
          return end == Nothing.NOTHING
              ? end
              : count(((Day) value).date(), ((Day) end).date(), reading);
        });
  }

  private Computed count(LocalDate from, LocalDate to, Reading reading) {
    if (calendar.isEmpty()) {
      return Decimal.of(ChronoUnit.DAYS.between(from, to));
    }
    Optional<WorkingCalendar> known = reading.calendar(calendar.get());
    if (known.isEmpty()) {
      return MoveWorkingDays.gone(calendar.get());
    }
    OptionalInt count = known.get().between(from, to);
    return count.isPresent()
        ? Decimal.of(count.getAsInt())
        : new Problem(
            "%s and %s lie more than %d days apart"
                .formatted(from, to, WorkingCalendar.FARTHEST_APART),
            to.toString(),
            "Correct the day at its source, then send again");
  }
}
