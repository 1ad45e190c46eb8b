package org.ysthmos.app.trace;

import java.util.Objects;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/**
 * Sends a finished trace's event across its bridge again, with the live version and fresh lookups.
 * What a later event has written since is not written over.
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
   * @return the id of the new trace
   * @throws ApiProblem if the trace has not ended, is a try, or was sent again already
   */
  public String resend(String id, By by) {
    String fresh = journal.now(() -> resendNow(id, by.name(), "Sent again by a person"));
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
  public long begin(String id, String by, String words) {
    return Objects.requireNonNull(traces.find(resendNow(id, by, words)), "no trace began").seq();
  }

  /** Wakes the dispatcher, once what was begun is kept. */
  public void raise() {
    queue.raise();
  }

  private String resendNow(String id, String by, String words) {
    TraceRow old = traces.find(id);
    if (old == null) {
      throw ApiProblem.notFound("trace", id);
    }
    if (old.verdict() == null) {
      throw refused(
          "Still under way", "This trace is not finished; it can be sent again when it is.");
    }
    if (old.isTry()) {
      throw refused("A try", "This was a try; try it once more from the desk.");
    }
    String fresh =
        start.begin(
            new TraceStart.Beginning(old.eventSeq(), old.bridgeId(), old.orderKey(), id, by, words),
            clock.instant());
    if (traces.markResent(id, fresh) == 0) {
      throw refused(
          "Sent again already",
          "This trace was sent again already; open the newer one and go on from there.");
    }
    ends.settled(old.seq());
    return fresh;
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }
}
