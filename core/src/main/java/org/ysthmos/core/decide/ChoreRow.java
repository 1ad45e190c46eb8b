package org.ysthmos.core.decide;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.ZoneId;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.CompiledChores;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreWords;
import org.ysthmos.core.chore.ChoreWords.Counts;
import org.ysthmos.core.chore.Lead;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;
import org.ysthmos.core.recurrence.RuleSentence;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** Reads from one row when it comes round. What is wrong with the row is with the notes then. */
final class ChoreRow {

  /** A Monday from which rules count that need no start. */
  private static final LocalDate ANY_START = LocalDate.of(2001, Month.JANUARY, 1);

  private static final RecurrenceRule EVERY_DAY = RecurrenceRule.parse("FREQ=DAILY");

  /** What stands in the row cannot be used; why is with the notes. */
  private static final class Unusable extends RuntimeException {
    private final Failure failure;

    Unusable(Failure failure) {
      super(failure.message());
      this.failure = failure;
    }
  }

  private final CompiledChores chores;
  private final Reading reading;
  private final DecisionNotes notes;

  ChoreRow(CompiledChores chores, Reading reading, DecisionNotes notes) {
    this.chores = chores;
    this.reading = reading;
    this.notes = notes;
  }

  /** It rests where the row cannot be used. */
  ChoreLook look() {
    try {
      return read();
    } catch (Unusable unusable) {
      notes.fail(unusable.failure);
      return new ChoreLook.Rests(unusable.failure.message());
    }
  }

  private ChoreLook read() {
    Optional<ChoreWords> words = text(chores.every(), "every", ChoreWords::read);
    if (words.isEmpty()) {
      return new ChoreLook.Rests("its row does not say how often it comes round");
    }
    ZoneId zone =
        text(chores.zone(), "zone", ChoreRow::zone)
            .orElseThrow(
                () -> unusable(chores.zone(), "zone", "", "no zone is given", "Fill it in"));
    ChoreWords said = words.get();
    LocalTime at =
        said.said()
            .at()
            .or(() -> chores.at().flatMap(one -> text(one, "at", ChoreRow::time)))
            .orElse(LocalTime.MIDNIGHT);
    Optional<LocalDateTime> start =
        chores.start().flatMap(one -> day(one, "start", zone)).map(day -> day.atTime(at));
    Lead lead = chores.lead().flatMap(one -> text(one, "lead", Lead::read)).orElse(Lead.NONE);
    needCalendar(lead.working(), chores.lead(), "lead");
    Timing timing = new Timing(said, zone, at, start, offDays(said), lead);
    return said.counts() == Counts.FROM_START ? always(timing) : afterDone(timing);
  }

  /** What a row says, one by one. */
  private record Timing(
      ChoreWords words,
      ZoneId zone,
      LocalTime at,
      Optional<LocalDateTime> start,
      OffDays offDays,
      Lead lead) {

    RecurrenceRule rule() {
      return words.said().rule();
    }

    Recurrence plain(LocalDateTime from) {
      return Recurrence.of(rule(), zone, from);
    }
  }

  private OffDays offDays(ChoreWords words) {
    OffDays said = words.said().offDays();
    needCalendar(said != OffDays.KEEP, Optional.of(chores.every()), "every");
    return said == OffDays.KEEP ? chores.rules().offDays() : said;
  }

  private void needCalendar(boolean working, Optional<CompiledValue> value, String key) {
    if (working && chores.calendar().isEmpty()) {
      throw unusable(
          value.orElseThrow(),
          key,
          "",
          "it speaks of working days, and the bridge names no calendar that says which they are",
          "Name a calendar in the bridge");
    }
  }

  private ChoreLook always(Timing timing) {
    Recurrence plain = timing.plain(start(timing));
    Recurrence recurrence =
        kept(Optional.of(timing.rule()), plain.start(), new TreeSet<>(), timing);
    OffDays own = timing.words().said().offDays();
    String words =
        RuleSentence.of(chores.rules().calendar().map(id -> plain.with(own, id)).orElse(plain));
    return new ChoreLook.Comes(new Chore(recurrence, timing.lead(), false, words));
  }

  private LocalDateTime start(Timing timing) {
    if (timing.start().isEmpty() && timing.rule().needsStart()) {
      throw unusable(
          chores.every(),
          "every",
          timing.rule().toString(),
          "from when that counts is not said",
          chores.start().isPresent()
              ? "Fill in the day from which it counts"
              : "Say a day of the week or of the month, or let the bridge say where the first day stands (start)");
    }
    return timing.start().orElseGet(() -> ANY_START.atTime(timing.at()));
  }

  private ChoreLook afterDone(Timing timing) {
    CompiledValue where =
        chores
            .done()
            .orElseThrow(
                () ->
                    unusable(
                        chores.every(),
                        "every",
                        "",
                        "it counts from when it was done, and the bridge does not say where that stands",
                        "Let the bridge say where the day stands on which it was done (done)"));
    Optional<LocalDate> done = day(where, "done", timing.zone());
    if (done.isEmpty() && timing.start().isEmpty()) {
      return new ChoreLook.Rests("it was never done, and nothing says when it is to be done first");
    }
    boolean span = timing.words().counts() == Counts.FROM_DONE;
    Optional<LocalDateTime> once =
        done.isEmpty()
            ? first(timing, span)
            : span ? Optional.of(later(timing, done.get())) : next(timing, done.get());
    if (once.isEmpty()) {
      return new ChoreLook.Rests("it comes round no more");
    }
    SortedSet<LocalDateTime> also = new TreeSet<>();
    also.add(once.get());
    Recurrence recurrence = kept(Optional.empty(), once.get(), also, timing);
    return new ChoreLook.Comes(new Chore(recurrence, timing.lead(), true, words(timing, span)));
  }

  private static Optional<LocalDateTime> first(Timing timing, boolean span) {
    LocalDateTime start = timing.start().orElseThrow();
    return span ? Optional.of(start) : after(timing, start, start.minusNanos(1));
  }

  /** At the rule's next time on a later day. */
  private Optional<LocalDateTime> next(Timing timing, LocalDate done) {
    return after(timing, start(timing), done.plusDays(1).atStartOfDay().minusNanos(1));
  }

  private static Optional<LocalDateTime> after(
      Timing timing, LocalDateTime start, LocalDateTime after) {
    return new Occurrences(timing.plain(start), Optional.empty())
        .next(after.atZone(timing.zone()).toInstant())
        .map(Occurrence::said);
  }

  private static LocalDateTime later(Timing timing, LocalDate done) {
    int many = timing.rule().interval();
    LocalDate day =
        switch (timing.rule().frequency()) {
          case WEEKLY -> done.plusWeeks(many);
          case MONTHLY -> done.plusMonths(many);
          case YEARLY -> done.plusYears(many);
          default -> done.plusDays(many);
        };
    return day.atTime(timing.at());
  }

  private static String words(Timing timing, boolean span) {
    LocalDateTime start = ANY_START.atTime(timing.at());
    if (!span) {
      return RuleSentence.of(timing.plain(start)) + ", once it was done";
    }
    String unit =
        switch (timing.rule().frequency()) {
          case WEEKLY -> "week";
          case MONTHLY -> "month";
          case YEARLY -> "year";
          default -> "day";
        };
    int many = timing.rule().interval();
    String after = "%d %s%s after it was done".formatted(many, unit, many == 1 ? "" : "s");
    return RuleSentence.of(Recurrence.of(EVERY_DAY, timing.zone(), start))
        .replaceFirst("every day", after);
  }

  private Recurrence kept(
      Optional<RecurrenceRule> rule,
      LocalDateTime start,
      SortedSet<LocalDateTime> also,
      Timing timing) {
    return new Recurrence(
        rule,
        timing.zone(),
        start,
        Optional.empty(),
        new TreeSet<>(),
        also,
        timing.offDays(),
        chores.rules().calendar());
  }

  private Optional<LocalDate> day(CompiledValue from, String key, ZoneId zone) {
    return switch (value(from, key)) {
      case Day day -> Optional.of(day.date());
      case Moment moment -> Optional.of(moment.instant().atZone(zone).toLocalDate());
      case null, default -> Optional.empty();
    };
  }

  private <T> Optional<T> text(CompiledValue from, String key, Function<String, T> read) {
    Value value = value(from, key);
    if (value == null) {
      return Optional.empty();
    }
    String text = value.display();
    try {
      return Optional.of(read.apply(text));
    } catch (IllegalArgumentException e) {
      throw unusable(from, key, text, String.valueOf(e.getMessage()), "Correct it in the row");
    }
  }

  /** What a rule gives; null if that is nothing, or nothing stands in the cells that it reads. */
  private @Nullable Value value(CompiledValue from, String key) {
    if (from.readsNothing(reading)) {
      return null;
    }
    Computed computed = from.compute(reading, notes, null);
    return switch (computed) {
      case Problem problem ->
          throw unusable(from, key, problem.found(), problem.message(), problem.remedy());
      case Warned warned -> warned.value();
      case Value value when Operator.isBlank(value) -> null;
      case Value value -> value;
    };
  }

  private static Unusable unusable(
      CompiledValue from, String key, String found, String why, String remedy) {
    String name = from.reads().stream().findFirst().map(field -> field.shape().name()).orElse(key);
    return new Unusable(
        Failure.of(FailureKind.MAPPING_ERROR, name + ": " + why)
            .withField(name, found)
            .withRemedy(remedy));
  }

  private static ZoneId zone(String text) {
    try {
      return ZoneId.of(text.strip());
    } catch (DateTimeException e) {
      throw new IllegalArgumentException(
          "“%s” is no zone; write one such as Europe/Lisbon".formatted(text), e);
    }
  }

  private static LocalTime time(String text) {
    try {
      return LocalTime.parse(text.strip());
    } catch (DateTimeException e) {
      throw new IllegalArgumentException(
          "“%s” is no time of day; write one such as 06:00".formatted(text), e);
    }
  }
}
