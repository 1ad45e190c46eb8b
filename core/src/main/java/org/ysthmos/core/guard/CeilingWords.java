package org.ysthmos.core.guard;

import java.time.Duration;
import java.util.List;
import org.ysthmos.core.delivery.EffectKind;

/** Ceilings in words, for people. */
public final class CeilingWords {

  private static final String ALONE = "One event alone";

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
