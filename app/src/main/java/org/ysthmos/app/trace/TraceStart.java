package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;

/** Begins a trace of an event that is kept already. */
@Component
public class TraceStart {

  /**
   * What begins.
   *
   * @param resendOf the trace that it sends again
   * @param version the version of its bridge that carries it; null if the live one does
   * @param askedBy who asked for it, at most 128 characters
   * @param words the first line of its story
   */
  public record Beginning(
      long eventSeq,
      String bridge,
      String orderKey,
      @Nullable String resendOf,
      @Nullable Integer version,
      String askedBy,
      String words) {}

  private final TraceMapper traces;
  private final TraceQueue queue;
  private final SeenIndex seen;
  private final Stories stories;
  private final TracePlaces places;

  TraceStart(
      TraceMapper traces, TraceQueue queue, SeenIndex seen, Stories stories, TracePlaces places) {
    this.places = places;
    this.traces = traces;
    this.queue = queue;
    this.seen = seen;
    this.stories = stories;
  }

  /**
   * Begins a trace, inside a change; {@link TraceQueue#raise} is called when it is kept.
   *
   * @return its id
   */
  public String begin(Beginning one, Instant now) {
    String id = Ids.at(now);
    long seq = queue.numbers(1).getFirst();
    TraceMapper.NewTrace trace =
        new TraceMapper.NewTrace(
            seq,
            id,
            one.eventSeq(),
            one.bridge(),
            one.orderKey(),
            now,
            one.resendOf(),
            false,
            one.askedBy());
    traces.add(List.of(trace));
    places.begun(List.of(trace));
    Integer version = one.version();
    if (version != null) {
      traces.carriedBy(seq, version);
    }
    seen.add(List.of(SeenIndex.words(seq, id + " " + one.orderKey().replace('/', ' '))));
    stories.add(
        seq,
        stories.pack(
            TraceStory.EMPTY.with(new Line(now, 0, Mark.DONE, one.words(), "", "", "", null))));
    queue.add(List.of(trace));
    return id;
  }
}
