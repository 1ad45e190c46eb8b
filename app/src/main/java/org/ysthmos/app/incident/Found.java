package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.List;
import org.ysthmos.core.incident.Conclusion;
import org.ysthmos.core.incident.Evidence;

/**
 * What evidence came to, as it is kept and shown.
 *
 * @param findings possible causes, the likeliest first
 * @param look the one look that would tell the first two apart; empty if they are told apart
 * @param groups what failed
 */
record Found(List<FindingView> findings, String look, List<GroupView> groups) {

  /**
   * A possible cause.
   *
   * @param headline in words, without a full stop
   * @param sure how sure it is, in words
   * @param todo what a person can do
   * @param proof the look that would prove or clear it
   */
  record FindingView(
      String headline,
      String sure,
      List<String> speaksFor,
      List<String> speaksAgainst,
      String todo,
      String proof) {}

  /**
   * Failures that say the same.
   *
   * @param kind in words
   * @param effect what was to be done: {@code CREATE}, {@code CHANGE} and so on; empty if something
   *     was read or decided
   * @param records of how many different records
   * @param first when the first of their events was received
   * @param bridges what the bridges are called
   */
  record GroupView(
      String kind,
      String effect,
      String where,
      String field,
      String code,
      String message,
      int failures,
      int records,
      Instant first,
      Instant last,
      List<String> bridges) {}

  static Found of(Conclusion conclusion, Evidence evidence) {
    return new Found(
        conclusion.findings().stream().map(Found::view).toList(),
        conclusion.look().orElse(""),
        evidence.failures().stream().map(Found::view).toList());
  }

  private static FindingView view(Conclusion.Finding finding) {
    return new FindingView(
        finding.headline(),
        finding.sure().words(),
        finding.speaksFor(),
        finding.speaksAgainst(),
        finding.cause().todo(),
        finding.cause().look());
  }

  private static GroupView view(Evidence.Group group) {
    return new GroupView(
        group.kind().words(),
        group.effect().map(Enum::name).orElse(""),
        group.where(),
        group.field(),
        group.code(),
        group.message(),
        group.count(),
        group.records(),
        group.first(),
        group.last(),
        group.bridges().stream().sorted().toList());
  }

  String headline() {
    return findings.getFirst().headline();
  }
}
