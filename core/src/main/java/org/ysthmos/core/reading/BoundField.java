package org.ysthmos.core.reading;

import com.fasterxml.jackson.databind.JsonNode;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * An address bound to the shape it points into, so that it can be read and named.
 *
 * @param where what holds the field, for example {@code report}
 * @param lookup the last lookup that must be answered before it can be read, counted from 0; -1 if
 *     none need be
 */
public record BoundField(
    Address address, FieldShape shape, String where, int lookup, Reader reader) {

  /** How a bound field is read. */
  public sealed interface Reader {
    Computed read(Reading reading);

    /**
     * What stands there as JSON; for lists of records.
     *
     * @throws IllegalStateException if a value of ours stands there
     */
    default JsonNode node(Reading reading) {
      return switch (this) {
        case OfEvent data -> data.pointer().in(reading.event().data());
        case OfLookup data -> data.pointer().in(reading.record(data.lookup()));
        case OfItem data -> data.pointer().in(reading.itemRecord());
        case OfAttribute a -> throw new IllegalStateException("no record stands at " + a);
        case OfNamed n -> throw new IllegalStateException("no record stands at " + n);
        case OfItemValue i -> throw new IllegalStateException("no record stands at " + i);
        case OfPlace p -> throw new IllegalStateException("no record stands at " + p);
        case OfMade m -> throw new IllegalStateException("no record stands at " + m);
        case OfSet s -> throw new IllegalStateException("no record stands at " + s);
      };
    }
  }

  /** A field of what came with the event. */
  public record OfEvent(Pointer pointer, FieldShape shape) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return shape.read(pointer.in(reading.event().data()));
    }
  }

  /** An attribute of the event itself. */
  public record OfAttribute(String name) implements Reader {

    /** The type of an event attribute. */
    public static ValueType type(String name) {
      return switch (name) {
        case "kind" -> ValueType.CHOICE;
        case "time" -> ValueType.MOMENT;
        default -> ValueType.TEXT;
      };
    }

    @Override
    public Computed read(Reading reading) {
      return switch (name) {
        case "id" -> Text.of(reading.event().id());
        case "kind" -> new Choice(reading.event().kind());
        case "record" -> Text.of(reading.event().record());
        case "time" -> Moment.checked(reading.event().time());
        default -> throw new IllegalStateException("compiled with an unknown attribute " + name);
      };
    }
  }

  /** A field of a record that was looked up. */
  public record OfLookup(int lookup, Pointer pointer, FieldShape shape) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return shape.read(pointer.in(reading.record(lookup)));
    }
  }

  /** A value that the bridge names. */
  public record OfNamed(int place) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return reading.named(place);
    }
  }

  /** A field of the record in hand. */
  public record OfItem(Pointer pointer, FieldShape shape) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return shape.read(pointer.in(reading.itemRecord()));
    }
  }

  /** The value in hand itself. */
  public record OfItemValue() implements Reader {
    @Override
    public Computed read(Reading reading) {
      return reading.itemValue();
    }
  }

  /** The day of the task in hand of a set, or the set's anchor day. */
  public record OfSet(boolean anchor) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return anchor ? reading.anchorDay() : reading.setDay();
    }
  }

  /** The id of the task that was made, or its link. */
  public record OfMade(boolean link) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return link ? reading.made().link() : reading.made().id();
    }
  }

  /** What is said of the place that the event came from; the same for all its events. */
  public record OfPlace(Value value) implements Reader {
    @Override
    public Computed read(Reading reading) {
      return value;
    }
  }

  public Computed read(Reading reading) {
    return reader.read(reading);
  }
}
