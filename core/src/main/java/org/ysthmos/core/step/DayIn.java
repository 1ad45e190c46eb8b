package org.ysthmos.core.step;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.ValueType;

/** The calendar day that a moment falls on in a stated zone; the only way from moment to day. */
public record DayIn(ZoneId zone) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "day-in",
              StepKind.Family.DATE,
              "The calendar day that a moment falls on in a stated zone.")
          .bare(Option.required("zone", Option.Plain.ZONE, "where the calendar hangs"))
          .example("day-in: Pacific/Auckland", Moment.parse("2026-11-30T17:00:00Z"), "2026-12-01")
          .example("day-in: America/Halifax", Moment.parse("2026-12-01T03:00:00Z"), "2026-11-30")
          .reads(options -> new DayIn(options.zone("zone")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("zone", zone.getId());
  }

  @Override
  public String sentence() {
    return "the day in " + AtTime.placeName(zone);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.MOMENT), in, "a moment", "it is a day already, or read it first");
    return Compiled.of(
        ValueType.DAY,
        (value, reading) -> Day.checked(LocalDate.ofInstant(((Moment) value).instant(), zone)));
  }
}
