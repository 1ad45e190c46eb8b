package org.ysthmos.core.rule;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.SlotText;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** A source made into a function. */
sealed interface CompiledSource {

  /**
   * @param trail told of the steps within the source; null in plain mode
   */
  Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail);

  /** The source fields it reads, each once, for lineage. */
  List<BoundField> reads();

  /** One source field. */
  record OfField(BoundField field) implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      return field.read(reading);
    }

    @Override
    public List<BoundField> reads() {
      return List.of(field);
    }
  }

  /** A constant. */
  record OfConstant(Value value) implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      return value;
    }

    @Override
    public List<BoundField> reads() {
      return List.of();
    }
  }

  /** A text with slots. */
  record OfText(SlotText text) implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      return text.fill(Nothing.NOTHING, reading);
    }

    @Override
    public List<BoundField> reads() {
      return text.reads();
    }
  }

  /** Several texts with slots; one whose slots are all blank is left out. */
  record OfTexts(List<SlotText> items) implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      List<Value> texts = new ArrayList<>(items.size());
      for (int i = 0; i < items.size(); i++) {
        Computed text = items.get(i).fillUnlessBlank(reading);
        if (!(text instanceof Value value)) {
          return text;
        }
        if (value != Nothing.NOTHING) {
          texts.add(value);
        }
      }
      return texts.isEmpty() ? Nothing.NOTHING : new ListValue(ValueType.TEXT, texts);
    }

    @Override
    public List<BoundField> reads() {
      return items.stream().flatMap(item -> item.reads().stream()).distinct().toList();
    }
  }

  /** A rule and the condition under which it counts. */
  record CompiledCase(CompiledCondition when, CompiledValue then) {}

  /** The first rule whose condition is met. */
  record OfCases(List<CompiledCase> cases, Optional<CompiledValue> otherwise)
      implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      for (CompiledCase one : cases) {
        switch (one.when().ask(reading, null)) {
          case CompiledCondition.Unknown unknown -> {
            return unknown.problem();
          }
          case CompiledCondition.Known known -> {
            if (known.met()) {
              return taken(
                  one.then(), "because " + one.when().sentence(), reading, warnings, trail);
            }
          }
        }
      }
      return otherwise.isPresent()
          ? taken(otherwise.get(), "because no case applies", reading, warnings, trail)
          : Nothing.NOTHING;
    }

    private static Computed taken(
        CompiledValue value,
        String because,
        Reading reading,
        Chain.Warnings warnings,
        Chain.@Nullable Trail trail) {
      Computed computed = value.compute(reading, warnings, trail);
      if (trail != null) {
        trail.reached(because, computed);
      }
      return computed;
    }

    @Override
    public List<BoundField> reads() {
      return Stream.concat(
              cases.stream()
                  .flatMap(
                      one ->
                          Stream.concat(one.when().reads().stream(), one.then().reads().stream())),
              otherwise.stream().flatMap(other -> other.reads().stream()))
          .distinct()
          .toList();
    }
  }

  /** A rule for each record of a list. */
  record OfEach(BoundField list, CompiledCondition where, CompiledValue item)
      implements CompiledSource {
    @Override
    public Computed read(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
      JsonNode records = list.reader().node(reading);
      if (records.isMissingNode() || records.isNull()) {
        return Nothing.NOTHING;
      }
      if (!records.isArray()) {
        return TypedReader.read(records, list.shape().type());
      }
      List<Value> values = new ArrayList<>(records.size());
      for (JsonNode record : records) {
        Reading holding = reading.holding(record);
        switch (where.ask(holding, null)) {
          case CompiledCondition.Unknown unknown -> {
            return unknown.problem();
          }
          case CompiledCondition.Known known -> {
            if (known.met()) {
              Computed computed = item.compute(holding, warnings, null);
              if (!(computed instanceof Value value)) {
                return computed;
              }
              if (value != Nothing.NOTHING) {
                values.add(value);
              }
            }
          }
        }
      }
      return ListValue.checked(item.gives(), values);
    }

    /** Without the fields of the records in hand, which stand nowhere by themselves. */
    @Override
    public List<BoundField> reads() {
      return Stream.concat(
              Stream.of(list),
              Stream.concat(where.reads().stream(), item.reads().stream())
                  .filter(field -> !field.address().root().equals(Address.ITEM)))
          .distinct()
          .toList();
    }
  }
}
