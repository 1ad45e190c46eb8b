package org.ysthmos.app.desk;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Locale;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.StoryCodec;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
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
  private final StoryCodec codec;
  private final TransactionTemplate transaction;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;

  Tries(
      Catalog catalog,
      Samples samples,
      Bridges bridges,
      EventMapper events,
      TraceMapper traces,
      StoryCodec codec,
      TransactionTemplate transaction,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.catalog = catalog;
    this.samples = samples;
    this.bridges = bridges;
    this.events = events;
    this.traces = traces;
    this.codec = codec;
    this.transaction = transaction;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  /**
   * @return the id of the try's trace
   * @throws org.ysthmos.core.document.DocumentException if the draft cannot be used yet
   */
  String send(String bridge, String json, String sampleId) {
    BridgeVersion version = BridgeCompiler.compile(json, 1, catalog);
    Sample sample = samples.find(bridge, DraftStart.of(DraftJson.parse(json)), sampleId);
    Instant now = clock.instant();
    String trace = Ids.at(now);
    String alone = "try-" + trace;
    String document = BridgeWriter.write(version.definition().withId(alone));
    transaction.executeWithoutResult(
        status -> {
          bridges.addIfNew(bridge);
          bridges.addIfNew(alone);
          traces.add(
              new TraceMapper.NewTrace(
                  trace,
                  eventOf(sample, trace, now),
                  bridge,
                  alone + "/" + sample.event().record(),
                  now,
                  null,
                  (trace + " " + sample.event().record()).toLowerCase(Locale.ROOT),
                  codec.write(began(sample, now)),
                  document));
        });
    signals.toDecide().raise();
    feed.changed(bridge, trace);
    return trace;
  }

  /** The event's row; one that was never received is kept as made up. */
  private String eventOf(Sample sample, String trace, Instant now) {
    if (sample.origin() == Sample.Origin.RECEIVED) {
      return sample.id();
    }
    var event = sample.event();
    String id = Ids.at(now);
    events.add(
        new EventMapper.EventRow(
            id,
            event.system(),
            "try-" + trace,
            event.collection(),
            event.kind(),
            event.record(),
            event.time(),
            now,
            event.data().toString().getBytes(StandardCharsets.UTF_8),
            true));
    return id;
  }

  private static TraceStory began(Sample sample, Instant now) {
    String from =
        switch (sample.origin()) {
          case ADDED -> "added to the desk by a person";
          case RECEIVED -> "received before";
          case READ -> "read at its source";
        };
    return TraceStory.EMPTY.with(
        new TraceStory.Line(
            now,
            0,
            TraceStory.Mark.DONE,
            "Tried from the desk, for real",
            Words.capital("the event of %s was %s".formatted(sample.event().record(), from)),
            "",
            sample.event().data().toString(),
            null));
  }
}
