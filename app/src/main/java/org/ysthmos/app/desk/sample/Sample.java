package org.ysthmos.app.desk.sample;

import org.ysthmos.core.event.Event;

/**
 * An event to try a draft on.
 *
 * @param id names it among the samples of a desk
 */
public record Sample(String id, Origin origin, Event event) {

  /** Where a sample comes from. */
  public enum Origin {
    /** A person pasted it or made it by hand. */
    ADDED,
    /** It was received. */
    RECEIVED,
    /** A time that is to come; the event is as it will be. */
    TO_COME,
    /** Its record was read at the source; the event is as it would come. */
    READ
  }
}
