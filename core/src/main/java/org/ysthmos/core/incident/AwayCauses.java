package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.util.stream.Stream;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.Evidence.Outage;

/** Why a system does not answer. */
final class AwayCauses {

  private AwayCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    return Stream.of(down(evidence), slow(evidence), ourNetwork(evidence));
  }

  private static boolean nothingAnswers(Evidence evidence) {
    return evidence.place().answering() == 0 && !evidence.place().problems().isEmpty();
  }

  private static Weighing down(Evidence evidence) {
    Weighing down = new Weighing(Cause.DOWN);
    evidence
        .place()
        .outage()
        .map(Outage::last)
        .ifPresent(last -> down.because(STRONG, "The last call came to: " + last));
    down.because(
        evidence.count(FailureKind.UNREACHABLE) > 0,
        STRONG,
        "Calls were not taken, for as long as they were tried.");
    down.because(nothingAnswers(evidence), WEAK, "No place of it answered when it was looked at.");
    down.although(
        evidence.place().outage().isEmpty() && evidence.place().answering() > 0,
        STRONG,
        "It answers by now.");
    down.although(
        evidence.place().outage().isEmpty() && evidence.count(FailureKind.UNREACHABLE) == 0,
        WEAK,
        "Other calls are taken.");
    return down;
  }

  private static Weighing slow(Evidence evidence) {
    int unknown = evidence.count(FailureKind.ANSWER_UNKNOWN);
    boolean lastToo =
        evidence
            .place()
            .outage()
            .filter(one -> one.kind() == FailureKind.ANSWER_UNKNOWN)
            .isPresent();
    return new Weighing(Cause.SLOW)
        .because(
            unknown > 0,
            STRONG,
            "Calls were taken, and no answer came: nobody knows whether they were carried out.")
        .because(lastToo, STRONG, "The last call was taken too, and was not answered in time.")
        .because(
            unknown > 0 && evidence.place().answering() > 0,
            WEAK,
            "Small questions are answered, so that it is there.")
        .although(
            evidence.count(FailureKind.UNREACHABLE) > 0, WEAK, "Other calls were not even taken.");
  }

  private static Weighing ourNetwork(Evidence evidence) {
    int others = evidence.otherSystemsAway().size();
    return new Weighing(Cause.OUR_NETWORK)
        .because(
            others == 1,
            STRONG,
            evidence.otherSystemsAway().stream().findFirst().orElse("")
                + " does not answer either.")
        .because(
            others > 1,
            PROVES + STRONG,
            "%s do not answer either."
                .formatted(String.join(" and ", evidence.otherSystemsAway())));
  }
}
