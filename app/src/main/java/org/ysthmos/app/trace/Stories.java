package org.ysthmos.app.trace;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.store.Numbers;
import org.ysthmos.app.store.PackedJson;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceStory.Line;

/**
 * Keeps stories, part by part, each a compressed JSON document. Whoever goes on telling adds a part
 * and reads none. How a story usually begins is not kept: it stands in the event.
 */
@Component
public class Stories {

  private final StoryMapper mapper;
  private final Systems systems;
  private final ObjectMapper json;
  private final Numbers parts;

  Stories(StoryMapper mapper, Systems systems, ObjectMapper json) {
    this.mapper = mapper;
    this.systems = systems;
    this.json = json;
    this.parts = new Numbers(mapper::numbers);
  }

  /** A part made ready for keeping, which needs no database and takes its time. */
  public byte[] pack(TraceStory told) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(2048);
    try (OutputStream zip = PackedJson.gzip(bytes)) {
      json.writeValue(zip, told);
    } catch (IOException e) {
      throw new UncheckedIOException("a story cannot be written", e);
    }
    return bytes.toByteArray();
  }

  /** Goes on telling; inside a change. */
  public void add(long trace, byte[] packed) {
    mapper.add(trace, parts.next(), packed);
  }

  /** Begins a story otherwise than with the event as it came; inside a change. */
  public void begin(long trace, Line line) {
    mapper.begin(trace, pack(TraceStory.EMPTY.with(line)));
  }

  /** The whole story of a trace. */
  public TraceStory read(TraceRow trace, EventRow event) {
    TraceStory story =
        mapper.begun(trace.seq()) > 0 ? TraceStory.EMPTY : TraceStory.EMPTY.with(received(event));
    List<StoryMapper.PartRow> kept = mapper.of(trace.seq());
    for (StoryMapper.PartRow part : kept) {
      story = story.and(unpack(part.told()));
    }
    Instant ended = trace.finishedAt();
    return kept.isEmpty() && ended != null ? story.with(notKept(ended)) : story;
  }

  private static Line notKept(Instant ended) {
    return new Line(
        ended,
        0,
        TraceStory.Mark.DONE,
        "Ended; how it went is not kept any more",
        "Stories are kept for a stated time, traces for longer.",
        "",
        "",
        null);
  }

  private TraceStory unpack(byte[] told) {
    try (GZIPInputStream unzip = new GZIPInputStream(new ByteArrayInputStream(told))) {
      return json.readValue(unzip, TraceStory.class);
    } catch (IOException e) {
      throw new UncheckedIOException("a story cannot be read", e);
    }
  }

  private Line received(EventRow event) {
    String system =
        systems
            .find(event.systemId())
            .map(found -> found.description().name())
            .orElse(event.systemId());
    String record =
        systems
            .find(event.systemId(), event.collectionId())
            .map(shape -> shape.recordWord())
            .orElse("record");
    return new Line(
        event.receivedAt(),
        0,
        TraceStory.Mark.DONE,
        switch (event.origin()) {
          case POLLED -> "Asked " + system + " what changed, stored";
          case ASIDE -> "Met at " + system + ", set aside";
          case DUE -> DueWords.what(event);
          case LOOK -> "Asked to look at " + record + " " + event.recordId() + " of " + system;
          case TOLD, MADE_UP -> "Received from " + system + ", signature good, stored";
        },
        switch (event.origin()) {
          case ASIDE ->
              "It could not be read, everything else was; open this line to see what stands there.";
          case LOOK -> "Nothing was told of it.";
          case DUE -> DueWords.detail(event);
          case TOLD, POLLED, MADE_UP ->
              Words.capital("%s %s was %s.".formatted(record, event.recordId(), event.kind()));
        },
        "",
        new String(event.body(), StandardCharsets.UTF_8),
        null);
  }
}
