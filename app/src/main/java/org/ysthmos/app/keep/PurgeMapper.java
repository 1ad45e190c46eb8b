package org.ysthmos.app.keep;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Finds and removes what is older than it is kept, some of it at a time. */
@Mapper
interface PurgeMapper {

  String THESE =
      "<foreach item=\"s\" collection=\"seqs\" open=\"(\" separator=\",\" close=\")\">#{s}</foreach>";

  /** The oldest traces that ended, wait for nobody, and of which nothing is being taken back. */
  @Select(
      """
      SELECT t.seq FROM trace t
      WHERE t.received_at < #{before} AND t.verdict IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM attention a WHERE a.trace_seq = t.seq)
        AND NOT EXISTS (SELECT 1 FROM delivery_work w WHERE w.trace_seq = t.seq)
      ORDER BY t.received_at, t.seq LIMIT #{limit}
      """)
  List<Long> traces(@Param("before") Instant before, @Param("limit") int limit);

  /** The oldest traces that have a story, whose traces ended. */
  @Select(
      """
      SELECT s.trace_seq FROM story s JOIN trace t ON t.seq = s.trace_seq
      WHERE s.trace_seq >= #{from} AND t.received_at < #{before} AND t.verdict IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM attention a WHERE a.trace_seq = t.seq)
      ORDER BY s.trace_seq LIMIT #{limit}
      """)
  List<Long> stories(
      @Param("from") long from, @Param("before") Instant before, @Param("limit") int limit);

  /** The oldest events of which no trace is left. */
  @Select(
      """
      SELECT e.seq FROM event e
      WHERE e.received_at < #{before}
        AND NOT EXISTS (SELECT 1 FROM trace t WHERE t.event_seq = e.seq)
      ORDER BY e.seq LIMIT #{limit}
      """)
  List<Long> events(@Param("before") Instant before, @Param("limit") int limit);

  @Delete("<script>DELETE FROM story WHERE trace_seq IN " + THESE + "</script>")
  void removeStories(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM decided WHERE trace_seq IN " + THESE + "</script>")
  void removeDecided(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM failure WHERE trace_seq IN " + THESE + "</script>")
  void removeFailures(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM delivery WHERE trace_seq IN " + THESE + "</script>")
  void removeDeliveries(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM trace_try WHERE trace_seq IN " + THESE + "</script>")
  void removeTries(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM trace_version WHERE trace_seq IN " + THESE + "</script>")
  void removeVersions(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM trace_cause WHERE trace_seq IN " + THESE + "</script>")
  void removeCauses(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM trace_place WHERE trace_seq IN " + THESE + "</script>")
  void removePlaces(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM synced_step WHERE trace_seq IN " + THESE + "</script>")
  void removeSteps(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM seen_words WHERE trace_seq IN " + THESE + "</script>")
  void removeWords(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM trace WHERE seq IN " + THESE + "</script>")
  void removeTraces(@Param("seqs") List<Long> seqs);

  @Delete("<script>DELETE FROM event WHERE seq IN " + THESE + "</script>")
  void removeEvents(@Param("seqs") List<Long> seqs);

  @Delete("DELETE FROM place_count WHERE slot < #{before}")
  int removePlaceCounts(@Param("before") long before);

  @Delete("DELETE FROM place_effect WHERE slot < #{before}")
  int removePlaceEffects(@Param("before") long before);

  /** Incidents that closed long ago. */
  @Delete("DELETE FROM incident WHERE state = 'CLOSED' AND closed_at < #{before}")
  int removeIncidents(@Param("before") Instant before);

  @Delete(
      """
      DELETE FROM incident_line l
      WHERE NOT EXISTS (SELECT 1 FROM incident i WHERE i.id = l.incident_id)
      """)
  int removeIncidentLines();

  /** Counts of failures of half hours that ended long ago. */
  @Delete("DELETE FROM failure_count WHERE slot < #{slot}")
  int removeFailureCounts(@Param("slot") long slot);

  /** What was taken back, and lists with which nobody began. */
  @Delete(
      """
      DELETE FROM recall
      WHERE COALESCE(ended_at, listed_at) < #{before} AND state NOT IN ('RUNNING', 'MAKING_AGAIN')
      """)
  int removeRecalls(@Param("before") Instant before);

  @Delete(
      """
      DELETE FROM recall_item i WHERE NOT EXISTS (SELECT 1 FROM recall r WHERE r.id = i.recall_id)
      """)
  int removeRecallItems();

  /** What was sent again together. */
  @Delete("DELETE FROM resend WHERE ended_at < #{before}")
  int removeResends(@Param("before") Instant before);

  @Delete(
      """
      DELETE FROM resend_item i WHERE NOT EXISTS (SELECT 1 FROM resend r WHERE r.id = i.resend_id)
      """)
  int removeResendItems();

  /** What was rehearsed holds values of events, and is kept no longer than these. */
  @Delete("DELETE FROM rehearsal WHERE ended_at < #{before}")
  int removeRehearsals(@Param("before") Instant before);

  @Delete(
      """
      DELETE FROM rehearsal_difference d
      WHERE NOT EXISTS (SELECT 1 FROM rehearsal r WHERE r.id = d.rehearsal_id)
      """)
  int removeRehearsalDifferences();

  /** What was found alike long ago, unless a bridge waits for what a person says of it. */
  @Delete(
      """
      DELETE FROM possible_duplicate
      WHERE found_at < #{before} AND NOT (state = 'OPEN' AND waits)
      """)
  int removeDuplicates(@Param("before") Instant before);

  @Select("SELECT MIN(seq) FROM trace")
  @Nullable Long oldestTrace();
}
