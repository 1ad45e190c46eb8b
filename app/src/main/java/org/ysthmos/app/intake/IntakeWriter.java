package org.ysthmos.app.intake;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.StoryCodec;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;

/**
 * Keeps events, many in one commit. Only this thread writes events that came from outside; whoever
 * offered one learns that it is kept after the commit was forced to the disk.
 */
@Component
public class IntakeWriter implements SmartLifecycle {

  private static final Logger LOG = LoggerFactory.getLogger(IntakeWriter.class);
  private static final int LARGEST_BATCH = 50;
  private static final int LONGEST_QUEUE = 5_000;
  private static final int LONGEST_SEARCH_TEXT = 4_000;

  /**
   * What became of an event.
   *
   * @param bridges how many bridges it concerns
   * @param known whether it was kept before
   */
  public record Kept(String eventId, int bridges, boolean known) {}

  private record Place(String system, String collection) {}

  /**
   * Events that are kept together or not at all.
   *
   * @param with what else is written in the same transaction, given what became of the events
   * @param asked whether they were asked for; otherwise they came by webhook
   */
  private record Offer(
      List<EventRow> events,
      Consumer<List<Kept>> with,
      boolean asked,
      CompletableFuture<List<Kept>> kept) {}

  private final BlockingQueue<Offer> queue = new ArrayBlockingQueue<>(LONGEST_QUEUE);
  private final EventMapper events;
  private final TraceMapper traces;
  private final StoryCodec codec;
  private final Bridges bridges;
  private final TransactionTemplate transaction;
  private final WorkSignals signals;
  private final LiveFeed feed;
  private volatile boolean running;
  private Thread thread = new Thread();

  IntakeWriter(
      EventMapper events,
      TraceMapper traces,
      StoryCodec codec,
      Bridges bridges,
      TransactionTemplate transaction,
      WorkSignals signals,
      LiveFeed feed) {
    this.events = events;
    this.traces = traces;
    this.codec = codec;
    this.bridges = bridges;
    this.transaction = transaction;
    this.signals = signals;
    this.feed = feed;
  }

  /** Offers an event; the answer comes when it is on the disk, or fails if it could not be kept. */
  public CompletableFuture<Kept> keep(EventRow event) {
    return offer(new Offer(List.of(event), nothingElse -> {}, false, new CompletableFuture<>()))
        .thenApply(List::getFirst);
  }

  /**
   * Offers events that were asked for. They are kept in one transaction with what is written beside
   * them, so that the place where reading goes on is never ahead of what was kept.
   *
   * @param with writes beside them, given what became of each event
   */
  public CompletableFuture<List<Kept>> keepAsked(List<EventRow> events, Consumer<List<Kept>> with) {
    return offer(new Offer(List.copyOf(events), with, true, new CompletableFuture<>()));
  }

  private CompletableFuture<List<Kept>> offer(Offer offer) {
    if (!running || !queue.offer(offer)) {
      offer
          .kept()
          .completeExceptionally(new IllegalStateException("no room for more events just now"));
    }
    return offer.kept();
  }

  private void run() {
    while (running) {
      List<Offer> batch = new ArrayList<>(LARGEST_BATCH);
      try {
        batch.add(queue.take());
      } catch (InterruptedException stopped) {
        break;
      }
      queue.drainTo(batch, LARGEST_BATCH - 1);
      write(batch);
    }
  }

  private void write(List<Offer> batch) {
    try {
      List<List<Kept>> kept =
          transaction.execute(status -> batch.stream().map(this::keepAll).toList());
      events.force();
      signals.toDecide().raise();
      for (int i = 0; i < batch.size(); i++) {
        batch.get(i).kept().complete(kept.get(i));
      }
      batch.stream()
          .flatMap(offer -> offer.events().stream())
          .map(event -> new Place(event.systemId(), event.collectionId()))
          .distinct()
          .forEach(place -> feed.arrived(place.system(), place.collection()));
    } catch (RuntimeException e) {
      if (batch.size() == 1) {
        Offer alone = batch.getFirst();
        LOG.error(
            "events could not be kept: {}",
            alone.events().stream().map(EventRow::sourceId).toList(),
            e);
        alone.kept().completeExceptionally(e);
        return;
      }
      // What cannot be kept must not take the others with it.
      batch.forEach(offer -> write(List.of(offer)));
    }
  }

  private List<Kept> keepAll(Offer offer) {
    List<Kept> kept = offer.events().stream().map(event -> keepOne(event, offer.asked())).toList();
    offer.with().accept(kept);
    return kept;
  }

  private Kept keepOne(EventRow event, boolean asked) {
    String known = events.findId(event.systemId(), event.sourceId());
    List<BridgeVersion> listening =
        bridges.listening(event.systemId(), event.collectionId(), event.kind());
    if (known != null) {
      return new Kept(known, listening.size(), true);
    }
    events.add(event);
    for (BridgeVersion bridge : listening) {
      traces.add(
          new TraceMapper.NewTrace(
              Ids.at(event.receivedAt()),
              event.id(),
              bridge.definition().id(),
              event.systemId() + "/" + event.collectionId() + "/" + event.recordId(),
              event.receivedAt(),
              null,
              searchText(event),
              codec.write(received(event, bridge, asked)),
              null));
    }
    return new Kept(event.id(), listening.size(), false);
  }

  private static String searchText(EventRow event) {
    String text = event.id() + " " + event.sourceId() + " " + event.recordId();
    return Words.limited(text.toLowerCase(Locale.ROOT), LONGEST_SEARCH_TEXT);
  }

  private static TraceStory received(EventRow event, BridgeVersion bridge, boolean asked) {
    return TraceStory.EMPTY.with(
        new TraceStory.Line(
            event.receivedAt(),
            0,
            TraceStory.Mark.DONE,
            asked
                ? "Asked " + bridge.source().systemName() + " what changed, stored"
                : "Received from " + bridge.source().systemName() + ", signature good, stored",
            Words.capital(
                "%s %s was %s."
                    .formatted(bridge.source().recordWord(), event.recordId(), event.kind())),
            "",
            new String(event.body(), StandardCharsets.UTF_8),
            null));
  }

  @Override
  public void start() {
    running = true;
    thread = Thread.ofPlatform().name("intake").start(this::run);
  }

  @Override
  public void stop() {
    running = false;
    thread.interrupt();
    List<Offer> left = new ArrayList<>();
    queue.drainTo(left);
    left.forEach(
        offer -> offer.kept().completeExceptionally(new IllegalStateException("shutting down")));
  }

  @Override
  public boolean isRunning() {
    return running;
  }
}
