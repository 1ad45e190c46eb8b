package org.ysthmos.app.rehearsal;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.rehearsal.PastMapper.Span;
import org.ysthmos.app.rehearsal.PastMapper.Which;
import org.ysthmos.app.rehearsal.RehearsalMapper.RehearsalRow;
import org.ysthmos.app.store.OrderNumbers;
import org.ysthmos.app.trace.DecidedThen;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.rehearsal.Outcome;

/** What came, and what became of it. */
@Component
class Past {

  /**
   * An event of the past.
   *
   * @param event empty if what came cannot be read as JSON
   * @param then what the bridge made of it; empty if it did not hear it
   */
  record PastEvent(EventRow row, Optional<Event> event, Optional<DecidedThen.Known> then) {}

  private final PastMapper mapper;
  private final DecidedThen decided;

  Past(PastMapper mapper, DecidedThen decided) {
    this.mapper = mapper;
    this.decided = decided;
  }

  /** What was decided of an event; empty where that is not kept. */
  Optional<Outcome> decided(String bridge, long event) {
    return decided.of(bridge, event);
  }

  /** How people know traces, by their order numbers. */
  Map<Long, DecidedThen.Named> named(List<Long> traces) {
    return decided.named(traces);
  }

  /** The events that a rehearsal goes over. */
  Which which(RehearsalRow rehearsal, BridgeVersion bridge) {
    BridgeDefinition.From from = bridge.definition().from();
    Long first = rehearsal.since() == null ? Long.valueOf(0) : mapper.firstFrom(rehearsal.since());
    Long end = rehearsal.until() == null ? null : mapper.firstFrom(rehearsal.until());
    return new Which(
        from.system(),
        bridge.heard(),
        from.events(),
        first == null ? Long.MAX_VALUE : first,
        end == null ? Long.MAX_VALUE : end - 1);
  }

  /** All events that a bridge hears. */
  Which all(BridgeVersion bridge) {
    BridgeDefinition.From from = bridge.definition().from();
    return new Which(from.system(), bridge.heard(), from.events(), 0, Long.MAX_VALUE);
  }

  Span span(Which which, int most) {
    return mapper.counted(which, most);
  }

  /** When an event was received; null if there is none. */
  @Nullable Instant receivedAt(@Nullable Long seq) {
    return seq == null ? null : mapper.receivedAt(seq);
  }

  /** The first of them, in the order in which they came, without what became of them. */
  List<EventRow> rows(Which which, int most) {
    if (which.isSeveral()) {
      return mapper.page(which, most);
    }
    SortedSet<Long> those = new TreeSet<>(mapper.numbers(which, most));
    if (those.isEmpty()) {
      return List.of();
    }
    if (!OrderNumbers.areClose(those)) {
      return mapper.page(which, most);
    }
    List<EventRow> rows =
        mapper.span(those.first(), those.last()).stream()
            .filter(row -> those.contains(row.seq()))
            .toList();
    // None if all of them grew too old to be kept just now.
    return rows.isEmpty() ? rows(which.from(those.last() + 1), most) : rows;
  }

  /** Events with what became of them at a bridge. */
  List<PastEvent> whole(String bridge, List<EventRow> rows) {
    if (rows.isEmpty()) {
      return List.of();
    }
    Map<Long, DecidedThen.Known> then =
        decided.of(bridge, rows.getFirst().seq(), rows.getLast().seq());
    List<PastEvent> page = new ArrayList<>(rows.size());
    for (EventRow row : rows) {
      page.add(
          new PastEvent(
              row, ReceivedEvents.readable(row), Optional.ofNullable(then.get(row.seq()))));
    }
    return page;
  }
}
