package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.Optional;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.Evidence.Group;
import org.ysthmos.core.incident.Evidence.SignIn;
import org.ysthmos.core.incident.Evidence.Token;

/** Why a system does not know us. */
final class SignInCauses {

  /**
   * Tokens that end by themselves mostly do after 90 days or a year. Common practice, no source.
   */
  private static final Duration OLD = Duration.ofDays(89);

  private SignInCauses() {}

  static Weighing noToken(Evidence evidence) {
    return new Weighing(Cause.NO_TOKEN)
        .because(
            evidence.place().signIn() == SignIn.NO_TOKEN,
            PROVES + WEAK,
            "No secret of the name in its document is kept here.");
  }

  static Weighing tokenRefused(Evidence evidence) {
    SignIn signIn = evidence.place().signIn();
    int unknown = evidence.count(FailureKind.NOT_SIGNED_IN);
    Weighing refused =
        new Weighing(Cause.TOKEN_REFUSED)
            .because(
                unknown > 0,
                STRONG,
                "It said “not signed in” to %s.".formatted(RefusedCauses.events(unknown)))
            .because(
                signIn == SignIn.REFUSED,
                STRONG,
                "It did not take our token when it was looked at.")
            .although(
                signIn == SignIn.TAKEN && unknown == 0,
                PROVES,
                "It took our token when it was looked at.")
            .although(
                signIn == SignIn.TAKEN && unknown > 0,
                WEAK,
                "It took our token again when it was looked at.")
            .although(signIn == SignIn.NO_TOKEN, PROVES, "We have none.");
    weighAge(evidence, refused, unknown > 0 || signIn == SignIn.REFUSED);
    return refused;
  }

  /** How old a token is says nothing by itself, only beside a refusal; that it ended does. */
  private static void weighAge(Evidence evidence, Weighing refused, boolean isRefused) {
    evidence
        .place()
        .token()
        .flatMap(Token::ends)
        .filter(ends -> !ends.isAfter(evidence.now()))
        .ifPresent(
            ends ->
                refused.because(
                    PROVES,
                    "The token says of itself that it ended %s ago."
                        .formatted(TimeBetween.words(ends, evidence.now()))));
    if (!isRefused) {
      return;
    }
    changedBefore(evidence).ifPresent(words -> refused.because(STRONG, words));
    since(evidence)
        .ifPresent(
            since -> {
              Optional<Instant> first = first(evidence);
              first
                  .filter(failed -> since.isBefore(failed.minus(OLD)))
                  .ifPresent(
                      failed ->
                          refused.because(
                              WEAK,
                              "The token was %s old by then; many end after a time."
                                  .formatted(TimeBetween.words(since, failed))));
              boolean later =
                  first.isPresent()
                      && evidence.failures().stream()
                          .allMatch(failed -> failed.last().isBefore(since));
              refused.although(later, STRONG, "Another token was kept since the last of them.");
            });
  }

  /** That the token was changed shortly before anything failed; empty if it was not. */
  static Optional<String> changedBefore(Evidence evidence) {
    return since(evidence)
        .flatMap(
            since ->
                first(evidence)
                    .filter(failed -> TimeBetween.isShort(since, failed))
                    .map(
                        failed ->
                            "The token was changed %s before the first of them."
                                .formatted(TimeBetween.words(since, failed))));
  }

  private static Optional<Instant> since(Evidence evidence) {
    return evidence.place().token().flatMap(Token::since);
  }

  private static Optional<Instant> first(Evidence evidence) {
    return evidence.failures().stream().map(Group::first).min(Comparator.naturalOrder());
  }
}
