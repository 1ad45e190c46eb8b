package org.ysthmos.app.timetable;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.core.event.Event;

/** Times as events that are kept. */
public final class TimeEvents {

  private TimeEvents() {}

  public static EventRow row(Event event, Instant now) {
    return new EventRow(
        0,
        event.system(),
        event.id(),
        event.collection(),
        event.kind(),
        event.record(),
        event.time(),
        now,
        Origin.DUE,
        event.data().toString().getBytes(StandardCharsets.UTF_8));
  }
}
