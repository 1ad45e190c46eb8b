package org.ysthmos.core.suggest;

import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.As;
import org.ysthmos.core.step.AtTime;
import org.ysthmos.core.step.DayIn;
import org.ysthmos.core.step.InList;
import org.ysthmos.core.step.ReadDay;
import org.ysthmos.core.step.ReadMoment;
import org.ysthmos.core.step.ReadNumber;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.value.ValueType;

/** The chains of steps that may make a value of one type into what a target field takes. */
final class Conversions {

  /** When a day ends, where the target wants a moment: a person changes it if another is meant. */
  static final LocalTime END_OF_WORK = LocalTime.of(17, 0);

  /** How people write days, English names of months first read. */
  private static final List<String> DAY_PATTERNS =
      List.of(
          "iso",
          "d MMMM uuuu",
          "d MMM uuuu",
          "MMMM d, uuuu",
          "d/M/uuuu",
          "M/d/uuuu",
          "d.M.uuuu",
          "d-M-uuuu",
          "uuuu/M/d");

  private Conversions() {}

  /**
   * The chains to try, the plainest first; none if the types have nothing to do with each other.
   */
  static List<List<Step>> of(FieldShape source, FieldShape target) {
    if (target.type().isList() && !source.type().isList()) {
      FieldShape item =
          FieldShape.of(target.key(), target.name(), target.type().element().orElseThrow())
              .withNames(target.names())
              .withShownIn(target.shownIn());
      return of(source, item).stream().map(steps -> and(steps, new InList())).toList();
    }
    List<List<Step>> chains = new ArrayList<>();
    if (source.type().equals(target.type())) {
      chains.add(List.of());
      return chains;
    }
    if (source.type().isList() || target.type().isList()) {
      return chains;
    }
    switch (target.type().kind()) {
      case NUMBER -> fromText(source, Stream.of(new ReadNumber(Locale.ENGLISH)), chains);
      case DAY -> {
        fromText(source, DAY_PATTERNS.stream().map(Conversions::day), chains);
        if (source.type().equals(ValueType.MOMENT)) {
          source.shownIn().ifPresent(zone -> chains.add(List.of(new DayIn(zone))));
        }
      }
      case MOMENT -> moments(source, target, chains);
      case CHOICE -> fromText(source, Stream.of(As.to(As.To.CHOICE)), chains);
      case PERSON -> fromText(source, Stream.of(As.to(As.To.PERSON)), chains);
      case LINK -> fromText(source, Stream.of(As.to(As.To.LINK)), chains);
      case TEXT -> chains.add(List.of(As.to(As.To.TEXT)));
      case FLAG, LIST, RECORD, NOTHING -> {}
    }
    return chains;
  }

  private static void moments(FieldShape source, FieldShape target, List<List<Step>> chains) {
    if (source.type().equals(ValueType.TEXT)) {
      chains.add(List.of(new ReadMoment(Optional.empty(), Locale.ENGLISH, ZoneOffset.UTC)));
    }
    target
        .shownIn()
        .ifPresent(
            zone -> {
              AtTime at = AtTime.of(END_OF_WORK, zone);
              if (source.type().equals(ValueType.DAY)) {
                chains.add(List.of(at));
              }
              fromText(source, DAY_PATTERNS.stream().map(Conversions::day), at, chains);
            });
  }

  private static ReadDay day(String pattern) {
    return new ReadDay(List.of(pattern), Locale.ENGLISH);
  }

  private static void fromText(
      FieldShape source, Stream<? extends Step> steps, List<List<Step>> chains) {
    if (source.type().equals(ValueType.TEXT)) {
      steps.forEach(step -> chains.add(List.of(step)));
    }
  }

  private static void fromText(
      FieldShape source, Stream<? extends Step> steps, Step then, List<List<Step>> chains) {
    if (source.type().equals(ValueType.TEXT)) {
      steps.forEach(step -> chains.add(List.of(step, then)));
    }
  }

  private static List<Step> and(List<Step> steps, Step then) {
    return Stream.concat(steps.stream(), Stream.of(then)).toList();
  }
}
