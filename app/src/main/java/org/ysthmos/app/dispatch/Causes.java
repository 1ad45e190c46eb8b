package org.ysthmos.app.dispatch;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.pair.Writings;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceCauses;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.event.Event;

/**
 * Knows events that came of our own writing: by the mark of the state that they tell of (a version,
 * an ETag, a Message-ID), or as the first that is ever told of a record that was made from here.
 * Values are not compared: a person who finishes a task changes none of those that we wrote, and
 * would be taken for us.
 */
@Component
class Causes {

  private final Systems systems;
  private final Writings writings;
  private final EventMapper events;
  private final TraceCauses causes;

  Causes(Systems systems, Writings writings, EventMapper events, TraceCauses causes) {
    this.systems = systems;
    this.writings = writings;
    this.events = events;
    this.causes = causes;
  }

  /**
   * What caused the event of a trace; empty if nothing of ours did. A bridge that goes both ways
   * made the records itself whose events it hears, so that the first event of one may well be what
   * somebody did to it since: there only marks count.
   */
  Optional<TraceCauses.Cause> of(TraceRow trace, BridgeVersion bridge, Event event, EventRow row) {
    Set<String> in = systems.writtenIn(event);
    if (in.isEmpty() || trace.isTry()) {
      return Optional.empty();
    }
    List<Writings.Writer> writers = writings.writers(event.system(), in, event.record());
    if (writers.isEmpty()) {
      return Optional.empty();
    }
    List<String> marks = systems.marks(event);
    return writers.stream()
        .filter(writer -> marks.stream().anyMatch(writer.marks()::contains))
        .findFirst()
        .or(
            () ->
                bridge.between().isEmpty() && isFirst(row)
                    ? Optional.of(writers.getLast())
                    : Optional.empty())
        .flatMap(writer -> causes.cause(trace.bridgeId(), writer.trace()));
  }

  private boolean isFirst(EventRow row) {
    return events.previous(row.systemId(), row.collectionId(), row.recordId(), row.seq()) == null;
  }
}
