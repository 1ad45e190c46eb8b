package org.ysthmos.app.trace;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A trace as it is kept, without its story. */
public record TraceRow(
    long seq,
    String id,
    String eventId,
    String bridgeId,
    @Nullable Integer bridgeVersion,
    String orderKey,
    String state,
    @Nullable String verdict,
    int tries,
    Instant notBefore,
    Instant receivedAt,
    @Nullable Instant finishedAt,
    @Nullable String title,
    @Nullable String matchText,
    @Nullable String matchHash,
    @Nullable String targetRecord,
    @Nullable String failureKind,
    @Nullable String reason,
    @Nullable String resendOf,
    boolean resent,
    @Nullable String tryDocument,
    @Nullable Instant takenBackAt) {}
