package org.ysthmos.core.guard;

import java.time.Duration;
import java.util.List;
import org.ysthmos.core.delivery.EffectKind;

/** Ceilings in words, for people. */
public final class CeilingWords {

  private static final String ALONE = "One event alone";

  private static final String BACK = "What it did came back to it";
  private static final String SAME = "It would write to";

  private CeilingWords() {}

  /** Whether these words say that one event alone is more than the ceiling allows. */
  public static boolean saysAlone(String because) {
    return because.startsWith(ALONE);
  }

  /** Why a bridge is held that would have passed its ceiling. */
  public static String because(Ceiling.Passed passed) {
    String ceiling =
        "its ceiling is %s in %s"
            .formatted(counted(passed.kind(), passed.limit().most()), span(passed.per()));
    if (passed.alone()) {
      return "%s wants %s; %s. Raise the ceiling before you release it"
          .formatted(ALONE, counted(passed.kind(), passed.more()), ceiling);
    }
    return "It would have come to %s; %s"
        .formatted(counted(passed.kind(), passed.before() + passed.more()), ceiling);
  }

  /**
   * Why a bridge is held that its own doing came back to.
   *
   * @param what the event, the record or the chain that it is about, as people read it
   */
  public static String because(TurnGuard.Passed passed, String what) {
    return switch (passed.sort()) {
      case AGAIN ->
          BACK
              + ": %s. It acts on its own doing %s"
                  .formatted(
                      what, passed.most() == 0 ? "never" : "%d times".formatted(passed.most()));
      case CHAIN ->
          "One bridge set the other going, %d in a row: %s. It acts at the end of no more than %d"
              .formatted(passed.came(), what, passed.most());
      case SAME_TASK ->
          SAME
              + " %s for the %s time in %s; it may %d times"
                  .formatted(what, ordinal(passed.came()), span(passed.per()), passed.most());
    };
  }

  /** Whether these words say that what a bridge did came back to it. */
  public static boolean saysCameBack(String because) {
    return because.startsWith(BACK);
  }

  /** Whether these words say that one task was written to very often. */
  public static boolean saysSameTask(String because) {
    return because.startsWith(SAME);
  }

  private static String ordinal(long many) {
    long last = many % 10;
    boolean teen = many % 100 / 10 == 1;
    return many
        + (teen || last == 0 || last > 3 ? "th" : last == 1 ? "st" : last == 2 ? "nd" : "rd");
  }

  /** How many of a kind, for example {@code 3 new tasks}. */
  public static String counted(EffectKind kind, long many) {
    return many + " " + (many == 1 ? one(kind) : several(kind));
  }

  private static String one(EffectKind kind) {
    return switch (kind) {
      case CREATE -> "new task";
      case CHANGE -> "change";
      case REMOVE -> "removal";
      case MESSAGE -> "message";
    };
  }

  private static String several(EffectKind kind) {
    return one(kind) + "s";
  }

  /** How long a span is, for example {@code an hour} or {@code 10 minutes}. */
  public static String span(Duration span) {
    for (Unit unit : UNITS) {
      long many = span.toMillis() / unit.length().toMillis();
      if (many > 0 && unit.length().multipliedBy(many).equals(span)) {
        return many == 1 ? unit.one() : many + " " + unit.several();
      }
    }
    return span.toString();
  }

  private record Unit(Duration length, String one, String several) {}

  private static final List<Unit> UNITS =
      List.of(
          new Unit(Duration.ofDays(1), "a day", "days"),
          new Unit(Duration.ofHours(1), "an hour", "hours"),
          new Unit(Duration.ofMinutes(1), "a minute", "minutes"),
          new Unit(Duration.ofSeconds(1), "a second", "seconds"));
}
