package org.ysthmos.app.bridge;

import java.util.List;
import org.ysthmos.core.loop.Circle;

/**
 * A circle of bridges as people see it.
 *
 * @param sentence the whole way in words
 * @param from where it begins, as that is called
 * @param because why it comes to an end or not, or why that cannot be told
 */
public record CircleView(
    String sentence, String from, List<TurnView> turns, Circle.End end, List<String> because) {

  /**
   * A part of the way.
   *
   * @param bridge the id
   * @param effect the name of what comes then by which it goes on; empty for the bridge's tasks
   * @param to where it leads, as that is called
   */
  public record TurnView(String bridge, String name, String effect, String to) {}

  /** Whether it is known to come to an end. */
  public boolean stops() {
    return end == Circle.End.STOPS;
  }
}
