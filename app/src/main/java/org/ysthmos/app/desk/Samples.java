package org.ysthmos.app.desk;

import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.core.event.Event;

/** Real events to try a draft on: the newest of its source that were received. */
@Component
class Samples {

  /** How many samples a proof sheet has at the most. */
  static final int MOST = 1000;

  private final EventMapper events;

  Samples(EventMapper events) {
    this.events = events;
  }

  /** The newest events of these kinds, newest first. */
  List<Event> newest(String system, String collection, List<String> kinds, int most) {
    if (kinds.isEmpty()) {
      return List.of();
    }
    return events.newestOf(system, collection, kinds, most).stream()
        .map(
            row ->
                new Event(
                    row.sourceId(),
                    row.systemId(),
                    row.collectionId(),
                    row.kind(),
                    row.recordId(),
                    row.happenedAt(),
                    ReceivedEvents.body(row)))
        .toList();
  }
}
