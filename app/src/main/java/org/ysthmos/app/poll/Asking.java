package org.ysthmos.app.poll;

/** Asks a collection at once. */
@FunctionalInterface
public interface Asking {

  /**
   * @return false if the collection is not asked at all
   */
  boolean now(String system, String collection);
}
