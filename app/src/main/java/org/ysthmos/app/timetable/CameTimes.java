package org.ysthmos.app.timetable;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.bridge.TimeSource;

/** The times of bridges that came, were missed, or were run by hand. */
@Component
public class CameTimes {

  /**
   * A time that came, or some that were missed and are not made up for.
   *
   * @param made whether it was let come; false for those that were missed
   * @param title of the task that came of it; empty if none did so far
   * @param missed why it was missed; empty if it was not
   * @param asked who ran it by hand; empty if it came by itself
   * @param trace what came of it
   */
  public record Came(
      String eventId,
      Instant at,
      boolean made,
      String title,
      String missed,
      String asked,
      String trace) {}

  private final TimetableMapper mapper;

  CameTimes(TimetableMapper mapper) {
    this.mapper = mapper;
  }

  /** Those of a bridge, the one that was kept last first. */
  public List<Came> lately(String bridge, int most) {
    return mapper.lately(TimeSource.SYSTEM, bridge, most).stream().map(CameTimes::came).toList();
  }

  /** Those of the rows of a bridge, the one that was kept last first. */
  public List<Came> lately(BridgeDefinition bridge, int most) {
    return mapper
        .latelyOfRows(
            bridge.from().system(),
            bridge.from().collection(),
            ChoreSource.due(bridge.id()),
            ChoreSource.missed(bridge.id()),
            most)
        .stream()
        .map(CameTimes::came)
        .toList();
  }

  private static Came came(TimetableMapper.CameRow row) {
    JsonNode time =
        ReceivedEvents.json(row.body())
            .orElseGet(MissingNode::getInstance)
            .path(TimeSource.OCCURRENCE);
    String title = row.title();
    return new Came(
        row.sourceId(),
        row.happenedAt(),
        row.kind().startsWith(TimeSource.DUE),
        title == null ? "" : title,
        time.path(TimeSource.MISSED).asText(),
        time.path(TimeSource.ASKED).asText(),
        row.traceId());
  }
}
