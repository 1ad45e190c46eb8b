package org.ysthmos.app.poll;

/** The polling of collections for what changed, as others may drive it. */
public interface Polling {

  /**
   * Polls a collection at once, whatever the interval says.
   *
   * @return false if the collection is not polled at all
   */
  boolean now(String system, String collection);

  /** Whether a collection is being read, or should be by now. */
  boolean isUnderWay();
}
