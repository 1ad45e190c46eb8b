package org.ysthmos.core.step;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.time.temporal.TemporalAdjusters;
import java.util.Locale;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ValueType;

/**
 * The next given weekday.
 *
 * @param orSame whether a day that is this weekday already stays
 */
public record NextWeekday(DayOfWeek weekday, boolean orSame) implements Step {

  static final StepKind KIND =
      StepKind.of("next-weekday", StepKind.Family.DATE, "The next day that is the given weekday.")
          .bare(Option.required("is", Option.Words.of(DayOfWeek.class), "the weekday"))
          .with(Option.optional("or-same", Option.Plain.FLAG, "a day that is it already stays"))
          .example("next-weekday: monday", Day.parse("2026-11-30"), "2026-12-07")
          .example(
              "next-weekday: { is: monday, or-same: true }", Day.parse("2026-11-30"), "2026-11-30")
          .reads(
              options ->
                  new NextWeekday(
                      options.node("is").word(DayOfWeek.class), options.flag("or-same")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(Written.of("is", DocumentNode.wordOf(weekday)), "or-same", orSame, false);
  }

  @Override
  public String sentence() {
    String name = weekday.getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    return orSame ? "on that day if a " + name + ", else the next" : "on the next " + name;
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.equals(ValueType.DAY), in, "a day", "read it as a day first (read-day)");
    var adjuster = orSame ? TemporalAdjusters.nextOrSame(weekday) : TemporalAdjusters.next(weekday);
    return Compiled.of(
        ValueType.DAY, (value, reading) -> Day.checked(((Day) value).date().with(adjuster)));
  }
}
