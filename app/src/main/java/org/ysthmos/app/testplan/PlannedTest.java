package org.ysthmos.app.testplan;

import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.testplan.TestPlanMapper.How;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.core.testplan.TestRhythm;

/**
 * A test as it is planned, for whoever keeps that as a document. One of {@code everyDays} and
 * {@code rule} says how often.
 *
 * @param what what is tested, 1 to 400 characters
 * @param itself whether the product tests it, by deciding the pinned examples of the bridge
 * @param owner who tests it; empty if that is whoever owns the bridge
 * @param rule in words or as RFC 5545 writes it
 * @param firstOn the first day on which it may be due, in the zone of the application
 */
public record PlannedTest(
    String what,
    boolean itself,
    String owner,
    @Nullable Integer everyDays,
    @Nullable String rule,
    LocalDate firstOn) {

  private static final int LONGEST_WHAT = 400;
  private static final int LONGEST_OWNER = 200;

  /**
   * @throws IllegalArgumentException if it cannot be planned so
   */
  public PlannedTest {
    if (what.isBlank() || what.length() > LONGEST_WHAT) {
      throw new IllegalArgumentException(
          "what is tested takes 1 to %,d characters".formatted(LONGEST_WHAT));
    }
    if (owner.length() > LONGEST_OWNER) {
      throw new IllegalArgumentException(
          "a name has at most %,d characters".formatted(LONGEST_OWNER));
    }
    if ((everyDays == null) == (rule == null)) {
      throw new IllegalArgumentException("say how often: every so many days, or by a rule");
    }
    if (rule != null && rule.length() > LONGEST_WHAT) {
      throw new IllegalArgumentException(
          "a rule has at most %,d characters".formatted(LONGEST_WHAT));
    }
    TestRhythm unused = rhythm(everyDays, rule);
  }

  static PlannedTest of(PlanRow row) {
    return new PlannedTest(
        row.what(),
        row.how() == How.EXAMPLES,
        row.owner(),
        row.everyDays(),
        row.rule(),
        row.firstOn());
  }

  TestRhythm rhythm() {
    return rhythm(everyDays, rule);
  }

  private static TestRhythm rhythm(@Nullable Integer everyDays, @Nullable String rule) {
    return everyDays != null
        ? new TestRhythm.Every(everyDays)
        : TestRhythm.ByRule.said(String.valueOf(rule));
  }

  /** As it is kept, not yet with the day on which it is due. */
  PlanRow row(long id, String bridge, int revision, Instant now, String by) {
    How how = itself ? How.EXAMPLES : How.BY_HAND;
    return new PlanRow(
        id, bridge, what, how, owner, everyDays, rule, firstOn, null, null, revision, now, by);
  }
}
