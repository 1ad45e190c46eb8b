package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;

import java.util.stream.Stream;
import org.ysthmos.core.incident.Evidence.OutOfRhythm;

/** Why what comes from a source is other than usual. */
final class RhythmCauses {

  private RhythmCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    return evidence.rhythm().stream()
        .flatMap(
            rhythm ->
                rhythm.silent()
                    ? Stream.of(silent(rhythm), unread(rhythm))
                    : Stream.of(busier(rhythm)));
  }

  private static Weighing silent(OutOfRhythm rhythm) {
    return new Weighing(Cause.SOURCE_SILENT)
        .because(
            STRONG, "Nothing came since then, where %,.0f are usual.".formatted(rhythm.usual()))
        .although(
            !rhythm.unread().isEmpty(),
            STRONG,
            rhythm.source() + " cannot be read, which explains it.");
  }

  private static Weighing unread(OutOfRhythm rhythm) {
    return new Weighing(Cause.SOURCE_NOT_READ)
        .because(!rhythm.unread().isEmpty(), PROVES, rhythm.source() + ": " + rhythm.unread());
  }

  private static Weighing busier(OutOfRhythm rhythm) {
    return new Weighing(Cause.BUSIER)
        .because(
            STRONG,
            "%,d came in an hour, where %,.0f are usual.".formatted(rhythm.came(), rhythm.usual()));
  }
}
