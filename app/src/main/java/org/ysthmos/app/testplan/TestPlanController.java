package org.ysthmos.app.testplan;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.testplan.TestPlanMapper.How;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.app.testplan.TestPlanMapper.ResultRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** What is tested of a bridge, when, and how it went. */
@RestController
@RequestMapping(path = "/api/bridges/{bridge}/tests", produces = MediaType.APPLICATION_JSON_VALUE)
class TestPlanController {

  /** So many results of each test are shown; all are kept. */
  private static final int SHOWN = 12;

  private static final int MOST_ENDED = 50;

  /**
   * How a test went.
   *
   * @param dueOn the day since which it had been due; null if it was not
   */
  record TestResultView(
      boolean passed,
      String words,
      int version,
      @Schema(nullable = true) @Nullable LocalDate dueOn,
      Instant testedAt,
      String testedBy) {}

  /**
   * A test.
   *
   * @param owner who tests it; empty if that is whoever owns the bridge
   * @param everyDays null where a rule says how often
   * @param rule null where a number of days does
   * @param dueOn null if it never is again
   * @param due whether that day has come
   * @param results the newest ones, the newest first
   * @param resultsInAll how many are kept
   */
  record TestPlanView(
      long id,
      String what,
      How how,
      String owner,
      @Schema(nullable = true) @Nullable Integer everyDays,
      @Schema(nullable = true) @Nullable String rule,
      LocalDate firstOn,
      @Schema(nullable = true) @Nullable LocalDate dueOn,
      boolean due,
      int revision,
      List<TestResultView> results,
      int resultsInAll) {}

  /**
   * A test that somebody ended.
   *
   * @param results the newest ones, the newest first
   * @param resultsInAll how many are kept
   */
  record EndedTestView(
      long id, String what, Instant endedAt, List<TestResultView> results, int resultsInAll) {}

  /**
   * A test as it is to be.
   *
   * @param everyDays how many days after the last; null where a rule says how often
   * @param rule in words or as RFC 5545 writes it; null where a number of days says how often
   * @param firstOn the first day on which it may be due
   * @param basedOn the revision that the person saw; 0 for a new one
   */
  record TestPlanWish(
      String what,
      How how,
      String owner,
      @Schema(nullable = true) @Nullable Integer everyDays,
      @Schema(nullable = true) @Nullable String rule,
      LocalDate firstOn,
      int basedOn) {}

  /** How a person says a test went. */
  record TestResultWish(boolean passed, String words) {}

  private final TestPlanMapper mapper;
  private final TestPlans plans;
  private final LiveFeed feed;
  private final AppClock clock;

  TestPlanController(TestPlanMapper mapper, TestPlans plans, LiveFeed feed, AppClock clock) {
    this.mapper = mapper;
    this.plans = plans;
    this.feed = feed;
    this.clock = clock;
  }

  /** Those of a bridge, in the order in which they were planned. */
  @GetMapping
  List<TestPlanView> tests(@PathVariable String bridge) {
    LocalDate today = plans.today();
    return mapper.of(bridge).stream().map(plan -> view(plan, today)).toList();
  }

  /** Those that somebody ended, the last first: what came of them stays. */
  @GetMapping("/ended")
  List<EndedTestView> ended(@PathVariable String bridge) {
    return mapper.ended(bridge, MOST_ENDED).stream()
        .map(
            plan ->
                new EndedTestView(
                    plan.id(),
                    plan.what(),
                    Objects.requireNonNull(plan.endedAt(), "it goes on"),
                    results(plan),
                    mapper.countResults(plan.id())))
        .toList();
  }

  private List<TestResultView> results(PlanRow plan) {
    return mapper.results(plan.id(), SHOWN).stream().map(TestPlanController::view).toList();
  }

  private TestPlanView view(PlanRow plan, LocalDate today) {
    return new TestPlanView(
        plan.id(),
        plan.what(),
        plan.how(),
        plan.owner(),
        plan.everyDays(),
        plan.rule(),
        plan.firstOn(),
        plan.dueOn(),
        TestPlans.isDue(plan, today),
        plan.revision(),
        results(plan),
        mapper.countResults(plan.id()));
  }

  private static TestResultView view(ResultRow result) {
    return new TestResultView(
        result.passed(),
        result.words(),
        result.version(),
        result.dueOn(),
        result.testedAt(),
        result.testedBy());
  }

  /** Plans a test. */
  @PostMapping
  List<TestPlanView> plan(@PathVariable String bridge, @RequestBody TestPlanWish wish) {
    try {
      mapper.add(row(0, bridge, wish));
    } catch (DataIntegrityViolationException e) {
      throw ApiProblem.notFound("bridge", bridge);
    }
    return changed(bridge);
  }

  /** Plans it anew; what came of it before stays. */
  @PutMapping("/{id}")
  List<TestPlanView> change(
      @PathVariable String bridge, @PathVariable long id, @RequestBody TestPlanWish wish) {
    PlanRow unused = plans.find(bridge, id);
    requireChanged(mapper.change(row(id, bridge, wish)));
    return changed(bridge);
  }

  /** Ends it: it is due no more, and its results stay to be read. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable String bridge, @PathVariable long id, @RequestParam int basedOn) {
    PlanRow plan = plans.find(bridge, id);
    requireChanged(mapper.change(plan.ended(basedOn + 1, clock.instant(), By.PERSON.name())));
    feed.changed(bridge, "");
  }

  /** Says how it went. */
  @PostMapping("/{id}/results")
  List<TestPlanView> tested(
      @PathVariable String bridge, @PathVariable long id, @RequestBody TestResultWish wish) {
    plans.keep(plans.find(bridge, id), wish.passed(), TestPlans.result(wish.words()), By.PERSON);
    return changed(bridge);
  }

  /** Decides the pinned examples now, whether or not it is due. */
  @PostMapping("/{id}/run")
  List<TestPlanView> run(@PathVariable String bridge, @PathVariable long id) {
    PlanRow plan = plans.find(bridge, id);
    if (plan.how() != How.EXAMPLES) {
      throw TestPlans.refused("It is tested by hand. Say how it went instead.");
    }
    plans.run(plan, By.PERSON);
    return changed(bridge);
  }

  private List<TestPlanView> changed(String bridge) {
    feed.changed(bridge, "");
    return tests(bridge);
  }

  private static void requireChanged(int rows) {
    if (rows == 0) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          "Somebody else planned it anew since you opened it. Open it again to see how.");
    }
  }

  private PlanRow row(long id, String bridge, TestPlanWish wish) {
    try {
      PlannedTest test =
          new PlannedTest(
              wish.what().strip(),
              wish.how() == How.EXAMPLES,
              wish.owner().strip(),
              wish.everyDays(),
              wish.rule() == null ? null : wish.rule().strip(),
              wish.firstOn());
      return plans.withDue(
          test.row(id, bridge, wish.basedOn() + 1, clock.instant(), By.PERSON.name()));
    } catch (IllegalArgumentException e) {
      throw TestPlans.refused(e.getMessage() + ".");
    }
  }
}
