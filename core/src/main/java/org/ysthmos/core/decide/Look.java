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
 */
public record Look(Optional<Side> leads) {

  /** How such events are called. */
  public static final String KIND = "look";

  public static final Look PLAIN = new Look(Optional.empty());

  private static final String LEADS = "leads";

  public static Look of(Event event) {
    return event.kind().equals(KIND)
        ? new Look(
            Optional.of(event.data().path(LEADS).asText())
                .filter(word -> !word.isEmpty())
                .map(Synced::sideOf))
        : PLAIN;
  }

  /** What the event carries. */
  public ObjectNode data() {
    ObjectNode data = JsonNodeFactory.instance.objectNode();
    leads.ifPresent(side -> data.put(LEADS, Synced.word(side)));
    return data;
  }
}
