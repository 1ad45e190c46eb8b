package org.ysthmos.core.decide;

import java.util.Optional;
import org.ysthmos.core.value.Day;

/**
 * An anchor day in place of the one that an event says, to see what would become of a set.
 *
 * @param day empty for one that is taken away
 */
public record Anchor(Optional<Day> day) {

  boolean isGone() {
    return day.isEmpty();
  }
}
