package org.ysthmos.core.incident;

import static org.assertj.core.api.Assertions.assertThat;
import static org.ysthmos.core.delivery.EffectKind.CHANGE;
import static org.ysthmos.core.delivery.EffectKind.CREATE;
import static org.ysthmos.core.failure.FailureKind.ANSWER_UNKNOWN;
import static org.ysthmos.core.failure.FailureKind.BROKE_HERE;
import static org.ysthmos.core.failure.FailureKind.CHANGED_MEANWHILE;
import static org.ysthmos.core.failure.FailureKind.LOOKUP_AMBIGUOUS;
import static org.ysthmos.core.failure.FailureKind.LOOKUP_EMPTY;
import static org.ysthmos.core.failure.FailureKind.MAPPING_ERROR;
import static org.ysthmos.core.failure.FailureKind.NOT_ALLOWED;
import static org.ysthmos.core.failure.FailureKind.NOT_FOUND;
import static org.ysthmos.core.failure.FailureKind.NOT_SIGNED_IN;
import static org.ysthmos.core.failure.FailureKind.NOT_YET_THERE;
import static org.ysthmos.core.failure.FailureKind.QUOTA_FULL;
import static org.ysthmos.core.failure.FailureKind.RATE_LIMITED;
import static org.ysthmos.core.failure.FailureKind.UNREACHABLE;
import static org.ysthmos.core.failure.FailureKind.UNREADABLE;
import static org.ysthmos.core.failure.FailureKind.VALUE_REFUSED;
import static org.ysthmos.core.incident.Conclusion.Sure.LIKELY;
import static org.ysthmos.core.incident.Conclusion.Sure.POSSIBLE;
import static org.ysthmos.core.incident.Conclusion.Sure.SURE;
import static org.ysthmos.core.incident.Situation.alike;
import static org.ysthmos.core.incident.Situation.away;
import static org.ysthmos.core.incident.Situation.held;
import static org.ysthmos.core.incident.Situation.refused;

import java.time.Duration;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.ysthmos.core.incident.Conclusion.Sure;
import org.ysthmos.core.incident.Evidence.SignIn;

/** What evidence comes to. The situations are of the trade: common practice, no source. */
class CauseFinderTest {

  /** The worst day: three different words on three days, one cause. */
  private static Situation worstDay() {
    return refused()
        .failed(RATE_LIMITED, CREATE, 20, 0)
        .failed(QUOTA_FULL, CREATE, 300, 24)
        .failed(NOT_ALLOWED, CREATE, 16_000, 48)
        .full(4_998, 5_000)
        .calls(12, 90)
        .signIn(SignIn.TAKEN)
        .bridge("Board echo", 3_050, 20)
        .bridge("Hazard", 200, 40);
  }

  private record Case(String what, Situation situation, Cause cause, Sure sure) {}

  private static Stream<Case> cases() {
    return Stream.of(
        new Case("three words on three days and no room", worstDay(), Cause.FULL, SURE),
        new Case(
            "“not allowed” on making, and it is full",
            refused().failed(NOT_ALLOWED, CREATE, 9, 0).full(5_000, 5_000),
            Cause.FULL,
            SURE),
        new Case(
            "over a limit, nobody looked how full it is",
            refused().failed(QUOTA_FULL, CREATE, 9, 0),
            Cause.FULL,
            LIKELY),
        new Case(
            "over a limit, and it had room before",
            refused().failed(QUOTA_FULL, CREATE, 9, 0).fullBefore(101, 5_000),
            Cause.FULL,
            LIKELY),
        new Case(
            "it was over a limit, and has room when it is looked at",
            refused().failed(QUOTA_FULL, CREATE, 9, 0).full(101, 5_000),
            Cause.ROOM_BY_NOW,
            LIKELY),
        new Case(
            "“not allowed” on making, with room over there",
            refused().failed(NOT_ALLOWED, CREATE, 9, 0).full(100, 5_000).signIn(SignIn.TAKEN),
            Cause.NOT_PERMITTED,
            SURE),
        new Case(
            "“not allowed” on changes, though it is nearly full",
            refused().failed(NOT_ALLOWED, CHANGE, 9, 0).full(4_600, 5_000).signIn(SignIn.TAKEN),
            Cause.NOT_PERMITTED,
            SURE),
        new Case(
            "“not allowed” while reading",
            refused().reading(NOT_ALLOWED, "It said no.", 3),
            Cause.NOT_PERMITTED,
            LIKELY),
        new Case(
            "too many calls, and they are ours",
            refused().failed(RATE_LIMITED, CREATE, 40, 0).calls(90, 90),
            Cause.OUR_RATE,
            LIKELY),
        new Case(
            "too many calls, and ours are few",
            refused().failed(RATE_LIMITED, CREATE, 40, 0).calls(5, 90),
            Cause.OTHERS_RATE,
            LIKELY),
        new Case(
            "too many calls, no limit is known",
            refused().failed(RATE_LIMITED, CREATE, 40, 0),
            Cause.OUR_RATE,
            LIKELY),
        new Case(
            "no token is kept",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).signIn(SignIn.NO_TOKEN),
            Cause.NO_TOKEN,
            SURE),
        new Case(
            "not signed in, and not when it was looked at",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).signIn(SignIn.REFUSED),
            Cause.TOKEN_REFUSED,
            SURE),
        new Case(
            "not signed in for a while, and taken again",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).signIn(SignIn.TAKEN),
            Cause.TOKEN_REFUSED,
            POSSIBLE),
        new Case(
            "not signed in, and the token ended",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).tokenEnds(Duration.ofMinutes(-3)),
            Cause.TOKEN_REFUSED,
            SURE),
        new Case(
            "not signed in since the token was changed",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).tokenKept(Duration.ofMinutes(-20)),
            Cause.TOKEN_REFUSED,
            SURE),
        new Case(
            "not signed in, with a token of last year",
            refused().failed(NOT_SIGNED_IN, CREATE, 4, 0).tokenKept(Duration.ofDays(-365)),
            Cause.TOKEN_REFUSED,
            LIKELY),
        new Case(
            "“not allowed” since the token was changed",
            refused().failed(NOT_ALLOWED, CREATE, 9, 0).tokenKept(Duration.ofMinutes(-20)),
            Cause.NOT_PERMITTED,
            SURE),
        new Case(
            "“not allowed”, and the token says that it ended",
            refused().failed(NOT_ALLOWED, CREATE, 9, 0).tokenEnds(Duration.ofHours(-1)),
            Cause.TOKEN_REFUSED,
            SURE),
        new Case(
            "an old token that is still good explains no full system",
            refused()
                .failed(QUOTA_FULL, CREATE, 9, 0)
                .full(5_000, 5_000)
                .tokenKept(Duration.ofDays(-365)),
            Cause.FULL,
            SURE),
        new Case(
            "one system is not reached",
            away()
                .failed(UNREACHABLE, CREATE, 30, 0)
                .outage(UNREACHABLE, "No route.")
                .looked(0, "no"),
            Cause.DOWN,
            SURE),
        new Case(
            "an outage before anything was given up",
            away().outage(UNREACHABLE, "The connection is refused."),
            Cause.DOWN,
            LIKELY),
        new Case(
            "answers do not come, questions are answered",
            away().failed(ANSWER_UNKNOWN, CREATE, 5, 0).looked(2),
            Cause.SLOW,
            LIKELY),
        new Case(
            "answers do not come at all",
            away().failed(ANSWER_UNKNOWN, CREATE, 5, 0).outage(ANSWER_UNKNOWN, "No answer."),
            Cause.SLOW,
            SURE),
        new Case(
            "three systems are not reached",
            away()
                .failed(UNREACHABLE, CREATE, 30, 0)
                .outage(UNREACHABLE, "No route.")
                .alsoAway("Works Ledger", "Post Room"),
            Cause.OUR_NETWORK,
            SURE),
        new Case(
            "one field of many records is refused",
            alike().value(VALUE_REFUSED, "due", "The due day is past.", 12, 12),
            Cause.RULE,
            LIKELY),
        new Case(
            "one field of many records is refused since a version went live",
            alike()
                .value(VALUE_REFUSED, "due", "The due day is past.", 12, 12)
                .newVersion("Hazard", 7, 5),
            Cause.NEW_VERSION,
            SURE),
        new Case(
            "a version of last week is not suspected",
            alike()
                .value(VALUE_REFUSED, "due", "The due day is past.", 12, 12)
                .newVersion("Hazard", 7, -100),
            Cause.RULE,
            LIKELY),
        new Case(
            "a lane was renamed",
            alike()
                .value(VALUE_REFUSED, "lane", "Lane “soon” is not known.", 12, 12)
                .renamed("The lane “soon” is called “next” by now."),
            Cause.NAME_GONE,
            LIKELY),
        new Case(
            "a field was renamed at the source",
            alike()
                .value(MAPPING_ERROR, "title", "“subject” is missing.", 12, 12)
                .changed("“subject” is not there any more; it may be called “topic”."),
            Cause.SHAPE,
            SURE),
        new Case(
            "one record alone",
            alike().value(VALUE_REFUSED, "title", "The title is too long.", 1, 1),
            Cause.ONE_RECORD,
            LIKELY),
        new Case(
            "one record now, and others of the same before",
            alike().value(MAPPING_ERROR, "Due", "“soon” is no day.", 1, 1).before(11),
            Cause.RULE,
            LIKELY),
        new Case(
            "a key that nobody entered",
            alike().reading(LOOKUP_EMPTY, "“o.varela” is not in “stewards”.", 6),
            Cause.KEY_LACKING,
            LIKELY),
        new Case(
            "two of a key",
            alike().reading(LOOKUP_AMBIGUOUS, "Two are called “o.varela”.", 6),
            Cause.TWO_FOUND,
            SURE),
        new Case(
            "tasks that others deleted",
            alike().failed(NOT_FOUND, CHANGE, 3, 0).looked(1),
            Cause.TASK_GONE,
            LIKELY),
        new Case(
            "a place that was moved",
            alike().failed(NOT_FOUND, CREATE, 9, 0).looked(0, "It answers 404."),
            Cause.PLACE_GONE,
            SURE),
        new Case(
            "what is awaited does not come",
            alike().reading(NOT_YET_THERE, "No task of the ticket is made.", 2),
            Cause.NOT_YET,
            LIKELY),
        new Case(
            "a file that cannot be read",
            alike().reading(UNREADABLE, "Line 3 has a quote too many.", 2),
            Cause.SOURCE_UNREADABLE,
            SURE),
        new Case(
            "a fault of ours",
            alike().reading(BROKE_HERE, "Deciding it broke here 6 times.", 2),
            Cause.FAULT_HERE,
            SURE),
        new Case(
            "others write at the same time",
            alike().value(CHANGED_MEANWHILE, "", "It was changed meanwhile.", 9, 1),
            Cause.ONE_RECORD,
            LIKELY),
        new Case(
            "it reacts to what it makes",
            held().hold(false, 118, 120, "Grounds Board", "Works Ledger", "Grounds Board"),
            Cause.LOOP,
            SURE),
        new Case(
            "one record keeps changing", held().hold(false, 1, 120), Cause.ONE_RECORD_RUNS, LIKELY),
        new Case(
            "a flood of real events",
            held().hold(false, 119, 120).bridge("Board echo", 300, 20),
            Cause.FLOOD,
            LIKELY),
        new Case(
            "a ceiling under what comes on any day",
            held().hold(false, 119, 120).bridge("Board echo", 130, 125),
            Cause.CEILING_LOW,
            LIKELY),
        new Case(
            "a loop that is younger than a usual day",
            held()
                .hold(false, 118, 120, "Grounds Board", "Works Ledger", "Grounds Board")
                .bridge("Board echo", 130, 125),
            Cause.LOOP,
            SURE),
        new Case(
            "one event is more than the ceiling",
            held().hold(true, 1, 1),
            Cause.CEILING_LOW,
            SURE));
  }

  @TestFactory
  Stream<DynamicTest> namesTheCause() {
    return cases()
        .map(
            one ->
                DynamicTest.dynamicTest(
                    one.what(),
                    () -> {
                      Conclusion came = CauseFinder.conclude(one.situation().evidence());
                      assertThat(came.first().cause()).as("%s", came).isEqualTo(one.cause());
                      assertThat(came.first().sure()).as("%s", came).isEqualTo(one.sure());
                      assertThat(came.first().speaksFor()).isNotEmpty().doesNotContain("");
                      assertThat(came.first().headline()).doesNotContain("%s").doesNotEndWith(".");
                    }));
  }

  @Test
  void saysWhatSpeaksForAndAgainst() {
    Conclusion came = CauseFinder.conclude(worstDay().evidence());
    assertThat(came.first().headline()).isEqualTo("Grounds Board is full");
    assertThat(came.first().speaksFor())
        .contains(
            "It holds 4,998 of 5,000 open tasks (99 %).",
            "It said first “too many calls”, then “quota full”, then “not allowed”.",
            "Of the 3,250 tasks that we made there in the last day, “Board echo” made 3,050 (93 %).");
    assertThat(came.look()).isEmpty();
    assertThat(came.findings())
        .filteredOn(one -> one.cause() == Cause.NOT_PERMITTED || one.cause() == Cause.OUR_RATE)
        .isEmpty();
  }

  @Test
  void saysHowOldATokenIs() {
    assertThat(
            CauseFinder.conclude(
                    refused()
                        .failed(NOT_SIGNED_IN, CREATE, 4, 0)
                        .tokenKept(Duration.ofDays(-365))
                        .evidence())
                .first()
                .speaksFor())
        .contains("The token was 365 days old by then; many end after a time.");
    assertThat(
            CauseFinder.conclude(
                    refused()
                        .failed(NOT_SIGNED_IN, CREATE, 4, 0)
                        .signIn(SignIn.REFUSED)
                        .tokenKept(Duration.ofHours(2))
                        .evidence())
                .first()
                .speaksAgainst())
        .containsExactly("Another token was kept since the last of them.");
  }

  @Test
  void saysWhereEvidenceDoesNotTellTwoApart() {
    Conclusion notAllowed =
        CauseFinder.conclude(
            refused()
                .failed(NOT_ALLOWED, CREATE, 9, 0)
                .failed(QUOTA_FULL, CREATE, 1, 0)
                .full(4_600, 5_000)
                .evidence());
    assertThat(notAllowed.first().cause()).isEqualTo(Cause.FULL);
    Conclusion twoWays =
        CauseFinder.conclude(refused().failed(NOT_ALLOWED, CREATE, 9, 0).evidence());
    assertThat(twoWays.findings())
        .extracting(Conclusion.Finding::cause)
        .containsExactly(Cause.NOT_PERMITTED, Cause.FULL);
    assertThat(twoWays.look()).contains("See over there what our account may do.");
    Conclusion oneRecord =
        CauseFinder.conclude(
            alike().value(VALUE_REFUSED, "title", "The title is too long.", 1, 1).evidence());
    assertThat(oneRecord.look()).contains("Look at the record at its source.");
  }

  @Test
  void tellsSilenceFromASourceThatCannotBeReadAndFromABusyHour() {
    Conclusion silent = CauseFinder.conclude(Situation.odd(true, 0, 41.6, "").evidence());
    assertThat(silent.first().headline())
        .isEqualTo("Nothing comes from the source of “Hazard report” any more");
    assertThat(silent.first().speaksFor())
        .containsExactly("Nothing came since then, where 42 are usual.");
    Conclusion unread =
        CauseFinder.conclude(Situation.odd(true, 0, 41.6, "It answered 401.").evidence());
    assertThat(unread.first().cause()).isEqualTo(Cause.SOURCE_NOT_READ);
    assertThat(unread.first().headline())
        .isEqualTo("Nothing can be read from the source of “Hazard report”");
    assertThat(unread.first().speaksFor()).containsExactly("Visitor Desk: It answered 401.");
    Conclusion busy = CauseFinder.conclude(Situation.odd(false, 95, 20.2, "").evidence());
    assertThat(busy.first().cause()).isEqualTo(Cause.BUSIER);
    assertThat(busy.first().headline())
        .isEqualTo("Far more comes from the source of “Hazard report” than usual");
    assertThat(busy.first().speaksFor()).containsExactly("95 came in an hour, where 20 are usual.");
  }

  @Test
  void saysSoWhereNothingExplainsIt() {
    Conclusion came = CauseFinder.conclude(held().evidence());
    assertThat(came.first().cause()).isEqualTo(Cause.UNKNOWN);
    assertThat(came.first().sure()).isEqualTo(POSSIBLE);
  }

  @Test
  void isTheSameWhateverTheOrderOfTheEvidence() {
    Situation other =
        refused()
            .bridge("Hazard", 200, 40)
            .bridge("Board echo", 3_050, 20)
            .signIn(SignIn.TAKEN)
            .failed(NOT_ALLOWED, CREATE, 16_000, 48)
            .failed(QUOTA_FULL, CREATE, 300, 24)
            .failed(RATE_LIMITED, CREATE, 20, 0)
            .calls(12, 90)
            .full(4_998, 5_000);
    assertThat(CauseFinder.conclude(other.evidence()))
        .isEqualTo(CauseFinder.conclude(worstDay().evidence()));
  }
}
