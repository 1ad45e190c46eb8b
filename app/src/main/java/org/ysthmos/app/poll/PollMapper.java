package org.ysthmos.app.poll;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.poll.PollProgress;

/** How far collections have been followed, in the database. */
@Mapper
interface PollMapper {

  /**
   * One collection that is asked.
   *
   * @param begunAt when it was first followed
   * @param state {@code idle} or {@code reading}
   * @param askedAt when an answer came last
   * @param problem why it cannot be read just now
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
      String state,
      Instant nextAt,
      int tries,
      @Nullable Instant askedAt,
      @Nullable String problem) {

    PollProgress progress() {
      return new PollProgress(
          Optional.ofNullable(since),
          Optional.ofNullable(page),
          Optional.ofNullable(newest),
          Optional.ofNullable(mark),
          pages,
          fresh);
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
          problem);
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
          problem);
    }
  }

  @Insert(
      """
      INSERT INTO poll (system_id, collection_id, begun_at, since, pages, fresh, state, next_at, tries)
      VALUES (#{system}, #{collection}, #{now}, #{since}, 0, 0, 'idle', #{now}, 0)
      """)
  void begin(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("now") Instant now,
      @Param("since") @Nullable String since);

  @Select("SELECT * FROM poll ORDER BY system_id, collection_id")
  List<PollRow> all();

  @Select("SELECT * FROM poll WHERE system_id = #{system} AND collection_id = #{collection}")
  @Nullable PollRow find(@Param("system") String system, @Param("collection") String collection);

  /** While it is read its next time lies far off, so that asking at once is not forgotten. */
  @Update(
      """
      UPDATE poll SET state = 'reading', next_at = TIMESTAMP '9999-01-01 00:00:00+00'
      WHERE system_id = #{systemId} AND collection_id = #{collectionId} AND state = 'idle'
      """)
  int claim(PollRow poll);

  /** What stands after a page was kept; written in the transaction that keeps its events. */
  @Update(
      """
      UPDATE poll SET since = #{since}, page = #{page}, newest = #{newest}, mark = #{mark},
        pages = #{pages}, fresh = #{fresh}, tries = 0, problem = NULL, asked_at = #{askedAt}
      WHERE system_id = #{systemId} AND collection_id = #{collectionId}
      """)
  void progress(PollRow poll);

  /** Lets it be claimed again, not before a time. */
  @Update(
      """
      UPDATE poll SET state = 'idle', next_at = LEAST(next_at, #{next})
      WHERE system_id = #{system} AND collection_id = #{collection}
      """)
  void rest(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("next") Instant next);

  @Update(
      """
      UPDATE poll SET state = 'idle', next_at = LEAST(next_at, #{next}), tries = #{tries}, problem = #{problem}
      WHERE system_id = #{system} AND collection_id = #{collection}
      """)
  void failed(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("next") Instant next,
      @Param("tries") int tries,
      @Param("problem") String problem);

  @Update(
      """
      UPDATE poll SET next_at = #{now}
      WHERE system_id = #{system} AND collection_id = #{collection}
      """)
  int now(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("now") Instant now);

  /** After a stop nobody reads any more; what was broken off goes on at once. */
  @Update("UPDATE poll SET state = 'idle', next_at = #{now} WHERE state = 'reading'")
  void releaseAll(Instant now);
}
