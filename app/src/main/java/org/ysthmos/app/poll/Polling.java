package org.ysthmos.app.poll;

import java.time.Instant;

/** The polling of collections for what changed, as others may drive it. */
public interface Polling {

  /**
   * Polls a collection at once, whatever the interval says.
   *
   * @return false if the collection is not polled at all
   */
  boolean now(String system, String collection);

  /**
   * Lets something that could not be read be read again at once.
   *
   * @param item by which it is known where it stands
   * @return false if it cannot be met again
   */
  boolean readAgain(String system, String collection, String item);

  /**
   * Whether a pass over what changed in a collection ended after a moment, and none is under way.
   */
  boolean wasThrough(String system, String collection, Instant since);

  /** Whether a collection is being read, or should be by now. */
  boolean isUnderWay();
}
