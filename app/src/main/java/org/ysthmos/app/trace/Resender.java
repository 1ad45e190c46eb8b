package org.ysthmos.app.trace;

import java.time.Instant;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.work.WorkSignals;

/**
 * Sends a finished trace's event across its bridge again, with the live version and fresh lookups.
 */
@Component
public class Resender {

  private final TraceMapper traces;
  private final StoryCodec codec;
  private final AppClock clock;
  private final WorkSignals signals;

  Resender(TraceMapper traces, StoryCodec codec, AppClock clock, WorkSignals signals) {
    this.traces = traces;
    this.codec = codec;
    this.clock = clock;
    this.signals = signals;
  }

  /**
   * @return the id of the new trace
   */
  @Transactional
  public String resend(String id) {
    TraceRow old = traces.find(id);
    if (old == null) {
      throw ApiProblem.notFound("trace", id);
    }
    if (!old.state().equals("done")) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Still under way",
          "This trace is not finished; it can be sent again when it is.");
    }
    if (old.tryDocument() != null) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "A try", "This was a try; try it once more from the desk.");
    }
    if (traces.markResent(id) == 0) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Sent again already",
          "This trace was sent again already; open the newer one and go on from there.");
    }
    Instant now = clock.instant();
    String fresh = Ids.at(now);
    TraceStory before = codec.read(traces.story(id));
    TraceStory story =
        TraceStory.EMPTY
            .with(before.lines().getFirst())
            .with(new Line(now, 0, Mark.DONE, "Sent again by a person", "", "", "", null));
    traces.add(
        new TraceMapper.NewTrace(
            fresh,
            old.eventId(),
            old.bridgeId(),
            old.orderKey(),
            now,
            id,
            fresh + " " + old.orderKey().toLowerCase(java.util.Locale.ROOT),
            codec.write(story),
            null));
    return fresh;
  }

  /** Wakes the engine; call it when the resend is committed. */
  public void wake() {
    signals.toDecide().raise();
  }
}
