package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Optional;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Side;

/**
 * What an event asks for that comes from no system: both tasks of a pair are to be looked at.
 *
 * @param leads the side that the other is to follow this once; empty if neither is
 * @param gone the side of which a person says that its task is gone, if it is not found; empty if
 *     nobody does
 * @param meets the id of the task on the other side that a person says is the same; empty if nobody
 *     does
 */
public record Look(Optional<Side> leads, Optional<Side> gone, Optional<String> meets) {

  /** How such events are called. */
  public static final String KIND = "look";

  public static final Look PLAIN = new Look(Optional.empty(), Optional.empty(), Optional.empty());

  private static final String LEADS = "leads";
  private static final String GONE = "gone";
  private static final String MEETS = "meets";

  /** The other side is to follow this one once. */
  public static Look leading(Side side) {
    return new Look(Optional.of(side), Optional.empty(), Optional.empty());
  }

  /** If the task of this side is not found, it was removed: a person says so. */
  public static Look gone(Side side) {
    return new Look(Optional.empty(), Optional.of(side), Optional.empty());
  }

  /** The two are to be a pair from now on: this one of the other side, and the one of the event. */
  public static Look meeting(String record) {
    return new Look(Optional.empty(), Optional.empty(), Optional.of(record));
  }

  public static Look of(Event event) {
    return event.kind().equals(KIND)
        ? new Look(
            text(event, LEADS).map(Synced::sideOf),
            text(event, GONE).map(Synced::sideOf),
            text(event, MEETS))
        : PLAIN;
  }

  private static Optional<String> text(Event event, String key) {
    return Optional.of(event.data().path(key).asText()).filter(word -> !word.isEmpty());
  }

  /** What the event carries. */
  public ObjectNode data() {
    ObjectNode data = JsonNodeFactory.instance.objectNode();
    leads.ifPresent(side -> data.put(LEADS, Synced.word(side)));
    gone.ifPresent(side -> data.put(GONE, Synced.word(side)));
    meets.ifPresent(record -> data.put(MEETS, record));
    return data;
  }
}
