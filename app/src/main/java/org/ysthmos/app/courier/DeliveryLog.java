package org.ysthmos.app.courier;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.failure.Failure;

/** Writes down what a try came to, with its part of the story, and tells whoever waits for it. */
@Component
class DeliveryLog {

  private final TraceMapper traces;
  private final Stories stories;
  private final Systems systems;
  private final Journal journal;
  private final LiveFeed feed;
  private final Map<Long, CompletableFuture<Optional<Failure>>> awaited = new ConcurrentHashMap<>();

  DeliveryLog(
      TraceMapper traces, Stories stories, Systems systems, Journal journal, LiveFeed feed) {
    this.traces = traces;
    this.stories = stories;
    this.systems = systems;
    this.journal = journal;
    this.feed = feed;
  }

  /** Tells how a delivery ends: with the failure for which it was given up, or with none. */
  CompletableFuture<Optional<Failure>> whenEnded(long delivery) {
    return awaited.computeIfAbsent(delivery, any -> new CompletableFuture<>());
  }

  void tellEnd(DeliveryRow delivery, Optional<Failure> failure) {
    Optional.ofNullable(awaited.remove(delivery.seq())).ifPresent(one -> one.complete(failure));
  }

  static TraceStory told(Attempt attempt, Optional<Failure> failure) {
    return TraceStory.EMPTY.withAll(AttemptWords.lines(attempt, failure));
  }

  void store(Attempt attempt, TraceRow trace, TraceStory told, Runnable change) {
    byte[] part = stories.pack(told);
    Runnable whole =
        () -> {
          change.run();
          stories.add(trace.seq(), part);
        };
    if (isFoundAgain(attempt.delivery())) {
      // A kill that undoes it leaves the delivery in doubt, and a look finds what became of it.
      journal.runSoon(whole);
    } else {
      journal.run(whole);
    }
    feed.changed(attempt.delivery().bridgeId(), trace.id());
  }

  private boolean isFoundAgain(DeliveryRow delivery) {
    return !delivery.kind().doublesWhenRepeated()
        || systems
            .collection(delivery.systemId(), delivery.collectionId())
            .filter(collection -> collection.promise() == Promise.FOUND_BY_KEY)
            .isPresent();
  }

  TraceRow trace(DeliveryRow delivery) {
    return Optional.ofNullable(traces.at(delivery.traceSeq()))
        .orElseThrow(
            () -> new IllegalStateException("a delivery without its trace: " + delivery.seq()));
  }
}
