package org.ysthmos.app.recall;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is to be taken back.
 *
 * @param bridges the ids of the bridges that made it
 * @param version the only version that is meant; null for all
 * @param trace the only trace that is meant; null for all of the span
 * @param incident the incident that it is asked for from; null if from none
 * @param from what was made earlier stays
 * @param until what was made later stays
 */
record RecallScope(
    List<String> bridges,
    @Nullable Integer version,
    @Nullable String trace,
    @Nullable Long incident,
    Instant from,
    Instant until) {
  RecallScope {
    bridges = List.copyOf(bridges);
  }
}
