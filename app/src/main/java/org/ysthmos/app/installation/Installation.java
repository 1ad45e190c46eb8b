package org.ysthmos.app.installation;

import java.util.Map;
import java.util.Objects;
import java.util.SortedMap;
import java.util.TreeMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.installation.Plan.Does;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.DiskForce;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;

/** What describes this installation, and making it as documents say. */
@Component
class Installation {

  private static final Logger LOG = LoggerFactory.getLogger(Installation.class);

  /** What a folder that is applied makes. */
  private static final By APPLIED = new By(By.Kind.PROGRAM, "applied folder");

  private final Planning planning;
  private final Systems systems;
  private final Tables tables;
  private final Bridges bridges;
  private final Loops loops;
  private final TransactionTemplate transaction;
  private final DiskForce disk;
  private final WorkSignals signals;
  private final LiveFeed feed;

  Installation(
      Planning planning,
      Systems systems,
      Tables tables,
      Bridges bridges,
      Loops loops,
      TransactionTemplate transaction,
      DiskForce disk,
      WorkSignals signals,
      LiveFeed feed) {
    this.planning = planning;
    this.systems = systems;
    this.tables = tables;
    this.bridges = bridges;
    this.loops = loops;
    this.transaction = transaction;
    this.disk = disk;
    this.signals = signals;
    this.feed = feed;
  }

  /** All documents that describe it, by path. */
  SortedMap<String, String> documents() {
    return planning.here();
  }

  Plan plan(Map<String, String> folder) {
    return planning.of(folder);
  }

  /**
   * Does what a plan says, all of it or nothing: a kill at any moment leaves it as it was, or done.
   *
   * @param folder the documents that the plan was made of
   * @param plan the id of the plan that was shown
   * @return the plan that was carried out, without the results of bridges
   * @throws ApiProblem if it would be another plan by now, or cannot be carried out
   */
  synchronized Plan apply(Map<String, String> folder, String plan) {
    Plan now = planning.withoutResults(folder);
    requireSeen(plan, now.id());
    if (!now.problems().isEmpty()) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "Not applied", String.join("\n", now.problems()));
    }
    try {
      alone(
          () -> {
            // Nobody changes anything from here on, but somebody may have since it was planned.
            requireSeen(plan, planning.id(folder));
            transaction.executeWithoutResult(status -> carryOut(now, new TreeMap<>(folder)));
          });
    } catch (RuntimeException e) {
      // What is in memory follows what is kept, and nothing of it is.
      asKept();
      throw e;
    }
    disk.force();
    // Each is made of what came before it; in the end all of it is there.
    asKept();
    LOG.info("plan {} is applied: {} documents", now.id(), now.lines().size());
    signals.raiseAll();
    feed.changed("", "");
    return now;
  }

  private static void requireSeen(String seen, String now) {
    if (!now.equals(seen)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Another plan",
          "What is here, or the folder, changed since plan %s was made. Look at the plan again."
              .formatted(seen));
    }
  }

  /**
   * While nobody else changes any of it: who would wait for a row that is changed here would hold
   * what the next change here waits for. Whoever needs several of them takes them in this order.
   */
  private void alone(Runnable changes) {
    loops.together(() -> tables.together(() -> systems.together(changes)));
  }

  private void carryOut(Plan plan, SortedMap<String, String> folder) {
    for (Plan.PlannedDocument line : plan.lines()) {
      Sort sort = planning.sortOf(line.path()).orElseThrow();
      if (line.does() == Does.REMOVED) {
        sort.remove(line.path(), APPLIED);
      } else {
        sort.put(line.path(), Objects.requireNonNull(folder.get(line.path())), APPLIED);
      }
    }
  }

  private void asKept() {
    systems.refresh();
    tables.refresh();
    bridges.refresh();
  }
}
