package org.ysthmos.core.step;

import java.time.LocalDate;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ValueType;

/** The first or the last day of a day's month. */
public record EdgeOfMonth(Edge edge) implements Step {

  /** Which end of the month. */
  public enum Edge {
    START,
    END
  }

  static final StepKind KIND =
      StepKind.of("of-month", StepKind.Family.DATE, "The first or the last day of the month.")
          .bare(Option.required("edge", Option.Words.of(Edge.class), "which end of the month"))
          .example("of-month: end", Day.parse("2024-02-10"), "2024-02-29")
          .example("of-month: start", Day.parse("2024-02-10"), "2024-02-01")
          .reads(options -> new EdgeOfMonth(options.node("edge").word(Edge.class)));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("edge", DocumentNode.wordOf(edge));
  }

  @Override
  public String sentence() {
    return edge == Edge.START ? "on the first of its month" : "on the last of its month";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.DAY), in, "a day", "read it as a day first (read-day)");
    return Compiled.of(
        ValueType.DAY,
        (value, reading) -> {
          LocalDate day = ((Day) value).date();
          return new Day(day.withDayOfMonth(edge == Edge.START ? 1 : day.lengthOfMonth()));
        });
  }
}
