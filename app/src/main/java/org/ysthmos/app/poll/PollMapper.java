package org.ysthmos.app.poll;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.poll.PollProgress;

/** How far collections have been followed, in the database. */
@Mapper
interface PollMapper {

  /**
   * One collection that is asked.
   *
   * @param begunAt when it was first followed
   * @param askedAt when an answer came last
   * @param problem why it cannot be read just now
   * @param problemSince since when
   */
  record PollRow(
      String systemId,
      String collectionId,
      Instant begunAt,
      @Nullable String since,
      @Nullable String page,
      @Nullable Instant newest,
      @Nullable String mark,
      int pages,
      int fresh,
      PollState state,
      Instant nextAt,
      int tries,
      @Nullable Instant askedAt,
      @Nullable String problem,
      @Nullable Instant problemSince,
      @Nullable String claim) {

    PollProgress progress() {
      return new PollProgress(
          Optional.ofNullable(since),
          Optional.ofNullable(page),
          Optional.ofNullable(newest),
          Optional.ofNullable(mark),
          pages,
          fresh);
    }

    CollectionRef ref() {
      return new CollectionRef(systemId, collectionId);
    }

    PollRow asked(Instant now) {
      return new PollRow(
          systemId,
          collectionId,
          begunAt,
          since,
          page,
          newest,
          mark,
          pages,
          fresh,
          state,
          nextAt,
          tries,
          now,
          problem,
          problemSince,
          claim);
    }

    PollRow with(PollProgress at) {
      return new PollRow(
          systemId,
          collectionId,
          begunAt,
          at.since().orElse(null),
          at.page().orElse(null),
          at.newest().orElse(null),
          at.mark().orElse(null),
          at.pages(),
          at.fresh(),
          state,
          nextAt,
          tries,
          askedAt,
          problem,
          problemSince,
          claim);
    }
  }

  String COLUMNS =
      """
      system_id, collection_id, begun_at, since, page, newest, mark, pages, fresh, state, next_at,
      tries, asked_at, problem, problem_since, claim
      """;

  @Insert(
      """
      INSERT INTO poll (system_id, collection_id, begun_at, since, pages, fresh, state, next_at,
                        rested_at, tries)
      VALUES (#{system}, #{collection}, #{now}, #{since}, 0, 0, 'IDLE', #{now}, #{now}, 0)
      """)
  void begin(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("now") Instant now,
      @Param("since") @Nullable String since);

  @Select("SELECT " + COLUMNS + " FROM poll ORDER BY system_id, collection_id")
  List<PollRow> all();

  /**
   * An item that was met, with its state.
   *
   * @param aside under which name it was set aside; null if it could be read
   */
  record SeenRow(String item, String state, @Nullable String aside) {}

  @Select(
      "SELECT item, state, aside FROM seen_item WHERE system_id = #{system} AND collection_id = #{collection}")
  List<SeenRow> seen(@Param("system") String system, @Param("collection") String collection);

  @Insert(
      """
      <script>
      MERGE INTO seen_item (system_id, collection_id, item, state, aside)
      KEY (system_id, collection_id, item) VALUES
      <foreach item="i" collection="items" separator=",">
        (#{system}, #{collection}, #{i.item}, #{i.state}, #{i.aside})
      </foreach>
      </script>
      """)
  void meet(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("items") List<SeenRow> items);

  /** Lets an item that could not be read be read again. */
  @Update(
      """
      UPDATE seen_item SET state = #{state}
      WHERE system_id = #{system} AND collection_id = #{collection} AND item = #{item} AND aside IS NOT NULL
      """)
  int again(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("item") String item,
      @Param("state") String state);

  @Delete(
      """
      DELETE FROM seen_item
      WHERE system_id = #{system} AND collection_id = #{collection} AND item = #{item}
      """)
  void gone(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("item") String item);

  /**
   * When a collection that nobody reads just now is read next.
   *
   * @param restedAt when that was written down; null in a row of before this was
   * @param tries how often reading it failed since it last did not
   */
  record NextRow(
      String systemId, String collectionId, Instant nextAt, @Nullable Instant restedAt, int tries) {

    CollectionRef ref() {
      return new CollectionRef(systemId, collectionId);
    }
  }

  @Select(
      """
      SELECT system_id, collection_id, next_at, rested_at, tries FROM poll WHERE state = 'IDLE'
      ORDER BY next_at
      """)
  List<NextRow> idle();

  @Select("SELECT COUNT(*) FROM poll WHERE state = 'READING'")
  int reading();

  @Select(
      "SELECT "
          + COLUMNS
          + " FROM poll WHERE system_id = #{system} AND collection_id = #{collection}")
  @Nullable PollRow find(@Param("system") String system, @Param("collection") String collection);

  @Update(
      """
      UPDATE poll SET state = 'READING', again = FALSE, claim = #{claim}, claimed_until = #{until}
      WHERE system_id = #{system} AND collection_id = #{collection} AND state = 'IDLE'
      """)
  int claim(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("claim") String claim,
      @Param("until") Instant until);

  @Update(
      """
      <script>UPDATE poll SET claimed_until = #{until} WHERE state = 'READING' AND claim IN
      <foreach item="c" collection="claims" open="(" separator="," close=")">#{c}</foreach>
      </script>
      """)
  int renew(@Param("claims") Collection<String> claims, @Param("until") Instant until);

  /**
   * Takes back what nobody renewed in time, or whose time was set by a clock that was ahead.
   *
   * @param running the claims of those who are at work here, whatever a clock says of them
   */
  @Update(
      """
      <script>
      UPDATE poll SET state = 'IDLE', next_at = #{now}, rested_at = #{now}, claim = NULL, claimed_until = NULL
      WHERE state = 'READING' AND (claimed_until &lt; #{now} OR claimed_until > #{longest})
      <foreach item="c" collection="running" separator=" ">AND claim &lt;> #{c}</foreach>
      </script>
      """)
  int takeBack(
      @Param("now") Instant now,
      @Param("longest") Instant longest,
      @Param("running") Collection<String> running);

  /** What stands after a page was kept; written in the transaction that keeps its events. */
  @Update(
      """
      UPDATE poll SET since = #{since}, page = #{page}, newest = #{newest}, mark = #{mark},
        pages = #{pages}, fresh = #{fresh}, tries = 0, asked_at = #{askedAt}
      WHERE system_id = #{systemId} AND collection_id = #{collectionId} AND claim = #{claim}
      """)
  int progress(PollRow poll);

  /** Says what is in the way of a part of it, while the rest is read; nothing if nothing is. */
  @Update(
      """
      UPDATE poll SET problem = #{problem},
        problem_since = CASE WHEN #{problem} IS NULL THEN NULL
          ELSE COALESCE(problem_since, #{now}) END
      WHERE system_id = #{system} AND collection_id = #{collection} AND claim = #{claim}
      """)
  void trouble(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("claim") String claim,
      @Param("problem") @Nullable String problem,
      @Param("now") Instant now);

  /** Lets it be claimed again, not before a time, unless somebody asked for it meanwhile. */
  @Update(
      """
      UPDATE poll SET state = 'IDLE', next_at = CASE WHEN again THEN next_at ELSE #{next} END,
        rested_at = #{now}, claim = NULL, claimed_until = NULL
      WHERE system_id = #{system} AND collection_id = #{collection} AND claim = #{claim}
      """)
  int rest(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("claim") String claim,
      @Param("next") Instant next,
      @Param("now") Instant now);

  @Update(
      """
      UPDATE poll SET state = 'IDLE', next_at = CASE WHEN again THEN next_at ELSE #{next} END,
        rested_at = #{now}, tries = #{tries}, problem = #{problem},
        problem_since = COALESCE(problem_since, #{now}), claim = NULL, claimed_until = NULL
      WHERE system_id = #{system} AND collection_id = #{collection} AND claim = #{claim}
      """)
  int failed(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("claim") String claim,
      @Param("next") Instant next,
      @Param("tries") int tries,
      @Param("problem") String problem,
      @Param("now") Instant now);

  @Update(
      """
      UPDATE poll SET next_at = #{now}, rested_at = #{now}, again = TRUE
      WHERE system_id = #{system} AND collection_id = #{collection}
      """)
  int now(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("now") Instant now);
}
