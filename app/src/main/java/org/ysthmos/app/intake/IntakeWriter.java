package org.ysthmos.app.intake;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.Aside;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.Numbers;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceMapper.NewTrace;
import org.ysthmos.app.trace.TracePlaces;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.gateway.CollectionRef;

/**
 * Keeps events with a trace for each bridge that they concern. Whoever offered one learns that it
 * is kept after the disk was forced.
 */
@Component
public class IntakeWriter {

  /**
   * What became of an event.
   *
   * @param bridges how many bridges it concerns
   * @param known whether it was kept before
   */
  public record Kept(String eventId, int bridges, boolean known) {}

  private final EventMapper events;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final SeenIndex seen;
  private final TraceEnds ends;
  private final TracePlaces places;
  private final Bridges bridges;
  private final Journal journal;
  private final WorkSignals signals;
  private final LiveFeed feed;
  private final Numbers eventNumbers;

  IntakeWriter(
      EventMapper events,
      TraceMapper traces,
      TraceQueue queue,
      SeenIndex seen,
      TraceEnds ends,
      TracePlaces places,
      Bridges bridges,
      Journal journal,
      WorkSignals signals,
      LiveFeed feed) {
    this.events = events;
    this.traces = traces;
    this.queue = queue;
    this.seen = seen;
    this.ends = ends;
    this.places = places;
    this.bridges = bridges;
    this.journal = journal;
    this.signals = signals;
    this.feed = feed;
    this.eventNumbers = new Numbers(events::numbers);
  }

  /** Offers an event; the answer comes when it is on the disk, or fails if it could not be kept. */
  public CompletableFuture<Kept> keep(EventRow event) {
    List<EventRow> one = List.of(event);
    return journal
        .write(() -> write(one))
        .thenApply(
            kept -> {
              tell(one);
              return kept.getFirst();
            });
  }

  /**
   * Keeps a page of events together or not at all, in their order, with what is written beside
   * them: so the place where reading goes on is never ahead of what was kept. The disk is not
   * forced for it, as a page that a stop undoes is read again from the place that stands with it.
   *
   * @param with writes beside them, given what became of each event
   * @throws RuntimeException what could not be written, or what {@code with} threw
   */
  public void keepPage(List<EventRow> page, Consumer<List<Kept>> with) {
    journal.runSoon(() -> with.accept(write(page)));
    tell(page);
  }

  /**
   * What could not be read before could be read now, so nobody need look after it; inside a change.
   *
   * @param what its name, under which it was set aside
   */
  public void readable(String system, String collection, String what) {
    for (String bridge : bridges.listening(system, collection, Aside.KIND)) {
      ends.readable(bridge, system + "/" + collection + "/" + what);
    }
  }

  private void tell(List<EventRow> kept) {
    if (kept.isEmpty()) {
      return;
    }
    signals.toDecide().raise();
    kept.stream()
        .map(event -> new CollectionRef(event.systemId(), event.collectionId()))
        .distinct()
        .forEach(place -> feed.arrived(place.system(), place.collection()));
  }

  private List<Kept> write(List<EventRow> offered) {
    List<Kept> kept = new ArrayList<>(offered.size());
    List<EventRow> fresh = new ArrayList<>(offered.size());
    Map<String, Long> numbers = known(offered);
    for (EventRow event : offered) {
      int listening = listening(event).size();
      Long known = numbers.get(event.sourceId());
      if (known == null) {
        EventRow numbered = event.at(eventNumbers.next());
        fresh.add(numbered);
        numbers.put(event.sourceId(), numbered.seq());
        kept.add(new Kept(numbered.id(), listening, false));
      } else {
        kept.add(new Kept(known.toString(), listening, true));
      }
    }
    Chunks.each(fresh, events::add);
    begin(fresh);
    return kept;
  }

  /** The numbers of those that are kept already, by the ids of their sender. */
  private Map<String, Long> known(List<EventRow> offered) {
    Map<String, Long> numbers = new HashMap<>();
    Chunks.each(
        offered,
        some ->
            events
                .known(some.getFirst().systemId(), some.stream().map(EventRow::sourceId).toList())
                .forEach(one -> numbers.put(one.sourceId(), one.seq())));
    return numbers;
  }

  private List<String> listening(EventRow event) {
    return bridges.listening(event.systemId(), event.collectionId(), event.kind());
  }

  private void begin(List<EventRow> fresh) {
    List<NewTrace> begun = new ArrayList<>(fresh.size());
    List<SeenIndex.WordsOf> words = new ArrayList<>(fresh.size());
    int count = fresh.stream().mapToInt(event -> listening(event).size()).sum();
    if (count == 0) {
      return;
    }
    List<Long> numbers = queue.numbers(count);
    for (EventRow event : fresh) {
      for (String bridge : listening(event)) {
        long seq = numbers.get(begun.size());
        String id = Ids.at(event.receivedAt());
        begun.add(
            new NewTrace(
                seq,
                id,
                event.seq(),
                bridge,
                event.systemId() + "/" + event.collectionId() + "/" + event.recordId(),
                event.receivedAt(),
                null,
                false,
                null));
        words.add(SeenIndex.words(seq, id + " " + event.sourceId() + " " + event.recordId()));
      }
    }
    Chunks.each(begun, traces::add);
    places.begun(begun);
    Chunks.each(words, seen::add);
    queue.add(begun);
  }
}
