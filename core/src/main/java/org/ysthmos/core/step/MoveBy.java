package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Moves a day or a moment by a number that stands in a field. A day that the month reached does not
 * have becomes the month's last, as {@link LocalDate#plusMonths} says.
 *
 * @param earlier whether the number says how many earlier
 */
public record MoveBy(Unit unit, Amount amount, boolean earlier) implements Step {

  /** What is counted. */
  public enum Unit {
    YEARS(ChronoUnit.YEARS, true),
    MONTHS(ChronoUnit.MONTHS, true),
    WEEKS(ChronoUnit.WEEKS, true),
    DAYS(ChronoUnit.DAYS, true),
    HOURS(ChronoUnit.HOURS, false),
    MINUTES(ChronoUnit.MINUTES, false);

    private final ChronoUnit unit;

    /** Whether it moves a day; the others move a moment. */
    private final boolean ofDays;

    Unit(ChronoUnit unit, boolean ofDays) {
      this.unit = unit;
      this.ofDays = ofDays;
    }

    private String word(String count) {
      String many = name().toLowerCase(Locale.ROOT);
      return count.equals("1") ? many.substring(0, many.length() - 1) : many;
    }
  }

  /** Ten thousand years of minutes are fewer. */
  private static final Amount.Range RANGE = Amount.Range.whole(-6_000_000_000L, 6_000_000_000L);

  static final StepKind KIND = kindOfStep();

  private static StepKind kindOfStep() {
    StepKind.Builder kind =
        StepKind.of(
            "move-by",
            StepKind.Family.DATE,
            "Moves a day by years, months, weeks or days, or a moment by hours or minutes; how many"
                + " stands in a field `{ value: address, otherwise: number }`, or is written down.");
    for (Unit unit : Unit.values()) {
      kind.with(
          Option.optional(
              DocumentNode.wordOf(unit),
              Option.Plain.AMOUNT,
              "how many " + DocumentNode.wordOf(unit) + " later; earlier if negative"));
    }
    return kind.with(
            Option.optional(
                "earlier", Option.Plain.FLAG, "whether the number says how many earlier"))
        .example("move-by: { days: { value: /days } }", Day.parse("2026-01-31"), "2026-03-02")
        .example("move-by: { months: 1 }", Day.parse("2024-01-31"), "2024-02-29")
        .example(
            "move-by: { days: { value: /days }, earlier: true }",
            Day.parse("2026-03-02"),
            "2026-01-31")
        .example(
            "move-by: { hours: { value: /share } }",
            Moment.parse("2026-11-30T17:00:00Z"),
            "share: “1.5” is no whole number")
        .example(
            "move-by: { hours: { value: /blank, otherwise: 24 } }",
            Moment.parse("2026-11-30T17:00:00Z"),
            "2026-12-01T17:00:00Z")
        .reads(MoveBy::read);
  }

  private static Step read(StepOptions options) {
    List<Unit> given =
        Arrays.stream(Unit.values()).filter(u -> options.has(DocumentNode.wordOf(u))).toList();
    if (given.size() != 1) {
      throw options.refuse("write one of years, months, weeks, days, hours or minutes");
    }
    return new MoveBy(
        given.getFirst(),
        Amount.read(options.node(DocumentNode.wordOf(given.getFirst())), RANGE),
        options.flag("earlier"));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.and(
        Written.of(DocumentNode.wordOf(unit), amount.toDocument()), "earlier", earlier, false);
  }

  @Override
  public String sentence() {
    String count = amount.sentence();
    return "moved %s %s %s"
        .formatted(count, unit.word(count), earlier != amount.isNegative() ? "earlier" : "later");
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType needed = unit.ofDays ? ValueType.DAY : ValueType.MOMENT;
    Step.needs(in.equals(needed), in, "a " + needed, remedy(in));
    Amount.Compiled by = amount.compile(RANGE, scope);
    return Compiled.of(
        needed,
        (value, reading) -> {
          Computed number = by.read(reading);
          return number instanceof Decimal count
              ? moved(value, count.number().longValueExact())
              : number;
        });
  }

  private String remedy(ValueType in) {
    if (in.equals(ValueType.MOMENT)) {
      return "a moment is moved by hours, or as a day of a zone (day-in)";
    }
    return in.equals(ValueType.DAY)
        ? "a day is moved by days; make a moment of it first (at)"
        : "read it as one first (" + (unit.ofDays ? "read-day" : "read-moment") + ")";
  }

  private Computed moved(Value value, long count) {
    long later = earlier ? -count : count;
    try {
      return value instanceof Moment moment
          ? Moment.checked(moment.instant().plus(later, unit.unit))
          : Day.checked(((Day) value).date().plus(later, unit.unit));
    } catch (DateTimeException | ArithmeticException tooFar) {
      return Day.outside(value.display());
    }
  }
}
