package org.ysthmos.app.desk;

import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.event.Event;

/** Real events to try a draft on: the newest of its source that were received. */
@Component
class Samples {

  /** How many samples a proof sheet has at the most. */
  static final int MOST = 1000;

  private static final int LOOKED_THROUGH = 5000;

  private final EventMapper events;
  private final AppClock clock;

  Samples(EventMapper events, AppClock clock) {
    this.events = events;
    this.clock = clock;
  }

  /** The newest events of these kinds, newest first. */
  List<Event> newest(String system, String collection, List<String> kinds, int most) {
    return events
        .newest(system, collection, clock.instant().plusSeconds(1), LOOKED_THROUGH)
        .stream()
        .filter(row -> kinds.contains(row.kind()))
        .limit(most)
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
