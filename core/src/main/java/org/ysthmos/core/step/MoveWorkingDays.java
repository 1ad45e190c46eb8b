package org.ysthmos.core.step;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/**
 * Moves a day over the working days of a calendar.
 *
 * @param days how many working days later; earlier if negative
 * @param earlier whether the number says how many earlier instead
 */
public record MoveWorkingDays(Amount days, boolean earlier, String calendar) implements Step {

  private static final Amount.Range DAYS =
      Amount.Range.whole(-WorkingCalendar.FARTHEST, WorkingCalendar.FARTHEST);

  static final StepKind KIND =
      StepKind.of(
              "move-working-days",
              StepKind.Family.DATE,
              "Moves a day over the working days of a calendar; the day itself is not counted, and"
                  + " moved by 0 it is itself or the next working day.")
          .with(
              Option.required(
                  "days",
                  Option.Plain.AMOUNT,
                  "how many working days later; earlier if negative; a number, or a field"
                      + " `{ value: address, otherwise: number }`"))
          .with(
              Option.optional(
                  "earlier", Option.Plain.FLAG, "whether the number says how many earlier"))
          .with(Option.required("calendar", Option.Plain.CALENDAR, "whose working days"))
          .example(
              "move-working-days: { days: 1, calendar: office }",
              Day.parse("2026-11-27"),
              "2026-11-30")
          .example(
              "move-working-days: { days: -2, calendar: office }",
              Day.parse("2026-12-28"),
              "2026-12-23")
          .example(
              "move-working-days: { days: { value: /days }, earlier: true, calendar: office }",
              Day.parse("2026-11-27"),
              "2026-10-16")
          .reads(
              options ->
                  new MoveWorkingDays(
                      Amount.read(options.node("days"), DAYS),
                      options.flag("earlier"),
                      options.text("calendar")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("days", days.toDocument());
    Written.and(options, "earlier", earlier, false);
    options.put("calendar", calendar);
    return options;
  }

  @Override
  public String sentence() {
    String count = days.sentence();
    return count.equals("0")
        ? "or the next working day (" + calendar + ")"
        : "moved %s working day%s %s (%s)"
            .formatted(
                count,
                count.equals("1") ? "" : "s",
                earlier != days.isNegative() ? "earlier" : "later",
                calendar);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.DAY), in, "a day", "read it as a day first (read-day)");
    scope.calendar(calendar);
    Amount.Compiled by = days.compile(DAYS, scope);
    return Compiled.of(
        ValueType.DAY,
        (value, reading) -> {
          Computed number = by.read(reading);
          if (!(number instanceof Decimal count)) {
            return number;
          }
          int later = count.number().intValueExact();
          return move(((Day) value).date(), earlier ? -later : later, List.of(calendar), reading);
        });
  }

  /**
   * The day so many working days later, or why there is none.
   *
   * @param calendars at least one; a day counts if it is a working day in each of them
   */
  public static Computed move(LocalDate from, int days, List<String> calendars, Reading reading) {
    List<WorkingCalendar> known = new ArrayList<>();
    for (String calendar : calendars) {
      Optional<WorkingCalendar> one = reading.calendar(calendar);
      if (one.isEmpty()) {
        return gone(calendar);
      }
      known.add(one.get());
    }
    Optional<LocalDate> moved = WorkingCalendar.move(known, from, days);
    return moved.isPresent() ? Day.checked(moved.get()) : none(known, from);
  }

  private static Problem none(List<WorkingCalendar> calendars, LocalDate from) {
    String names =
        calendars.stream()
            .map(calendar -> "“" + calendar.name() + "”")
            .collect(Collectors.joining(" and "));
    return new Problem(
        calendars.size() == 1
            ? "the calendar %s has no working day within ten years of %s".formatted(names, from)
            : "the calendars %s have no working day in common within ten years of %s"
                .formatted(names, from),
        from.toString(),
        "Correct the closures and the days off, then send again");
  }

  /** The problem of a calendar that was there when the rule was made, and is there no more. */
  static Problem gone(String calendar) {
    return new Problem(
        "there is no calendar “" + calendar + "” any more",
        calendar,
        "Add the calendar again, or name another in the rule, then send again");
  }
}
