package org.ysthmos.core.step;

import java.time.Period;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ValueType;

/**
 * Moves a day by a calendar period. A day that the month reached does not have becomes the month's
 * last (31 January moved one month is 28 or 29 February), as {@link java.time.LocalDate#plus} says.
 */
public record Move(Period period) implements Step {

  static final StepKind KIND =
      new StepKind(
          "move",
          "Moves a day by a period of ISO 8601; a minus sign moves it earlier.",
          "move: P7D",
          node -> {
            try {
              return new Move(Period.parse(node.text()));
            } catch (DateTimeParseException e) {
              throw node.refuse("“" + node.text() + "” is no period; write P7D, P2W, P1M or -P10D");
            }
          });

  @Override
  public String sentence() {
    boolean earlier = period.isNegative();
    Period shown = earlier ? period.negated() : period;
    List<String> parts = new ArrayList<>();
    count(parts, shown.getYears(), "year");
    count(parts, shown.getMonths(), "month");
    count(parts, shown.getDays(), "day");
    return parts.isEmpty()
        ? "not moved"
        : "moved " + String.join(" and ", parts) + (earlier ? " earlier" : " later");
  }

  private static void count(List<String> parts, int count, String unit) {
    if (count != 0) {
      parts.add(count + " " + unit + (count == 1 ? "" : "s"));
    }
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.DAY, in, ValueType.DAY, "read it as a day first (read-day)");
  }

  @Override
  public Function compile() {
    return in -> new Day(((Day) in).date().plus(period));
  }
}
