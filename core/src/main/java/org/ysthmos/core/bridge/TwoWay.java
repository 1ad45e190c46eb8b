package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.WhenGone;

/**
 * Two places whose tasks are kept alike, as a bridge document says it.
 *
 * @param check when both lists are held against what was agreed; empty if only when somebody asks
 *     for it
 * @param fields in the order of the document
 */
public record TwoWay(Place left, Place right, Optional<Check> check, List<Field> fields) {

  public TwoWay {
    fields = List.copyOf(fields);
  }

  /** When a full check begins by itself. */
  public sealed interface Check {

    /** So long after the one before began. */
    record Every(Duration span) implements Check {}

    /** At times that come round. */
    record AtTimes(Recurrence times) implements Check {}
  }

  public Place place(Side side) {
    return side == Side.LEFT ? left : right;
  }

  /**
   * One of the two places.
   *
   * @param events the kinds of event that are heard
   * @param every how often it is asked for changes, where it is asked; empty for its system's own
   *     interval
   * @param when which of its tasks are made on the other side; one that is there already stays
   * @param begins whether its tasks are made on the other side at all
   * @param whenGone what becomes of the task on the other side once one of this side is gone
   */
  public record Place(
      String system,
      String collection,
      List<String> events,
      Optional<Duration> every,
      Condition when,
      boolean begins,
      WhenGone whenGone) {
    public Place {
      events = List.copyOf(events);
    }

    public BridgeDefinition.From from() {
      return new BridgeDefinition.From(
          system,
          collection,
          events,
          every,
          false,
          Optional.empty(),
          Optional.empty(),
          Optional.empty());
    }

    BridgeDefinition.To to() {
      return new BridgeDefinition.To(
          system, collection, BridgeDefinition.IfGone.ASK, Optional.empty(), Optional.empty());
    }
  }

  /**
   * A field that is kept alike.
   *
   * @param toRight what a value of the left is on the right; empty if nothing is said of it
   */
  public record Field(
      String name,
      FieldAt left,
      FieldAt right,
      Direction direction,
      BothChanged both,
      Drift drift,
      Optional<Translation> toRight,
      Optional<Translation> toLeft) {

    public FieldAt at(Side side) {
      return side == Side.LEFT ? left : right;
    }

    /** What a value becomes that goes to a side. */
    public Optional<Translation> to(Side side) {
      return side == Side.LEFT ? toLeft : toRight;
    }
  }

  /**
   * Where a side keeps a field.
   *
   * @param key the key by which it is written, or the address of one that is only read
   * @param read where it stands in a record that is read; empty if that follows from its key
   */
  public record FieldAt(String key, Optional<Pointer> read) {

    Pointer address() {
      return read.orElseGet(
          () -> key.startsWith("/") ? Pointer.parse(key) : new Pointer(List.of(key)));
    }
  }

  /** What a value of one side becomes on the other. */
  public sealed interface Translation {

    /** It goes through steps; through none it stays the same. */
    record Steps(List<Step> steps) implements Translation {
      public Steps {
        steps = List.copyOf(steps);
      }
    }

    /** It is the id of a task, and becomes the id of the task that stands for that one. */
    record ItsPair() implements Translation {}

    /**
     * It is looked up in a list of statuses, types or the like.
     *
     * @param otherwise what all others become; empty if they change nothing on the other side
     */
    record Values(SequencedMap<String, String> values, Optional<String> otherwise)
        implements Translation {
      public Values {
        values = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(values));
      }
    }
  }
}
