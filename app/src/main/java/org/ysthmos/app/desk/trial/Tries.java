package org.ysthmos.app.desk.trial;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Catalog;

/**
 * Sends one chosen event for real by a draft. A try is carried by the same engine as all else,
 * under a bridge id of its own: it never meets a pair that counts, and what it makes can be taken
 * back.
 */
@Component
class Tries {

  private final Catalog catalog;
  private final Samples samples;
  private final Bridges bridges;
  private final EventMapper events;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final SeenIndex seen;
  private final Stories stories;
  private final Journal journal;
  private final AppClock clock;
  private final LiveFeed feed;

  Tries(
      Catalog catalog,
      Samples samples,
      Bridges bridges,
      EventMapper events,
      TraceMapper traces,
      TraceQueue queue,
      SeenIndex seen,
      Stories stories,
      Journal journal,
      AppClock clock,
      LiveFeed feed) {
    this.catalog = catalog;
    this.samples = samples;
    this.bridges = bridges;
    this.events = events;
    this.traces = traces;
    this.queue = queue;
    this.seen = seen;
    this.stories = stories;
    this.journal = journal;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * @return the id of the try's trace
   * @throws ApiProblem if the draft makes nothing that could be taken back
   * @throws org.ysthmos.core.document.DocumentException if the draft cannot be used yet
   */
  String send(String bridge, String json, String sampleId, By by) {
    BridgeVersion version = BridgeCompiler.compile(json, 1, catalog);
    if (version.between().isPresent()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Not as a try",
          "What it makes is kept alike with what it came from, so that it could not be taken back"
              + " alone. Put it to work held, and let one event go.");
    }
    if (version.definition().to().changes()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Nothing to take back",
          "The draft changes a record that is there, which no try could take back.");
    }
    Sample sample = samples.find(bridge, DraftStart.of(DraftJson.parse(json), catalog), sampleId);
    Instant now = clock.instant();
    String trace = Ids.at(now);
    String alone = "try-" + trace;
    String document = BridgeWriter.write(version.definition().withId(alone));
    bridges.addIfNew(bridge);
    bridges.addIfNew(alone);
    journal.run(
        () -> {
          long seq = queue.numbers(1).getFirst();
          TraceMapper.NewTrace begun =
              new TraceMapper.NewTrace(
                  seq,
                  trace,
                  eventOf(sample, trace, now),
                  bridge,
                  alone + "/" + sample.event().record(),
                  now,
                  null,
                  true,
                  by.name());
          traces.add(List.of(begun));
          traces.addTry(seq, document);
          seen.add(List.of(SeenIndex.words(seq, trace + " " + sample.event().record())));
          stories.begin(seq, began(sample, now));
          queue.add(List.of(begun));
        });
    queue.raise();
    feed.changed(bridge, trace);
    return trace;
  }

  /** The event's row; one that was never received is kept as made up. */
  private long eventOf(Sample sample, String trace, Instant now) {
    if (sample.origin() == Sample.Origin.RECEIVED) {
      return Long.parseLong(sample.id());
    }
    var event = sample.event();
    long seq = events.numbers(1).getFirst();
    events.add(
        List.of(
            new EventMapper.EventRow(
                seq,
                event.system(),
                "try-" + trace,
                event.collection(),
                event.kind(),
                event.record(),
                event.time(),
                now,
                EventMapper.Origin.MADE_UP,
                event.data().toString().getBytes(StandardCharsets.UTF_8))));
    return seq;
  }

  private static TraceStory.Line began(Sample sample, Instant now) {
    String from =
        switch (sample.origin()) {
          case ADDED -> "added to the desk by a person";
          case RECEIVED -> "received before";
          case READ -> "read at its source";
          case TO_COME -> "made for a time that is to come";
        };
    return new TraceStory.Line(
        now,
        0,
        TraceStory.Mark.DONE,
        "Tried from the desk, for real",
        Words.capital("the event of %s was %s".formatted(sample.event().record(), from)),
        "",
        sample.event().data().toString(),
        null);
  }
}
