package org.ysthmos.app.trace;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.trace.FailureMapper.FailureRow;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.failure.FailureSignature;

/**
 * Where every trace ends: with its verdict, counted, and with what failed where a person reads it.
 * All of it inside the change that ends it.
 */
@Component
public class TraceEnds {

  /** How long the slots are in which traces are counted. */
  public static final Duration SLOT = Duration.ofMinutes(30);

  private final TraceMapper traces;
  private final TraceQueue queue;
  private final FailureMapper failures;

  TraceEnds(TraceMapper traces, TraceQueue queue, FailureMapper failures) {
    this.traces = traces;
    this.queue = queue;
    this.failures = failures;
  }

  /** Which half hour a moment is in, counted from 1970. */
  public static long slot(Instant at) {
    return Math.floorDiv(at.getEpochSecond(), SLOT.toSeconds());
  }

  /** Keeps what failed of a trace, wherever it happened. */
  public void keep(long trace, String system, String collection, List<Failure> failed) {
    int place = failures.countOf(trace);
    for (Failure failure : failed) {
      failures.add(
          new FailureRow(
              trace,
              place++,
              failure.kind(),
              system,
              collection,
              Words.limited(failure.field().orElse(""), 300),
              Words.limited(failure.code().orElse(""), 64),
              Words.limited(failure.message(), 2000),
              Words.limited(failure.remedy().orElse(""), 1000),
              FailureSignature.of(failure, system, collection)));
    }
  }

  /**
   * A trace ends well, or passes by.
   *
   * @param because why it passed by; null otherwise
   */
  public void end(TraceRow trace, Verdict verdict, @Nullable String because, Instant now) {
    traces.end(trace.seq(), verdict, now, null, because);
    failures.settledBy(trace.queue(), trace.orderKey(), trace.seq());
    ended(trace, verdict, now);
  }

  /** A trace ends in failure; what failed was kept before. */
  public void fail(TraceRow trace, Instant now) {
    List<FailureRow> kept = failures.of(trace.seq());
    if (kept.isEmpty()) {
      throw new IllegalStateException("a trace fails of nothing: " + trace.id());
    }
    FailureRow first = kept.getFirst();
    FailureKind kind = first.kind();
    String reason = Words.sentence(first.message(), first.remedy());
    traces.end(trace.seq(), Verdict.FAILED, now, kind, reason);
    if (!trace.isTry()) {
      failures.needsAPerson(
          trace.seq(),
          trace.queue(),
          trace.orderKey(),
          kind,
          first.signature(),
          reason,
          trace.receivedAt());
    }
    ended(trace, Verdict.FAILED, now);
  }

  /** What a trace that is being delivered ends with, when its last delivery has ended. */
  public void endDelivered(TraceRow trace, Instant now) {
    if (failures.countOf(trace.seq()) > 0) {
      fail(trace, now);
    } else {
      end(trace, queue.planned(trace.seq()), null, now);
    }
  }

  /** Somebody dealt with a failure: it was sent again. */
  public void settled(long trace) {
    failures.settled(trace);
  }

  private void ended(TraceRow trace, Verdict verdict, Instant now) {
    queue.end(trace);
    if (!trace.isTry()) {
      long slot = slot(trace.receivedAt());
      long millis = Math.max(0, Duration.between(trace.receivedAt(), now).toMillis());
      if (failures.count(trace.bridgeId(), slot, verdict, millis) == 0) {
        failures.countFirst(trace.bridgeId(), slot, verdict, millis);
      }
    }
  }
}
