package org.ysthmos.core.uses;

import org.ysthmos.core.shape.PlaceId;

/**
 * Something that a bridge can name, and that it hangs on then.
 *
 * @param system the id of its system; empty for what belongs to none
 * @param collection the id of its collection; empty for what belongs to none
 * @param id of a field its key, as its system's description has it; of a field in the records of a
 *     list the list's key, {@code /*} and its own; empty for a collection
 */
public record Thing(Kind kind, String system, String collection, String id) {

  /** What sort of thing it is. */
  public enum Kind {
    COLLECTION,
    FIELD,
    TABLE,
    CALENDAR,
    /** A bridge whose tasks are looked up. */
    BRIDGE
  }

  public static Thing collection(String system, String collection) {
    return new Thing(Kind.COLLECTION, system, collection, "");
  }

  public static Thing field(String system, String collection, String key) {
    return new Thing(Kind.FIELD, system, collection, key);
  }

  /** The key of a field in the records of a list. */
  public static String keyInList(String list, String key) {
    return list + "/*" + key;
  }

  /** Whether it is another, or the same of another place that is described alike. */
  public boolean isAlike(Thing other) {
    return kind == other.kind
        && system.equals(other.system)
        && id.equals(other.id)
        && PlaceId.areAlike(collection, other.collection);
  }

  public static Thing table(String id) {
    return new Thing(Kind.TABLE, "", "", id);
  }

  public static Thing calendar(String id) {
    return new Thing(Kind.CALENDAR, "", "", id);
  }

  public static Thing bridge(String id) {
    return new Thing(Kind.BRIDGE, "", "", id);
  }
}
