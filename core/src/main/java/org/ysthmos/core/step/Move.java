package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.ValueType;

/**
 * Moves a day by a calendar period, or a moment by an exact span of time. A day that the month
 * reached does not have becomes the month's last (31 January moved one month is 28 or 29 February),
 * as {@link LocalDate#plus} says.
 *
 * @param period zero where a span is stated
 * @param span zero where a period is stated
 */
public record Move(Period period, Duration span) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "move",
              StepKind.Family.DATE,
              "Moves a day by a calendar period (P7D, P2W, P1M), or a moment by an exact span"
                  + " (PT36H); a minus sign moves it earlier.")
          .bare(Option.required("by", Option.Plain.PERIOD, "how far, as ISO 8601 writes it"))
          .example("move: P7D", Day.parse("2026-11-23"), "2026-11-30")
          .example("move: P1M", Day.parse("2024-01-31"), "2024-02-29")
          .example("move: -PT90M", Moment.parse("2026-11-30T17:00:00Z"), "2026-11-30T15:30:00Z")
          .reads(Move::read);

  private static Step read(StepOptions options) {
    String text = options.text("by");
    try {
      return text.contains("T")
          ? new Move(Period.ZERO, Duration.parse(text))
          : new Move(Period.parse(text), Duration.ZERO);
    } catch (DateTimeParseException e) {
      throw options
          .node("by")
          .refuse("“" + text + "” is no period; write P7D, P2W, P1M, -P10D or PT36H");
    }
  }

  public static Move by(Period period) {
    return new Move(period, Duration.ZERO);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("by", span.isZero() ? period.toString() : span.toString());
  }

  @Override
  public String sentence() {
    boolean earlier = period.isNegative() || span.isNegative();
    Period shown = period.isNegative() ? period.negated() : period;
    Duration time = span.abs();
    List<String> parts = new ArrayList<>();
    count(parts, shown.getYears(), "year");
    count(parts, shown.getMonths(), "month");
    count(parts, shown.getDays(), "day");
    count(parts, time.toHours(), "hour");
    count(parts, time.toMinutesPart(), "minute");
    count(parts, time.toSecondsPart(), "second");
    return parts.isEmpty()
        ? "not moved"
        : "moved " + String.join(" and ", parts) + (earlier ? " earlier" : " later");
  }

  private static void count(List<String> parts, long count, String unit) {
    if (count != 0) {
      parts.add(count + " " + unit + (count == 1 ? "" : "s"));
    }
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    if (!span.isZero()) {
      Step.needs(
          in.equals(ValueType.MOMENT),
          in,
          "a moment",
          "hours move a moment; make one of the day first (at), or move it by days (P1D)");
      return Compiled.of(ValueType.MOMENT, (value, reading) -> moved(((Moment) value).instant()));
    }
    Step.needs(
        in.equals(ValueType.DAY),
        in,
        "a day",
        in.equals(ValueType.MOMENT)
            ? "a moment is moved by hours (PT24H), or as a day of a zone (day-in)"
            : "read it as a day first (read-day)");
    return Compiled.of(ValueType.DAY, (value, reading) -> moved(((Day) value).date()));
  }

  /** The day so far later, or why there is none. */
  public Computed moved(LocalDate day) {
    try {
      return Day.checked(day.plus(period));
    } catch (DateTimeException | ArithmeticException tooFar) {
      return Day.outside(day.toString());
    }
  }

  private Computed moved(Instant moment) {
    try {
      return Moment.checked(moment.plus(span));
    } catch (DateTimeException | ArithmeticException tooFar) {
      return Day.outside(moment.toString());
    }
  }
}
