package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;

/**
 * How alike two tasks are: by their titles, and by the fields that a bridge names beside them. The
 * weights are common practice, no source.
 *
 * @param score from 0 to 1
 * @param reasons what speaks for it and what against, as sentences without their full stops
 */
public record TaskLikeness(double score, List<String> reasons) {

  private static final double WEIGHT_OF_FIELDS = 0.3;

  public TaskLikeness {
    reasons = List.copyOf(reasons);
  }

  /**
   * @param fields the names of the fields that are compared, with whether both hold the same; none
   *     if the titles alone count
   */
  public static TaskLikeness of(TitleLikeness title, SequencedMap<String, Boolean> fields) {
    List<String> reasons = new ArrayList<>();
    reasons.add(title.words());
    fields.forEach(
        (name, same) -> reasons.add("“%s” %s".formatted(name, same ? "is the same" : "differs")));
    if (fields.isEmpty()) {
      return new TaskLikeness(title.score(), reasons);
    }
    double same = fields.values().stream().filter(one -> one).count();
    return new TaskLikeness(
        (1 - WEIGHT_OF_FIELDS) * title.score() + WEIGHT_OF_FIELDS * same / fields.size(), reasons);
  }
}
