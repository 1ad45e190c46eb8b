package org.ysthmos.app.testplan;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.app.testplan.TestPlanMapper.PlanRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** The tests of bridges as they are planned, for whoever keeps that as a document. */
@Component
public class PlannedTests {

  private final TestPlanMapper mapper;
  private final TestPlans plans;
  private final AppClock clock;

  PlannedTests(TestPlanMapper mapper, TestPlans plans, AppClock clock) {
    this.mapper = mapper;
    this.plans = plans;
    this.clock = clock;
  }

  /** Those that count, by bridge, in the order in which they were planned. */
  public SortedMap<String, List<PlannedTest>> all() {
    return mapper.all().stream()
        .sorted(Comparator.comparingLong(PlanRow::id))
        .collect(
            Collectors.groupingBy(
                PlanRow::bridgeId,
                TreeMap::new,
                Collectors.mapping(PlannedTest::of, Collectors.toList())));
  }

  /**
   * Plans just these of a bridge, inside a change. One by whose words another was planned before is
   * that one, with all that came of it; what is not among them ends.
   */
  public void keep(String bridge, List<PlannedTest> wanted, By by) {
    List<PlanRow> before = new ArrayList<>(mapper.of(bridge));
    Instant now = clock.instant();
    for (PlannedTest test : wanted) {
      Optional<PlanRow> same =
          before.stream().filter(row -> row.what().equals(test.what())).findFirst();
      if (same.isEmpty()) {
        mapper.add(plans.withDue(test.row(0, bridge, 1, now, by.name())));
      } else {
        PlanRow row = same.get();
        before.remove(row);
        if (!PlannedTest.of(row).equals(test)) {
          change(plans.withDue(test.row(row.id(), bridge, row.revision() + 1, now, by.name())));
        }
      }
    }
    before.forEach(row -> change(row.ended(row.revision() + 1, now, by.name())));
  }

  private void change(PlanRow row) {
    if (mapper.change(row) == 0) {
      throw new IllegalStateException("a test was planned anew meanwhile: " + row.id());
    }
  }
}
