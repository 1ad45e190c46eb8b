package org.ysthmos.core.rule;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.AtTime;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * A field rule made into functions.
 *
 * @param statedZone the zone in which the rule states the time of a moment; empty if it states none
 */
public record CompiledField(FieldShape target, CompiledValue value, Optional<ZoneId> statedZone) {

  static CompiledField of(FieldShape target, CompiledValue value) {
    Optional<ZoneId> zone = Optional.empty();
    for (Step step : value.rule().steps()) {
      if (step instanceof AtTime at) {
        zone = Optional.of(at.zone());
      }
    }
    return new CompiledField(target, value, zone);
  }

  public List<BoundField> reads() {
    return value.reads();
  }

  /** Computes the field: a value that the target will take, or a problem. */
  public Computed compute(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
    Computed computed = value.compute(reading, warnings, trail);
    return computed instanceof Value fit ? fitting(fit, warnings) : computed;
  }

  /** Refuses here what the target would refuse later, where the remedy can still name the rule. */
  private Computed fitting(Value fit, Chain.Warnings warnings) {
    switch (fit) {
      case Nothing nothing -> {
        return target.required() ? missing() : fit;
      }
      case Text text -> {
        if (target.required() && WhiteSpace.isBlank(text.text())) {
          return missing();
        }
        return target.longest().isPresent()
                && !target.countedIn().fits(text.text(), target.longest().getAsInt())
            ? tooLong(text)
            : fit;
      }
      case Choice choice -> warnOfUnknown(choice, warnings);
      case Moment moment -> warnOfAnotherDay(moment, warnings);
      default -> {}
    }
    return fit;
  }

  private static Problem missing() {
    return new Problem(
        "it is required and there is no value",
        "",
        "Fill the field at its source, or add a step “if nothing, use …”, then send again");
  }

  private Problem tooLong(Text text) {
    return new Problem(
        "the text has %d %s and the target keeps %d"
            .formatted(
                target.countedIn().of(text.text()),
                target.countedIn().words(),
                target.longest().orElseThrow()),
        text.text(),
        "Add the step shorten, then send again");
  }

  private void warnOfUnknown(Choice choice, Chain.Warnings warnings) {
    if (!target.names().isEmpty() && !target.names().containsKey(choice.key())) {
      warnings.warned(
          "“%s” is none of the known choices: %s"
              .formatted(choice.key(), String.join(", ", new TreeSet<>(target.names().keySet()))));
    }
  }

  private void warnOfAnotherDay(Moment moment, Chain.Warnings warnings) {
    if (statedZone.isEmpty() || target.shownIn().isEmpty()) {
      return;
    }
    LocalDate meant = LocalDate.ofInstant(moment.instant(), statedZone.get());
    LocalDate shown = LocalDate.ofInstant(moment.instant(), target.shownIn().get());
    if (!meant.equals(shown)) {
      warnings.warned(
          "it is %s in %s, and people in %s will see %s"
              .formatted(
                  meant,
                  AtTime.placeName(statedZone.get()),
                  AtTime.placeName(target.shownIn().get()),
                  shown));
    }
  }
}
