package org.ysthmos.core.step;

import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** A time on a clock: written down, as a text in a field, or by its hour and minute. */
public sealed interface TimeOfDay {

  /** A time as it is written in the rule. */
  record Written(LocalTime time) implements TimeOfDay {}

  /**
   * A text in a field, written as 17:00 or 17:00:00.
   *
   * @param otherwise used where the field holds no such text; empty where that is a failure
   */
  record InField(Address address, Optional<LocalTime> otherwise) implements TimeOfDay {}

  /** An hour and a minute, each written down or in a field. */
  record OfHour(Amount hour, Amount minute) implements TimeOfDay {}

  /** What a time comes to: the time, or the problem that keeps it from being known. */
  record Found(@Nullable LocalTime time, @Nullable Problem problem) {
    static Found of(LocalTime time) {
      return new Found(time, null);
    }

    static Found not(Problem problem) {
      return new Found(null, problem);
    }
  }

  /** A time of day made into a function. */
  @FunctionalInterface
  interface Compiled {
    Found read(Reading reading);
  }

  /** The hours of a clock. */
  Amount.Range HOURS = Amount.Range.whole(0, 23);

  /** The minutes of an hour. */
  Amount.Range MINUTES = Amount.Range.whole(0, 59);

  /**
   * @throws org.ysthmos.core.document.DocumentException if it is no time of day
   */
  static TimeOfDay read(DocumentNode node) {
    if (!node.isGroup()) {
      return new Written(time(node));
    }
    node.only("value", "otherwise");
    return new InField(
        Address.read(node.need("value")), node.get("otherwise").map(TimeOfDay::time));
  }

  private static LocalTime time(DocumentNode node) {
    try {
      return LocalTime.parse(node.text());
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no time of day; write for example \"17:00\"");
    }
  }

  /**
   * @throws Misfit if a field holds nothing that can be a time
   */
  default Compiled compile(Scope scope) {
    return switch (this) {
      case Written written -> {
        Found time = Found.of(written.time());
        yield reading -> time;
      }
      case InField field -> {
        BoundField bound = scope.bind(field.address());
        if (!bound.shape().type().equals(ValueType.TEXT)) {
          throw new Misfit(
              "“%s” is a %s where a time as text is needed, for example 17:00"
                  .formatted(field.address(), bound.shape().type()));
        }
        yield reading -> inField(bound, field.otherwise(), reading);
      }
      case OfHour clock -> {
        Amount.Compiled hour = clock.hour().compile(HOURS, scope);
        Amount.Compiled minute = clock.minute().compile(MINUTES, scope);
        yield reading -> ofHour(hour.read(reading), minute.read(reading));
      }
    };
  }

  private static Found inField(BoundField bound, Optional<LocalTime> otherwise, Reading reading) {
    Computed computed = bound.read(reading);
    if (computed instanceof Problem problem) {
      return Found.not(problem);
    }
    String text = WhiteSpace.strip(Warned.valueOf(computed).display());
    try {
      return Found.of(LocalTime.parse(DatePatterns.plain(text)));
    } catch (DateTimeParseException noTime) {
      return otherwise
          .map(Found::of)
          .orElseGet(
              () ->
                  Found.not(
                      new Problem(
                          "%s: “%s” is no time of day written as 17:00"
                              .formatted(bound.shape().name(), text),
                          text,
                          "Correct it at its source, or state in the rule what is used then"
                              + " (otherwise), then send again")));
    }
  }

  private static Found ofHour(Computed hour, Computed minute) {
    if (hour instanceof Decimal h && minute instanceof Decimal m) {
      return Found.of(LocalTime.of(h.number().intValueExact(), m.number().intValueExact()));
    }
    return Found.not((Problem) (hour instanceof Problem ? hour : minute));
  }

  /** As it reads in a sentence. */
  default String sentence() {
    return switch (this) {
      case Written written -> written.time().toString();
      case InField field ->
          field.address() + field.otherwise().map(other -> " (or " + other + ")").orElse("");
      case OfHour clock ->
          clock.hour().sentence()
              + (clock.minute() instanceof Amount.Fixed fixed
                  ? ":%02d".formatted(fixed.number().intValueExact())
                  : ":" + clock.minute().sentence());
    };
  }

  /** Adds it to the options of a step, as documents write it. */
  default void write(SequencedMap<String, Object> options) {
    switch (this) {
      case Written written -> options.put("time", written.time().toString());
      case InField field -> {
        SequencedMap<String, Object> group = new LinkedHashMap<>();
        group.put("value", field.address().toString());
        field.otherwise().ifPresent(other -> group.put("otherwise", other.toString()));
        options.put("time", group);
      }
      case OfHour clock -> {
        options.put("hour", clock.hour().toDocument());
        options.put("minute", clock.minute().toDocument());
      }
    }
  }
}
