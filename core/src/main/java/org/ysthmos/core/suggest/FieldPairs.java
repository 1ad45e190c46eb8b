package org.ysthmos.core.suggest;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Finds which source fields likely belong to which target fields. A pair counts by the likeness of
 * the names and by the values: the rule is really computed for each sample, and a value that the
 * target would refuse or warn of speaks against it. The weights are our own.
 */
public final class FieldPairs {

  private static final double NAME_WEIGHT = 0.6;
  private static final double LEAST_SCORE = 0.45;
  private static final double LEAST_SHARE = 0.8;
  private static final int MOST_OF_A_FIELD = 2;

  private static final Address VALUE = Address.parse("/value");

  private FieldPairs() {}

  /**
   * @param targets the target fields that have no rule yet
   * @return at most two for a target field, the likeliest first
   */
  public static List<FieldPair> of(List<SourceField> sources, List<FieldShape> targets) {
    List<FieldPair> pairs = new ArrayList<>();
    for (FieldShape target : targets) {
      sources.stream()
          .flatMap(source -> pair(source, target).stream())
          .sorted(Comparator.comparingDouble(FieldPair::score).reversed())
          .limit(MOST_OF_A_FIELD)
          .forEach(pairs::add);
    }
    return pairs;
  }

  /** What a chain makes of the samples that hold something, in their order. */
  private record Fit(List<Step> steps, List<Value> values, int filled) {
    int fitting() {
      return values.size();
    }

    double share() {
      return filled == 0 ? 0 : (double) fitting() / filled;
    }
  }

  private static Optional<FieldPair> pair(SourceField source, FieldShape target) {
    double name = likeness(source, target);
    List<Fit> fits =
        Conversions.of(source.shape(), target).stream()
            .flatMap(steps -> fit(source, target, steps).stream())
            .toList();
    Optional<Fit> best = best(fits);
    if (best.isEmpty()) {
      return Optional.empty();
    }
    Fit fit = best.get();
    double score = Math.min(1, NAME_WEIGHT * name + evidence(fit, source.shape(), target));
    if (score < LEAST_SCORE) {
      return Optional.empty();
    }
    FieldRule rule =
        new FieldRule(target.key(), new ValueRule(new Source.Field(source.address()), fit.steps()));
    return Optional.of(new FieldPair(rule, score, because(name, fit)));
  }

  private static double likeness(SourceField source, FieldShape target) {
    String key = source.address().pointer().lastToken();
    return Stream.of(
            NameLikeness.of(source.shape().name(), target.name()),
            NameLikeness.of(key, target.key()))
        .mapToDouble(Double::doubleValue)
        .max()
        .orElse(0);
  }

  /**
   * The chain that most samples fit. Where another fits as many and gives other values, such as day
   * before month and month before day, nobody can say which is meant, and there is none.
   */
  private static Optional<Fit> best(List<Fit> fits) {
    Optional<Fit> first = fits.stream().max(Comparator.comparingDouble(Fit::share));
    if (first.isEmpty()) {
      return Optional.empty();
    }
    Fit best = fits.stream().filter(fit -> fit.share() == first.get().share()).findFirst().get();
    boolean plain = best.steps().isEmpty();
    boolean clear =
        fits.stream()
            .filter(fit -> fit.share() == best.share())
            .allMatch(fit -> fit.values().equals(best.values()));
    // With no sample that holds anything only a pair of one type can be trusted.
    boolean enough = best.filled() == 0 ? plain : best.share() >= LEAST_SHARE;
    return clear && enough ? Optional.of(best) : Optional.empty();
  }

  /** How much the types and the values speak for a pair, from 0 to 0.5. */
  private static double evidence(Fit fit, FieldShape source, FieldShape target) {
    ValueType wanted = target.type().element().orElse(target.type());
    if (wanted.equals(ValueType.TEXT)) {
      // Anything can stand in a text, or as the one text of a list.
      return source.type().element().orElse(source.type()).equals(ValueType.TEXT) ? 0.15 : 0.05;
    }
    boolean named = !target.names().isEmpty();
    boolean read = !fit.steps().isEmpty();
    if (read && fit.filled() > 0) {
      // Any text can be taken as a key; only one that is known says something.
      boolean anyText =
          switch (wanted.kind()) {
            case CHOICE, PERSON -> !named;
            default -> false;
          };
      return anyText ? 0 : 0.5 * fit.share();
    }
    return named && fit.filled() > 0 ? 0.5 * fit.share() : 0.3;
  }

  private static String because(double name, Fit fit) {
    List<String> reasons = new ArrayList<>();
    if (name >= 0.5) {
      reasons.add("the names are alike");
    }
    if (fit.filled() > 0) {
      reasons.add(
          fit.fitting() == fit.filled()
              ? "all %d values fit".formatted(fit.filled())
              : "%d of %d values fit".formatted(fit.fitting(), fit.filled()));
    }
    return String.join(", and ", reasons);
  }

  private static Optional<Fit> fit(SourceField source, FieldShape target, List<Step> steps) {
    FieldRule rule = new FieldRule(target.key(), new ValueRule(new Source.Field(VALUE), steps));
    CompiledField compiled;
    try {
      compiled = RuleCompiler.field(rule, target, new OneField(source.shape()));
    } catch (Misfit typesDoNotFit) {
      return Optional.empty();
    }
    int filled = 0;
    List<Value> values = new ArrayList<>();
    for (JsonNode sample : source.samples()) {
      if (sample.isMissingNode() || sample.isNull() || sample.asText("x").isBlank()) {
        continue;
      }
      filled++;
      boolean[] warned = {false};
      Reading reading = Reading.of(holding(sample), Reading.Surroundings.NONE);
      if (compiled.compute(reading, warning -> warned[0] = true, null) instanceof Value value
          && value != Nothing.NOTHING
          && !warned[0]
          && mayBe(value, target)) {
        values.add(value);
      }
    }
    return Optional.of(new Fit(steps, List.copyOf(values), filled));
  }

  /**
   * Whether a value can be meant. Any text can be taken as a key, but where the keys are known it
   * must be one of them, and a person reads as one: a name or an address, no bare number.
   */
  private static boolean mayBe(Value value, FieldShape target) {
    ValueType wanted = target.type().element().orElse(target.type());
    boolean isKey =
        switch (wanted.kind()) {
          case CHOICE, PERSON -> true;
          default -> false;
        };
    List<Value> all = value instanceof ListValue list ? list.items() : List.of(value);
    if (isKey && !target.names().isEmpty()) {
      return all.stream().allMatch(one -> target.names().containsKey(one.display()));
    }
    return !wanted.equals(ValueType.PERSON)
        || all.stream().allMatch(one -> one.display().matches("\\p{L}[\\p{L}\\p{N}.'_@+ -]*"));
  }

  private static Event holding(JsonNode sample) {
    var data = JsonNodeFactory.instance.objectNode().set("value", sample);
    return new Event("sample", "", "", "", "", Instant.EPOCH, data);
  }

  /** Rules that go by one field alone. */
  private record OneField(FieldShape shape) implements Scope {
    @Override
    public BoundField bind(Address address) {
      Pointer at = VALUE.pointer();
      return new BoundField(VALUE, shape, "", -1, new BoundField.OfEvent(at, shape));
    }

    @Override
    public TableDefinition table(String id) {
      throw new Misfit("no table is asked for a suggestion");
    }

    @Override
    public WorkingCalendar calendar(String id) {
      throw new Misfit("no calendar is asked for a suggestion");
    }

    @Override
    public Scope inItemsOf(BoundField list) {
      throw new Misfit("no list is gone through for a suggestion");
    }
  }
}
