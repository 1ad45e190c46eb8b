package org.ysthmos.core.bridge;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Crossing;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.SyncField;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/**
 * Two places that are kept alike, made into functions.
 *
 * @param from the side from which it is looked at: that of the event that is decided
 */
public record CompiledTwoWay(
    TwoWay rule, Side from, Both<CompiledPlace> places, List<Field> fields) {

  public CompiledTwoWay {
    fields = List.copyOf(fields);
  }

  public CompiledPlace place(Side side) {
    return places.of(side);
  }

  /** The side on which a collection stands; empty if it is neither. */
  public Optional<Side> sideOf(String system, String collection) {
    for (Side side : Side.values()) {
      CollectionShape shape = place(side).shape();
      if (shape.system().equals(system) && shape.collection().equals(collection)) {
        return Optional.of(side);
      }
    }
    return Optional.empty();
  }

  /**
   * Whether a task that is made on a side has something to tell the one that it was made of: a
   * field that goes from there alone, such as its id.
   */
  public boolean tellsBack(Side made) {
    return fields.stream()
        .map(field -> field.rule().direction())
        .anyMatch(way -> way.carries(made) && !way.carries(made.across()));
  }

  /** Whether a field says which task a task belongs to, so that one may wait for another. */
  public boolean namesTasks() {
    return fields.stream().anyMatch(Field::namesTasks);
  }

  /** The same looked at from a side. */
  public CompiledTwoWay seenFrom(Side side) {
    return new CompiledTwoWay(rule, side, places, fields);
  }

  /**
   * One of the places.
   *
   * @param shape of its tasks, as they are written
   * @param when which of them are made on the other side
   * @param early the same, asked of what comes with an event, so that a task need not be read for
   *     it; empty where not all that it asks comes with one
   */
  public record CompiledPlace(
      TwoWay.Place rule,
      CollectionShape shape,
      CompiledCondition when,
      Optional<CompiledCondition> early) {}

  /**
   * A field that is kept alike.
   *
   * @param to what a value becomes that goes to a side
   */
  public record Field(TwoWay.Field rule, Both<FieldOf> at, Both<Translation> to) {

    /** The field as it is reconciled, for as long as a decision takes. */
    public SyncField synced(Within within) {
      return new SyncField(
          rule.name(),
          rule.direction(),
          rule.both(),
          rule.drift(),
          (from, value) -> to.of(from.across()).across(from, value, within));
    }

    /** Whether it says which task a task belongs to, as its parent. */
    boolean namesTasks() {
      return to.left() instanceof Translation.ByPair || to.right() instanceof Translation.ByPair;
    }
  }

  /**
   * A field as a side keeps it.
   *
   * @param part what of a task it is
   * @param read where it stands in a record that is read
   */
  public record FieldOf(FieldShape shape, Part part, Pointer read) {

    /**
     * What stands there, for a task that was read.
     *
     * @param task its id and its page, where people see one
     */
    public Computed of(JsonNode record, Made task) {
      return switch (part) {
        case FIELD -> valueOf(read.in(record));
        case ID -> task.id();
        case LINK -> task.link();
      };
    }

    /**
     * What stands there as a value; what is blank is nothing, as systems do not tell them apart.
     */
    public Computed valueOf(JsonNode stored) {
      return switch (shape.read(stored)) {
        case Problem problem -> problem;
        case Warned warned -> orNothing(warned.value());
        case Value value -> orNothing(value);
      };
    }

    private static Value orNothing(Value value) {
      return Operator.isBlank(value) ? Nothing.NOTHING : value;
    }
  }

  /** A field of a task, or what its system knows it by. */
  public enum Part {
    FIELD,
    ID,
    LINK
  }

  /** What a value is computed in that crosses. */
  public record Within(Reading reading, Chain.Warnings warnings, Partners partners) {}

  /** Which task stands for another on the other side. */
  @FunctionalInterface
  public interface Partners {

    /**
     * @param task the id of a task of a side
     * @return its other one's id as text, or that it waits for it
     */
    Crossing of(Side from, String task);
  }

  /** What a value becomes on the other side. */
  public sealed interface Translation {
    Crossing across(Side from, Value value, Within within);

    /** It does not go there. */
    record None() implements Translation {
      @Override
      public Crossing across(Side from, Value value, Within within) {
        return stays();
      }

      Crossing stays() {
        return new Crossing.Stays("it does not go this way");
      }
    }

    /** It goes through steps and is fitted to the other side's field. */
    record BySteps(CompiledField field) implements Translation {
      @Override
      public Crossing across(Side from, Value value, Within within) {
        return switch (field.compute(within.reading().holding(value), within.warnings(), null)) {
          case Value becomes -> new Crossing.Becomes(becomes);
          case Problem problem -> new Crossing.Fails(problem);
          case Warned warned ->
              throw new IllegalStateException("a compiled field settles its warnings");
        };
      }
    }

    /** It is the id of a task, and becomes that of its other one. */
    record ByPair(FieldShape target) implements Translation {
      @Override
      public Crossing across(Side from, Value value, Within within) {
        if (value == Nothing.NOTHING) {
          return new Crossing.Becomes(value);
        }
        return switch (within.partners().of(from, value.display())) {
          case Crossing.Becomes becomes -> written(becomes.value().display());
          case Crossing other -> other;
        };
      }

      private Crossing written(String id) {
        try {
          return new Crossing.Becomes(Constant.parse(id, target.type()));
        } catch (IllegalArgumentException noNumber) {
          return new Crossing.Fails(
              new Problem(
                  String.valueOf(noNumber.getMessage()),
                  id,
                  "Describe the field as a text, as ids there are no numbers"));
        }
      }
    }

    /** It is looked up. */
    record ByValues(Map<String, Value> values, Optional<Value> otherwise, boolean required)
        implements Translation {
      public ByValues {
        values = Map.copyOf(values);
      }

      @Override
      public Crossing across(Side from, Value value, Within within) {
        return of(value);
      }

      Crossing of(Value value) {
        Value known = values.get(value.display());
        if (known != null) {
          return new Crossing.Becomes(known);
        }
        if (value == Nothing.NOTHING && !required) {
          return new Crossing.Becomes(value);
        }
        return otherwise
            .<Crossing>map(Crossing.Becomes::new)
            .orElseGet(
                () ->
                    new Crossing.Stays(
                        value == Nothing.NOTHING
                            ? "nothing stands for a field that is empty"
                            : "“%s” stands for nothing there".formatted(value.display())));
      }
    }
  }
}
