package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.incident.Evidence.Hold;

/** Why a bridge holds itself. */
final class HeldCauses {

  /** So many events of each record are none that people make. Common practice, no source. */
  private static final int MANY_EACH = 10;

  private HeldCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    return evidence.hold().stream()
        .flatMap(
            hold ->
                Stream.of(
                    loop(hold),
                    oneRecord(hold),
                    flood(evidence, hold),
                    ceilingLow(evidence, hold)));
  }

  /** Why it holds itself is said first, and weighs nothing: it is so whatever the cause. */
  private static Weighing held(Cause cause, Hold hold) {
    return new Weighing(cause).because(0, said(hold));
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
        isOfMany(hold),
        WEAK,
        "%,d events came of %,d different records.".formatted(hold.events(), hold.records()));
    lately(evidence)
        .ifPresent(
            own -> {
              flood.because(own.isMore(), STRONG, own.words() + ".");
              flood.although(
                  !own.isMore(), STRONG, own.words() + ": that is no more than on other days.");
            });
    flood.although(hold.alone(), PROVES, "One event alone passed the ceiling.");
    flood.although(
        !hold.path().isEmpty(), STRONG, "What it makes comes back to it, which explains more.");
    return flood;
  }

  private static Weighing ceilingLow(Evidence evidence, Hold hold) {
    Weighing low = new Weighing(Cause.CEILING_LOW).because(hold.alone(), PROVES, said(hold));
    lately(evidence)
        .filter(own -> !own.isMore() && isOfMany(hold) && !hold.alone())
        .ifPresent(
            own ->
                low.because(0, said(hold))
                    .because(STRONG, own.words() + ": that is no more than on other days.")
                    .because(
                        WEAK,
                        "%,d events came of %,d different records."
                            .formatted(hold.events(), hold.records())));
    low.although(!hold.path().isEmpty(), PROVES, "What it makes comes back to it.");
    return low;
  }

  private static String said(Hold hold) {
    return hold.because() + ".";
  }

  /** Whether its events are spread over records as those are that people make. */
  private static boolean isOfMany(Hold hold) {
    return hold.records() > 0 && hold.events() < MANY_EACH * hold.records();
  }

  /** What the bridge made in the last day against other days. */
  private record Lately(long made, double usual) {

    boolean isMore() {
      return made > 3 * usual;
    }

    String words() {
      return "It made %,d tasks in the last day, where %,.0f are usual".formatted(made, usual);
    }
  }

  private static Optional<Lately> lately(Evidence evidence) {
    return evidence.bridges().stream()
        .filter(one -> one.bridge().equals(evidence.name()))
        .findFirst()
        .flatMap(own -> own.usual().map(usual -> new Lately(own.made(), usual)));
  }
}
