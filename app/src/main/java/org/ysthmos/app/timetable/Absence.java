package org.ysthmos.app.timetable;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.time.AppClock;

/** Why nobody looked when a time came. */
@Component
public class Absence {

  /** Why nobody looks at the times of a bridge. */
  public enum Stopped {
    HELD,
    /** It cannot be used. */
    BROKEN
  }

  private final Instant began;

  public Absence(AppClock clock) {
    this.began = clock.instant();
  }

  /**
   * In words that go on a sentence.
   *
   * @param stopped why its bridge was not looked at, if it was not
   * @param came when the time came
   */
  public String why(@Nullable Stopped stopped, Instant came) {
    if (stopped == Stopped.HELD) {
      return "the bridge was held";
    }
    if (stopped == Stopped.BROKEN) {
      return "the bridge could not be used";
    }
    return came.isBefore(began)
        ? "Ysthmos was not running"
        : "the machine slept, or its clock was put forward";
  }
}
