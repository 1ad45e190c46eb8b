package org.ysthmos.app.testplan;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Test plans and their results, in the database. */
@Mapper
interface TestPlanMapper {

  /** Who tests. */
  enum How {
    BY_HAND,
    /** The product, which decides the pinned examples. */
    EXAMPLES
  }

  /**
   * A plan.
   *
   * @param owner who tests it; empty if that is whoever owns the bridge
   * @param everyDays null where a rule says how often
   * @param rule null where a number of days does
   * @param dueOn the day on which it is due next, or has been since; null if it never is again
   * @param endedAt when somebody ended it; null while it counts
   */
  record PlanRow(
      long id,
      String bridgeId,
      String what,
      How how,
      String owner,
      @Nullable Integer everyDays,
      @Nullable String rule,
      LocalDate firstOn,
      @Nullable LocalDate dueOn,
      @Nullable Instant endedAt,
      int revision,
      Instant changedAt,
      String changedBy) {

    /** The same, as somebody ended it. */
    PlanRow ended(int revision, Instant now, String by) {
      return new PlanRow(
          id, bridgeId, what, how, owner, everyDays, rule, firstOn, null, now, revision, now, by);
    }
  }

  /**
   * How a test went.
   *
   * @param version the version of the bridge that was tested
   * @param dueOn the day since which it had been due; null if it was not
   * @param testedOn the day, in the zone of the application
   */
  record ResultRow(
      long id,
      long planId,
      boolean passed,
      String words,
      int version,
      @Nullable LocalDate dueOn,
      LocalDate testedOn,
      Instant testedAt,
      String testedBy) {}

  String PLAN =
      "id, bridge_id, what, how, owner, every_days, rule, first_on, due_on, ended_at, revision,"
          + " changed_at, changed_by";
  String RESULT = "id, plan_id, passed, words, version, due_on, tested_on, tested_at, tested_by";

  /** Those of a bridge that count, in the order in which they were made. */
  @Select(
      "SELECT "
          + PLAN
          + " FROM test_plan WHERE bridge_id = #{bridge} AND ended_at IS NULL"
          + " ORDER BY bridge_id, id")
  List<PlanRow> of(@Param("bridge") String bridge);

  /** Those of a bridge that somebody ended, those that ended last first. */
  @Select(
      "SELECT "
          + PLAN
          + " FROM test_plan WHERE bridge_id = #{bridge} AND ended_at IS NOT NULL"
          + " ORDER BY ended_at DESC, id DESC LIMIT #{most}")
  List<PlanRow> ended(@Param("bridge") String bridge, @Param("most") int most);

  /** Those of all bridges that count; there are a few hundred at the most. */
  @Select(
      "SELECT " + PLAN + " FROM test_plan WHERE ended_at IS NULL ORDER BY due_on NULLS LAST, id")
  List<PlanRow> all();

  @Select("SELECT " + PLAN + " FROM test_plan WHERE id = #{id}")
  @Nullable PlanRow find(@Param("id") long id);

  @Insert(
      """
      INSERT INTO test_plan (bridge_id, what, how, owner, every_days, rule, first_on, due_on,
        revision, changed_at, changed_by)
      VALUES (#{bridgeId}, #{what}, #{how}, #{owner}, #{everyDays}, #{rule}, #{firstOn}, #{dueOn},
        #{revision}, #{changedAt}, #{changedBy})
      """)
  void add(PlanRow plan);

  /** For the one who saw the plan before this one. */
  @Update(
      """
      UPDATE test_plan SET what = #{what}, how = #{how}, owner = #{owner},
        every_days = #{everyDays}, rule = #{rule}, first_on = #{firstOn}, due_on = #{dueOn},
        ended_at = #{endedAt}, revision = #{revision}, changed_at = #{changedAt},
        changed_by = #{changedBy}
      WHERE id = #{id} AND revision = #{revision} - 1
      """)
  int change(PlanRow plan);

  /** When it is due next; a plan that was changed meanwhile is left as it is. */
  @Update("UPDATE test_plan SET due_on = #{due} WHERE id = #{id} AND revision = #{revision}")
  int due(
      @Param("id") long id, @Param("revision") int revision, @Param("due") @Nullable LocalDate due);

  @Insert(
      """
      INSERT INTO test_result (plan_id, passed, words, version, due_on, tested_on, tested_at,
        tested_by)
      VALUES (#{planId}, #{passed}, #{words}, #{version}, #{dueOn}, #{testedOn}, #{testedAt},
        #{testedBy})
      """)
  void addResult(ResultRow result);

  /** The newest first. */
  @Select(
      "SELECT "
          + RESULT
          + " FROM test_result WHERE plan_id = #{plan} ORDER BY plan_id DESC, id DESC LIMIT #{most}")
  List<ResultRow> results(@Param("plan") long plan, @Param("most") int most);

  @Select("SELECT COUNT(*) FROM test_result WHERE plan_id = #{plan}")
  int countResults(@Param("plan") long plan);

  /** The newest of each plan that counts. */
  @Select(
      "SELECT "
          + RESULT
          + " FROM test_result WHERE id IN (SELECT (SELECT MAX(r.id) FROM test_result r"
          + " WHERE r.plan_id = p.id) FROM test_plan p WHERE p.ended_at IS NULL)")
  List<ResultRow> newest();
}
