package org.ysthmos.app.trace;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.AfterCommit;
import org.ysthmos.app.store.InCommit;
import org.ysthmos.app.trace.FailureMapper.FailureRow;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.failure.FailureSignature;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.incident.IncidentKey;

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
  private final WorkSignals signals;
  private final TracePlaces places;
  private final InCommit<Map<Counted, Sum>> sums = new InCommit<>(LinkedHashMap::new, this::write);

  private record Counted(String bridge, long slot, Verdict verdict) {}

  private record Sum(int traces, long worstMillis) {

    private Sum and(Sum other) {
      return new Sum(traces + other.traces, Math.max(worstMillis, other.worstMillis));
    }
  }

  TraceEnds(
      TraceMapper traces,
      TraceQueue queue,
      FailureMapper failures,
      WorkSignals signals,
      TracePlaces places) {
    this.places = places;
    this.traces = traces;
    this.queue = queue;
    this.failures = failures;
    this.signals = signals;
  }

  /** Which half hour a moment is in, counted from 1970. */
  public static long slot(Instant at) {
    return Math.floorDiv(at.getEpochSecond(), SLOT.toSeconds());
  }

  /** Keeps what failed of a delivery of a trace, which fails with it. */
  public void deliveryFailed(long trace, EffectKind effect, CollectionRef at, Failure failure) {
    keep(trace, failures.countOf(trace), at.system(), at.collection(), failure, effect);
    queue.deliveryFailed(trace);
  }

  private FailureRow keep(
      long trace,
      int place,
      String system,
      String collection,
      Failure failure,
      @Nullable EffectKind effect) {
    FailureRow row =
        new FailureRow(
            trace,
            place,
            failure.kind(),
            system,
            collection,
            Words.limited(failure.field().orElse(""), 300),
            Words.limited(failure.code().orElse(""), 64),
            Words.limited(failure.message(), 2000),
            Words.limited(failure.remedy().orElse(""), 1000),
            FailureSignature.of(failure, system, collection),
            effect);
    failures.add(row);
    return row;
  }

  /** What failed of a decision, and where. */
  public record Failed(String system, String collection, Failure failure) {}

  /**
   * A trace that was decided ends well, or passes by.
   *
   * @param because why it passed by; null otherwise
   */
  public void end(
      TraceQueue.Claimed claimed, Verdict verdict, @Nullable String because, Instant now) {
    queue.endClaimed(claimed.trace(), claimed.claim());
    ended(claimed.trace(), verdict, because, now);
  }

  /** A trace ends in failure before anything is delivered. */
  public void fail(TraceQueue.Claimed claimed, List<Failed> failed, Instant now) {
    TraceRow trace = claimed.trace();
    queue.endClaimed(trace, claimed.claim());
    FailureRow first = null;
    for (int i = 0; i < failed.size(); i++) {
      Failed one = failed.get(i);
      FailureRow row = keep(trace.seq(), i, one.system(), one.collection(), one.failure(), null);
      first = first == null ? row : first;
    }
    failed(trace, Objects.requireNonNull(first, "a trace fails of nothing"), now);
  }

  /** A trace ends whose last delivery has ended. */
  public void endDelivered(TraceRow trace, Instant now) {
    Optional<Verdict> verdict = queue.outcome(trace.seq());
    queue.endDelivered(trace);
    if (verdict.isPresent()) {
      ended(trace, verdict.get(), null, now);
    } else {
      failed(trace, failures.of(trace.seq()).getFirst(), now);
    }
  }

  /** What was set aside of a queue could be read since; inside a change. */
  public void readable(String queue, String orderKey) {
    lookAfter(failures.settledBy(queue, orderKey, Long.MAX_VALUE));
  }

  /** Whoever watches looks again, once it can be seen that some do not wait any more. */
  private void lookAfter(int settled) {
    if (settled > 0) {
      AfterCommit.run(signals.toWatch()::raise);
    }
  }

  private void ended(TraceRow trace, Verdict verdict, @Nullable String because, Instant now) {
    traces.end(trace.seq(), verdict, now, null, because);
    lookAfter(failures.settledBy(trace.queue(), trace.orderKey(), trace.seq()));
    count(trace, verdict, now);
  }

  private void failed(TraceRow trace, FailureRow first, Instant now) {
    String reason = Words.sentence(first.message(), first.remedy());
    traces.end(trace.seq(), Verdict.FAILED, now, first.kind(), reason);
    if (!trace.isTry()) {
      String cause = IncidentKey.of(first.kind(), first.systemId(), first.signature()).text();
      failures.needsAPerson(
          trace.seq(),
          trace.queue(),
          trace.orderKey(),
          first.kind(),
          first.signature(),
          reason,
          trace.receivedAt(),
          cause);
      if (failures.countOfCause(cause, trace.queue(), slot(now)) == 0) {
        failures.countFirstOfCause(cause, trace.queue(), slot(now));
      }
      AfterCommit.run(signals.toWatch()::raise);
    }
    count(trace, Verdict.FAILED, now);
  }

  /** Somebody dealt with a failure and with all others of its record, and nothing is sent. */
  public void dealtWith(TraceRow trace) {
    readable(trace.queue(), trace.orderKey());
  }

  /** Whether a trace, or a later one of its record, waits for a person. */
  public boolean waitsForAPerson(TraceRow trace) {
    Long newest = failures.newest(trace.queue(), trace.orderKey());
    return newest != null && newest >= trace.seq();
  }

  /** The newest trace of the same record that waits for a person; its own number if none does. */
  public long newestWaiting(TraceRow trace) {
    Long newest = failures.newest(trace.queue(), trace.orderKey());
    return newest == null ? trace.seq() : newest;
  }

  /** Whether something was not found that a trace failed for. */
  public boolean isNotFound(long trace) {
    return failures.of(trace).stream().anyMatch(row -> row.kind() == FailureKind.NOT_FOUND);
  }

  /** Somebody dealt with a failure: it was sent again. */
  public void settled(long trace) {
    lookAfter(failures.settled(trace));
  }

  private void count(TraceRow trace, Verdict verdict, Instant now) {
    if (trace.isTry()) {
      return;
    }
    long slot = slot(trace.receivedAt());
    long millis = Math.max(0, Duration.between(trace.receivedAt(), now).toMillis());
    Counted counted = new Counted(trace.bridgeId(), slot, verdict);
    Sum unused = sums.with(open -> open.merge(counted, new Sum(1, millis), Sum::and));
    places.ended(trace, verdict);
  }

  private void write(Map<Counted, Sum> open) {
    open.forEach(
        (one, sum) -> {
          int there =
              failures.count(
                  one.bridge(), one.slot(), one.verdict(), sum.traces(), sum.worstMillis());
          if (there == 0) {
            failures.countFirst(
                one.bridge(), one.slot(), one.verdict(), sum.traces(), sum.worstMillis());
          }
        });
  }
}
