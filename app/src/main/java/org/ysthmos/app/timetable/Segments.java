package org.ysthmos.app.timetable;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.Timetable;

/** The times of a bridge version by version: those of each count until the next went live. */
@Component
class Segments {

  /**
   * The times of one version.
   *
   * @param end when the next version went live; far away for the one that is live
   * @param following the number of the next version; its own if it is live
   */
  record Segment(Occurrences times, CatchUp catchUp, Instant end, int following) {}

  private final BridgeHistory history;
  private final Timetables timetables;

  Segments(BridgeHistory history, Timetables timetables) {
    this.history = history;
    this.timetables = timetables;
  }

  /** The times of a version that is live, or was before the one that is. */
  Segment after(Bridges.Live live, int number) {
    BridgeDefinition definition = live.version().definition();
    if (number >= live.version().number()) {
      Timetable timetable = definition.from().times().orElseThrow();
      return new Segment(
          timetables.times(timetable), timetable.catchUp(), Instant.MAX, live.version().number());
    }
    List<BridgeHistory.Kept> versions =
        history.versions(definition.id()).stream()
            .sorted(Comparator.comparingInt(BridgeHistory.Kept::number))
            .toList();
    BridgeHistory.Kept next =
        versions.stream().filter(one -> one.number() > number).findFirst().orElseThrow();
    Timetable timetable =
        versions.stream()
            .filter(one -> one.number() == number)
            .findFirst()
            .flatMap(one -> BridgeReader.read(DocumentNode.parse(one.document())).from().times())
            .orElseGet(() -> definition.from().times().orElseThrow());
    return new Segment(
        timetables.times(timetable), timetable.catchUp(), next.madeAt(), next.number());
  }
}
