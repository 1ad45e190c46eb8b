package org.ysthmos.app.poll;

/** The asking of collections for what changed, as others may drive it. */
public interface Asking {

  /**
   * Asks a collection at once, whatever the interval says.
   *
   * @return false if the collection is not asked at all
   */
  boolean now(String system, String collection);

  /** Whether a collection is being read, or should be by now. */
  boolean underWay();
}
