package org.ysthmos.core.loop;

import java.util.List;
import org.ysthmos.core.gateway.CollectionRef;

/**
 * A circle: what a bridge makes comes back to it.
 *
 * @param turns each bridge on the way with where it writes, the bridge that was asked about first
 * @param end whether it comes to an end
 * @param because why it does, does not, or cannot be told, each a sentence
 */
public record Circle(CollectionRef from, List<Turn> turns, End end, List<String> because) {

  public Circle {
    turns = List.copyOf(turns);
    because = List.copyOf(because);
  }

  /**
   * A part of the way.
   *
   * @param effect the name of what comes then by which it goes on; empty for the bridge's tasks
   */
  public record Turn(String bridge, String name, String effect, CollectionRef to) {}

  /** Whether it comes to an end. */
  public enum End {
    STOPS,
    DOES_NOT_STOP,
    CANNOT_BE_TOLD
  }
}
