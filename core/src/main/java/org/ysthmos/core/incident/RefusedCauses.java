package org.ysthmos.core.incident;

import static org.ysthmos.core.incident.Weighing.PROVES;
import static org.ysthmos.core.incident.Weighing.STRONG;
import static org.ysthmos.core.incident.Weighing.WEAK;

import java.util.Comparator;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.Evidence.Group;
import org.ysthmos.core.incident.Evidence.Quota;
import org.ysthmos.core.incident.Evidence.Rate;
import org.ysthmos.core.incident.Evidence.SignIn;

/** Why a system refuses what is asked of it. */
final class RefusedCauses {

  /** From here on a system counts as full: what others make meanwhile is not seen. */
  private static final int FULL_PERCENT = 98;

  /** Below this it has room. */
  private static final int ROOM_PERCENT = 90;

  private RefusedCauses() {}

  static Stream<Weighing> weigh(Evidence evidence) {
    return Stream.of(
        full(evidence),
        roomByNow(evidence),
        ourRate(evidence),
        othersRate(evidence),
        SignInCauses.noToken(evidence),
        SignInCauses.tokenRefused(evidence),
        notPermitted(evidence));
  }

  private static boolean says(Evidence evidence, FailureKind kind) {
    return evidence.count(kind) > 0;
  }

  /** Whether only making is refused; changing and reading are not. */
  private static boolean onlyCreating(Evidence evidence) {
    return evidence.failures().stream()
        .filter(one -> one.kind() != FailureKind.RATE_LIMITED)
        .map(Group::effect)
        .allMatch(Optional.of(EffectKind.CREATE)::equals);
  }

  private static Weighing full(Evidence evidence) {
    Weighing full = new Weighing(Cause.FULL);
    boolean refused =
        says(evidence, FailureKind.QUOTA_FULL) || says(evidence, FailureKind.NOT_ALLOWED);
    full.because(
        says(evidence, FailureKind.QUOTA_FULL), STRONG, "It says itself that a limit is reached.");
    Optional<Quota> quota = quota(evidence);
    quota.ifPresent(
        said -> {
          String filled = filled(said);
          full.because(said.percent() >= FULL_PERCENT, PROVES, filled + ".");
          full.because(
              said.percent() >= ROOM_PERCENT && said.percent() < FULL_PERCENT,
              WEAK,
              filled + ", which is nearly all.");
          full.although(said.percent() < ROOM_PERCENT, PROVES, filled + ": there is room.");
        });
    boolean filling = quota.filter(said -> said.percent() >= ROOM_PERCENT).isPresent();
    full.because(
        says(evidence, FailureKind.NOT_ALLOWED) && onlyCreating(evidence) && quota.isEmpty(),
        WEAK,
        "Only making something is refused; nobody looked how full it is.");
    full.because(
        filling && says(evidence, FailureKind.NOT_ALLOWED) && onlyCreating(evidence),
        WEAK,
        "“Not allowed” comes only where something is made, as if there were no room for it.");
    full.because(filling && order(evidence).contains(","), WEAK, order(evidence));
    full.although(!refused, STRONG, "Nothing was refused for good, only put off.");
    full.although(
        says(evidence, FailureKind.NOT_ALLOWED) && !onlyCreating(evidence),
        WEAK,
        "Other things than making are refused too.");
    fillers(evidence).filter(any -> filling).ifPresent(words -> full.because(0, words));
    return full;
  }

  /** What it said first, then, and after that. */
  private static String order(Evidence evidence) {
    String words = "";
    for (Group one : evidence.failures()) {
      String kind = "“" + one.kind().words() + "”";
      if (!words.contains(kind)) {
        words += words.isEmpty() ? "It said first " + kind : ", then " + kind;
      }
    }
    return words + ".";
  }

  /** Who made most there of late. */
  private static Optional<String> fillers(Evidence evidence) {
    long all = evidence.bridges().stream().mapToLong(Evidence.Load::made).sum();
    return evidence.bridges().stream()
        .max(Comparator.comparingLong(Evidence.Load::made))
        .filter(most -> most.made() > 0)
        .map(
            most ->
                "Of the %,d tasks that we made there in the last day, “%s” made %,d (%d %%)."
                    .formatted(all, most.bridge(), most.made(), most.made() * 100 / all));
  }

  private static Weighing roomByNow(Evidence evidence) {
    Weighing room = new Weighing(Cause.ROOM_BY_NOW);
    boolean said = says(evidence, FailureKind.QUOTA_FULL);
    quota(evidence)
        .filter(quota -> said && quota.percent() < ROOM_PERCENT)
        .ifPresent(
            quota ->
                room.because(STRONG, "It said itself that a limit is reached.")
                    .because(WEAK, filled(quota) + ": there is room."));
    return room;
  }

  /** How full it is; that it had room before it refused says nothing. */
  private static Optional<Quota> quota(Evidence evidence) {
    return evidence
        .place()
        .quota()
        .filter(
            said ->
                said.percent() >= ROOM_PERCENT
                    || evidence.failures().stream()
                        .noneMatch(failed -> failed.last().isAfter(said.at())));
  }

  private static String filled(Quota quota) {
    return "It holds %,d of %,d %s (%d %%)"
        .formatted(quota.used(), quota.most(), quota.of(), quota.percent());
  }

  private static Weighing ourRate(Evidence evidence) {
    Weighing rate = limited(evidence, Cause.OUR_RATE);
    Optional<Rate> ours = evidence.place().rate();
    ours.ifPresent(
        said -> {
          boolean much = said.made() * 10 >= said.most() * 9;
          rate.because(much, STRONG, made(said) + ", which is all that it allows.");
          rate.although(!much, STRONG, made(said) + ": far fewer than it allows.");
        });
    rate.because(
        ours.isEmpty() && says(evidence, FailureKind.RATE_LIMITED),
        WEAK,
        "Its document names no limit, so that we do not keep to one.");
    return rate;
  }

  private static Weighing othersRate(Evidence evidence) {
    Weighing rate = limited(evidence, Cause.OTHERS_RATE);
    Optional<Rate> ours = evidence.place().rate();
    ours.ifPresent(
        said -> {
          boolean few = said.made() * 10 < said.most() * 9;
          rate.because(
              few, STRONG, made(said) + ", fewer than it allows: somebody else makes the rest.");
          rate.although(!few, STRONG, made(said) + ": that alone is all it allows.");
        });
    rate.although(
        ours.isEmpty(), 1, "Nobody knows how many calls it allows, so that it may be ours alone.");
    return rate;
  }

  private static Weighing limited(Evidence evidence, Cause cause) {
    Weighing rate = new Weighing(cause);
    int limited = evidence.count(FailureKind.RATE_LIMITED);
    rate.because(limited > 0, WEAK, "It said “too many calls” to %s.".formatted(events(limited)));
    rate.although(
        limited < evidence.count(),
        STRONG,
        "It also refuses in other words, which waiting does not mend.");
    rate.although(limited == 0, PROVES, "It never said “too many calls”.");
    return rate;
  }

  private static String made(Rate rate) {
    return "We made %,d of %,d calls in the last %,d seconds"
        .formatted(rate.made(), rate.most(), rate.per().toSeconds());
  }

  static String events(int count) {
    return count == 1 ? "one event" : "%,d events".formatted(count);
  }

  private static Weighing notPermitted(Evidence evidence) {
    int refused = evidence.count(FailureKind.NOT_ALLOWED);
    Weighing permitted = new Weighing(Cause.NOT_PERMITTED);
    permitted.because(
        refused > 0, STRONG, "It said “not allowed” to %s.".formatted(events(refused)));
    permitted.because(
        refused > 0 && !onlyCreating(evidence),
        WEAK,
        "It is so for more than making something, which a full system would still let us do.");
    permitted.because(
        refused > 0 && evidence.place().signIn() == SignIn.TAKEN,
        WEAK,
        "It knows who we are: it answered a question of ours.");
    if (refused > 0) {
      SignInCauses.changedBefore(evidence)
          .ifPresent(
              words -> permitted.because(STRONG, words + " Another may be allowed other things."));
    }
    quota(evidence)
        .ifPresent(
            said -> {
              permitted.although(
                  said.percent() >= FULL_PERCENT,
                  PROVES,
                  "It is full, and to some systems full is “not allowed”.");
              permitted.because(
                  refused > 0 && said.percent() < ROOM_PERCENT, WEAK, "There is room over there.");
            });
    permitted.although(
        says(evidence, FailureKind.QUOTA_FULL), WEAK, "It also says that a limit is reached.");
    return permitted;
  }
}
