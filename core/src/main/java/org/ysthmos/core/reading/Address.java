package org.ysthmos.core.reading;

import java.util.List;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.json.Pointer;

/**
 * Where a source value stands: in what came with the event ({@code /submission}), in a lookup's
 * result ({@code report/place}), in the event's own attributes ({@code event/time}), among the
 * values a bridge names ({@code values/fault}), in the item in hand of a list ({@code item/name}),
 * among the days of a task set ({@code set/day}), in the task that was made ({@code made/id}), or
 * in what is said of the place that the event came from ({@code place/id}).
 *
 * @param root empty for the event's data, one of the {@link #RESERVED} words, else a lookup's name
 * @param pointer the place within
 */
public record Address(String root, Pointer pointer) {

  /** The root of the event's own attributes; no lookup may be called so. */
  public static final String EVENT = "event";

  /** The root of the values that a bridge names. */
  public static final String VALUES = "values";

  /** The root of the item in hand, where a rule goes through a list. */
  public static final String ITEM = "item";

  /** The root of a task set's days. */
  public static final String SET = "set";

  /** The root of the task that was made of the event, for what comes then. */
  public static final String MADE = "made";

  /**
   * The root of the place that an event came from, where a bridge hears several; elsewhere a lookup
   * may be called so.
   */
  public static final String PLACE = "place";

  /** Roots with a meaning of their own; no lookup may be called so. */
  public static final List<String> RESERVED = List.of(EVENT, VALUES, ITEM, SET, MADE);

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

  @Override
  public String toString() {
    return root + pointer;
  }

  /**
   * @throws org.ysthmos.core.document.DocumentException if the text there is no address
   */
  public static Address read(DocumentNode node) {
    return node.parsed(Address::parse);
  }
}
