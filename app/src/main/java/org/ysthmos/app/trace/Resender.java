package org.ysthmos.app.trace;

import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/**
 * Sends a finished trace's event across its bridge again, with fresh lookups. What a later event
 * has written since is not written over.
 */
@Component
public class Resender {

  private final TraceMapper traces;
  private final TraceQueue queue;
  private final TraceEnds ends;
  private final TraceStart start;
  private final Journal journal;
  private final AppClock clock;

  Resender(
      TraceMapper traces,
      TraceQueue queue,
      TraceEnds ends,
      TraceStart start,
      Journal journal,
      AppClock clock) {
    this.traces = traces;
    this.queue = queue;
    this.ends = ends;
    this.start = start;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * Sends it with the rules that are live.
   *
   * @return the id of the new trace
   * @throws ApiProblem if the trace has not ended, is a try, or was sent again already
   */
  public String resend(String id, By by) {
    return resend(id, by, CarriedBy.LIVE);
  }

  /**
   * @return the id of the new trace
   * @throws ApiProblem if the trace has not ended, is a try, or was sent again already
   */
  public String resend(String id, By by, CarriedBy rules) {
    String fresh = journal.now(() -> resendNow(id, by.name(), "Sent again by a person", rules));
    queue.raise();
    return fresh;
  }

  /**
   * The same inside a change; the dispatcher is not woken by it.
   *
   * @param by who or what sends it again, at most 128 characters
   * @param words how the new trace tells of it
   * @return the order number of the new trace
   */
  public long begin(String id, String by, String words, CarriedBy rules) {
    String fresh = resendNow(id, by, words, rules);
    return Objects.requireNonNull(traces.find(fresh), "no trace began").seq();
  }

  /** Why a trace cannot be sent again. */
  public record Obstacle(String title, String words) {}

  /** What keeps a trace from being sent again; empty if nothing does. */
  public static Optional<Obstacle> obstacle(TraceRow trace) {
    if (trace.verdict() == null) {
      return Optional.of(
          new Obstacle(
              "Still under way", "This trace is not finished; it can be sent again when it is."));
    }
    if (trace.isTry()) {
      return Optional.of(new Obstacle("A try", "This was a try; try it once more from the desk."));
    }
    if (trace.resentAs() != null) {
      return Optional.of(
          new Obstacle(
              "Sent again already",
              "This trace was sent again already; open the newer one and go on from there."));
    }
    return Optional.empty();
  }

  /** Wakes the dispatcher, once what was begun is kept. */
  public void raise() {
    queue.raise();
  }

  private String resendNow(String id, String by, String words, CarriedBy rules) {
    TraceRow old = traces.find(id);
    if (old == null) {
      throw ApiProblem.notFound("trace", id);
    }
    Optional<Obstacle> obstacle = obstacle(old);
    if (obstacle.isPresent()) {
      throw new ApiProblem(HttpStatus.CONFLICT, obstacle.get().title(), obstacle.get().words());
    }
    Integer version = rules == CarriedBy.AS_BEFORE ? old.bridgeVersion() : null;
    String told = version == null ? words : words + ", with version " + version;
    String fresh =
        start.begin(
            new TraceStart.Beginning(
                old.eventSeq(), old.bridgeId(), old.orderKey(), id, version, by, told),
            clock.instant());
    if (traces.markResent(id, fresh) == 0) {
      throw new IllegalStateException("sent again by two at once: " + id);
    }
    ends.settled(old.seq());
    return fresh;
  }
}
