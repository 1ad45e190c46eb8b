package org.ysthmos.app.testplan;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.app.testplan.TestPlanMapper.ResultRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.app.who.OwnerMapper;
import org.ysthmos.core.bridge.BridgeVersion;

/** When bridges are to be tested, and how it went. */
@Component
public class TestPlans {

  private static final Logger LOG = LoggerFactory.getLogger(TestPlans.class);

  private static final int LONGEST_WORDS = 4000;

  /** So many examples that do not hold are named. */
  private static final int NAMED = 5;

  /**
   * A test that waits for a person.
   *
   * @param owner who tests it: whoever the plan names, or else whoever owns the bridge; empty if
   *     nobody is said to
   * @param dueOn the day since which it is due; null if it is not, but failed
   * @param failedOn the day on which it failed; null if it did not the last time
   * @param words how it went when it failed
   */
  public record Waiting(
      String bridge,
      String name,
      String what,
      String owner,
      @Schema(nullable = true) @Nullable LocalDate dueOn,
      @Schema(nullable = true) @Nullable LocalDate failedOn,
      String words) {}

  /**
   * How the tests of a bridge stand.
   *
   * @param dueOn the first day on which one is due; null if none ever is
   * @param failed how many failed the last time
   */
  public record Standing(@Nullable LocalDate dueOn, int failed) {}

  private final TestPlanMapper mapper;
  private final OwnerMapper owners;
  private final Bridges bridges;
  private final Examples examples;
  private final SampleWorld world;
  private final AppClock clock;
  private final Settings settings;

  TestPlans(
      TestPlanMapper mapper,
      OwnerMapper owners,
      Bridges bridges,
      Examples examples,
      SampleWorld world,
      AppClock clock,
      Settings settings) {
    this.mapper = mapper;
    this.owners = owners;
    this.bridges = bridges;
    this.examples = examples;
    this.world = world;
    this.clock = clock;
    this.settings = settings;
  }

  LocalDate today() {
    return LocalDate.ofInstant(clock.instant(), settings.zone());
  }

  /** Tests that are due or failed, of bridges that are at work, the longest due first. */
  public List<Waiting> waiting() {
    Map<Long, ResultRow> newest = newest();
    Map<String, String> owned = owners.byBridge();
    LocalDate today = today();
    return mapper.all().stream()
        .filter(plan -> isAtWork(plan.bridgeId()))
        .map(
            plan ->
                waiting(
                    plan,
                    plan.owner().isEmpty() ? owned.getOrDefault(plan.bridgeId(), "") : plan.owner(),
                    Optional.ofNullable(newest.get(plan.id())),
                    today))
        .filter(one -> one.dueOn() != null || one.failedOn() != null)
        .toList();
  }

  private Waiting waiting(PlanRow plan, String owner, Optional<ResultRow> newest, LocalDate today) {
    Optional<ResultRow> failed = newest.filter(result -> !result.passed());
    return new Waiting(
        plan.bridgeId(),
        bridges.nameOf(plan.bridgeId()),
        plan.what(),
        owner,
        isDue(plan, today) ? plan.dueOn() : null,
        failed.map(ResultRow::testedOn).orElse(null),
        failed.map(ResultRow::words).orElse(""));
  }

  /** By bridge; one that has no plan is not among them. */
  public Map<String, Standing> standing() {
    Map<Long, ResultRow> newest = newest();
    return mapper.all().stream()
        .collect(
            Collectors.toMap(
                PlanRow::bridgeId,
                plan ->
                    new Standing(
                        plan.dueOn(),
                        newest.containsKey(plan.id()) && !newest.get(plan.id()).passed() ? 1 : 0),
                // They are ordered by the day on which they are due.
                (first, later) -> new Standing(first.dueOn(), first.failed() + later.failed())));
  }

  private Map<Long, ResultRow> newest() {
    return mapper.newest().stream()
        .collect(Collectors.toMap(ResultRow::planId, Function.identity()));
  }

  private boolean isAtWork(String bridge) {
    return bridges.live(bridge).isPresent()
        || bridges.broken().stream().anyMatch(one -> one.id().equals(bridge));
  }

  static boolean isDue(PlanRow plan, LocalDate today) {
    return plan.dueOn() != null && !plan.dueOn().isAfter(today);
  }

  /** Those that the product tests itself and that are due, of bridges that can be used. */
  List<PlanRow> dueByThemselves() {
    LocalDate today = today();
    return mapper.all().stream()
        .filter(plan -> plan.how() == TestPlanMapper.How.EXAMPLES && isDue(plan, today))
        .filter(plan -> bridges.live(plan.bridgeId()).isPresent())
        .toList();
  }

  /** The day on which it is due, as it is planned and was tested so far. */
  static Optional<LocalDate> due(PlanRow plan, Optional<LocalDate> tested) {
    return PlannedTest.of(plan).rhythm().due(plan.firstOn(), tested);
  }

  /**
   * The same plan with the day on which it is due.
   *
   * @throws IllegalArgumentException if what it says of how often is none
   */
  PlanRow withDue(PlanRow plan) {
    Optional<LocalDate> tested =
        plan.id() == 0
            ? Optional.empty()
            : mapper.results(plan.id(), 1).stream().findFirst().map(ResultRow::testedOn);
    return new PlanRow(
        plan.id(),
        plan.bridgeId(),
        plan.what(),
        plan.how(),
        plan.owner(),
        plan.everyDays(),
        plan.rule(),
        plan.firstOn(),
        due(plan, tested).orElse(null),
        plan.endedAt(),
        plan.revision(),
        plan.changedAt(),
        plan.changedBy());
  }

  /**
   * Keeps how a test went; it is due next as its plan says.
   *
   * @throws ApiProblem if there is nothing of the bridge that could have been tested
   */
  @Transactional
  public void keep(PlanRow plan, boolean passed, String words, By by) {
    Instant now = clock.instant();
    LocalDate today = today();
    int version =
        bridges
            .live(plan.bridgeId())
            .map(live -> live.version().number())
            .orElseThrow(() -> ApiProblem.notFound("live bridge", plan.bridgeId()));
    mapper.addResult(
        new ResultRow(
            0,
            plan.id(),
            passed,
            words,
            version,
            isDue(plan, today) ? plan.dueOn() : null,
            today,
            now,
            by.name()));
    // Changed meanwhile: it was counted from what was known then, so that it is counted anew.
    if (mapper.due(plan.id(), plan.revision(), due(plan, Optional.of(today)).orElse(null)) == 0) {
      PlanRow changed = mapper.find(plan.id());
      if (changed != null) {
        int unused =
            mapper.due(
                changed.id(), changed.revision(), due(changed, Optional.of(today)).orElse(null));
      }
    }
  }

  /** Decides the pinned examples of a live bridge, and keeps whether all hold. */
  void run(PlanRow plan, By by) {
    BridgeVersion version =
        bridges
            .live(plan.bridgeId())
            .orElseThrow(() -> ApiProblem.notFound("live bridge", plan.bridgeId()))
            .version();
    List<Examples.Checked> checked;
    try {
      checked = examples.check(plan.bridgeId(), version, world);
    } catch (RuntimeException e) {
      // It is no less a result: kept as one that failed, so that a person sees it and it ends.
      LOG.error("the pinned examples of {} could not be decided", plan.bridgeId(), e);
      keep(plan, false, shortened("They could not be decided: " + e), by);
      return;
    }
    List<String> broken =
        checked.stream()
            .filter(one -> !one.holds())
            .map(one -> "“%s”".formatted(one.example().name()))
            .toList();
    if (checked.isEmpty()) {
      keep(plan, false, "The bridge has no pinned examples. Pin some at its desk.", by);
    } else if (broken.isEmpty()) {
      keep(
          plan,
          true,
          checked.size() == 1
              ? "The pinned example holds."
              : "All %,d pinned examples hold.".formatted(checked.size()),
          by);
    } else {
      String others = broken.size() > NAMED ? " and %,d more".formatted(broken.size() - NAMED) : "";
      String named = String.join(", ", broken.subList(0, Math.min(NAMED, broken.size()))) + others;
      keep(
          plan,
          false,
          shortened(
              "%,d of %,d pinned examples give something else: %s. The desk shows what."
                  .formatted(broken.size(), checked.size(), named)),
          by);
    }
  }

  private static String shortened(String words) {
    return words.length() <= LONGEST_WORDS ? words : words.substring(0, LONGEST_WORDS - 1) + "…";
  }

  PlanRow find(String bridge, long id) {
    PlanRow plan = mapper.find(id);
    if (plan == null || !plan.bridgeId().equals(bridge) || plan.endedAt() != null) {
      throw ApiProblem.notFound("test", String.valueOf(id));
    }
    return plan;
  }

  static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, "Not kept", detail);
  }

  /**
   * What a person writes of how a test went.
   *
   * @throws ApiProblem if it is too long or nothing
   */
  static String result(String written) {
    String words = written.strip();
    if (words.isEmpty() || words.length() > LONGEST_WORDS) {
      throw refused("Write 1 to %,d characters.".formatted(LONGEST_WORDS));
    }
    return words;
  }
}
