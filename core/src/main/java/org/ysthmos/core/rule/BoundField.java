package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/**
 * An address bound to the shape it points into, so that it can be read and named.
 *
 * @param where what holds the field, for example {@code report}
 * @param lookup the place of the lookup it reads from, counted from 0; -1 for the event itself
 */
public record BoundField(Address address, FieldShape shape, String where, int lookup)
    implements CompiledSource {

  @Override
  public Computed read(Reading reading) {
    if (address.isEventAttribute()) {
      return attribute(reading);
    }
    Pointer pointer = address.pointer();
    return lookup < 0
        ? TypedReader.read(pointer.in(reading.event().data()), shape.type())
        : TypedReader.read(pointer.in(reading.lookups().get(lookup)), shape.type());
  }

  private Computed attribute(Reading reading) {
    return switch (address.pointer().lastToken()) {
      case "id" -> Text.of(reading.event().id());
      case "kind" -> new Choice(reading.event().kind());
      case "record" -> Text.of(reading.event().record());
      case "time" -> Moment.of(reading.event().time());
      default -> throw new IllegalStateException("compiled with an unknown attribute " + address);
    };
  }

  /** The type of an event attribute. */
  public static ValueType attributeType(String name) {
    return switch (name) {
      case "kind" -> ValueType.CHOICE;
      case "time" -> ValueType.MOMENT;
      default -> ValueType.TEXT;
    };
  }

  @Override
  public List<BoundField> reads() {
    return List.of(this);
  }
}
