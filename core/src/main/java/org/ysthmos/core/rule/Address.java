package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.json.Pointer;

/**
 * Where a source value stands: in what came with the event ({@code /submission}), in a lookup's
 * result ({@code report/place}), or in the event's own attributes ({@code event/time}).
 *
 * @param root empty for the event's data, {@code event} for its attributes, else a lookup's name
 * @param pointer the place within
 */
public record Address(String root, Pointer pointer) {

  /** The root of the event's own attributes; no lookup may be called so. */
  public static final String EVENT = "event";

  /** The attributes of an event that can be used as a source. */
  public static final List<String> EVENT_ATTRIBUTES = List.of("id", "kind", "record", "time");

  /**
   * @throws IllegalArgumentException if the text is no address; the message says why
   */
  public static Address parse(String text) {
    int slash = text.indexOf('/');
    if (slash < 0) {
      throw new IllegalArgumentException(
          "“"
              + text
              + "” is no address; write /field for what came with the event, or lookup/field");
    }
    return new Address(text.substring(0, slash), Pointer.parse(text.substring(slash)));
  }

  public boolean isInEventData() {
    return root.isEmpty();
  }

  public boolean isEventAttribute() {
    return root.equals(EVENT);
  }

  @Override
  public String toString() {
    return root + pointer;
  }
}
