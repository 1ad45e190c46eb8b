package org.ysthmos.core.uses;

/**
 * That a bridge names something.
 *
 * @param place where its document does, for example {@code fields/priority}
 */
public record Use(Thing thing, How how, String place) {

  /** What it does with it. */
  public enum How {
    /** It begins with what is told of it. */
    HEARS,
    /** A rule reads it. */
    READS,
    /** It makes or changes it. */
    WRITES,
    /** It asks it for what belongs to an event. */
    LOOKS_UP
  }
}
