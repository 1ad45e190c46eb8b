package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.incident.Evidence.Hold;
import org.ysthmos.core.incident.Evidence.Load;

/** Why a bridge holds itself. */
final class HeldCauses {

  /** So many events of each record are none that people make. Common practice, no source. */
  private static final int MANY_EACH = 10;

  private HeldCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    return evidence.hold().stream()
        .flatMap(
            hold ->
                Stream.of(loop(hold), oneRecord(hold), flood(evidence, hold), ceilingLow(hold)));
  }

  /** Why it holds itself is said first, and weighs nothing: it is so whatever the cause. */
  private static Weighing held(Cause cause, Hold hold) {
    return new Weighing(cause).because(0, hold.because() + ".");
  }

  private static Weighing loop(Hold hold) {
    boolean back = !hold.path().isEmpty();
    return held(Cause.LOOP, hold)
        .because(
            back,
            PROVES,
            "What it makes comes back to it: " + String.join(" → ", hold.path()) + ".")
        .because(hold.cameBack(), PROVES, "The event that it held itself at came of its own doing.")
        .because(
            back && hold.records() > MANY_EACH,
            WEAK,
            "Its events of that time are of %,d different records.".formatted(hold.records()))
        .although(hold.alone(), PROVES, "One event alone passed the ceiling.");
  }

  private static Weighing oneRecord(Hold hold) {
    boolean many = hold.records() > 0 && hold.events() >= MANY_EACH * hold.records();
    return held(Cause.ONE_RECORD_RUNS, hold)
        .because(hold.sameTask(), PROVES, "It was about to write to one task once more.")
        .because(
            many,
            STRONG + WEAK,
            "%,d events came of %s."
                .formatted(
                    hold.events(),
                    hold.records() == 1
                        ? "one record"
                        : "no more than %,d records".formatted(hold.records())))
        .although(
            many && !hold.path().isEmpty(), WEAK, "What it makes itself comes back to it too.");
  }

  private static Weighing flood(Evidence evidence, Hold hold) {
    Weighing flood = held(Cause.FLOOD, hold);
    flood.because(
        hold.records() > 0 && hold.events() < MANY_EACH * hold.records(),
        WEAK,
        "%,d events came of %,d different records.".formatted(hold.events(), hold.records()));
    Optional<Load> own =
        evidence.bridges().stream().filter(one -> one.bridge().equals(evidence.name())).findFirst();
    own.flatMap(Load::usual)
        .ifPresent(
            usual -> {
              long made = own.orElseThrow().made();
              boolean more = made > 3 * usual;
              String words =
                  "It made %,d tasks in the last day, where %,.0f are usual".formatted(made, usual);
              flood.because(more, STRONG, words + ".");
              flood.although(!more, WEAK, words + ": that is no more than on other days.");
            });
    flood.although(hold.alone(), PROVES, "One event alone passed the ceiling.");
    flood.although(
        !hold.path().isEmpty(), STRONG, "What it makes comes back to it, which explains more.");
    return flood;
  }

  private static Weighing ceilingLow(Hold hold) {
    return new Weighing(Cause.CEILING_LOW).because(hold.alone(), PROVES, hold.because() + ".");
  }
}
