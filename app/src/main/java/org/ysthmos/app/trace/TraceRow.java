package org.ysthmos.app.trace;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.FailureKind;

/**
 * A trace as it is kept, without its story.
 *
 * @param verdict null while it is under way
 * @param resendOf the id of the trace that it sends again
 * @param resentAs the id of the trace that sends it again
 * @param isTry whether a draft carries it
 */
public record TraceRow(
    long seq,
    String id,
    long eventSeq,
    String bridgeId,
    @Nullable Integer bridgeVersion,
    String orderKey,
    @Nullable Verdict verdict,
    int tries,
    Instant receivedAt,
    @Nullable Instant finishedAt,
    @Nullable String title,
    @Nullable String matchText,
    @Nullable String matchHash,
    @Nullable String targetRecord,
    @Nullable FailureKind failureKind,
    @Nullable String reason,
    @Nullable String resendOf,
    @Nullable String resentAs,
    boolean isTry,
    @Nullable Instant takenBackAt) {

  /** The queue of all tries, which no bridge can be called. */
  public static final String TRIES = "tries/";

  /** The queue in which it is worked off. */
  public String queue() {
    return isTry ? TRIES : bridgeId;
  }
}
