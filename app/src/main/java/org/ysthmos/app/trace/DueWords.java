package org.ysthmos.app.trace;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.bridge.TimeSource;

/** How the story of a time begins that came, or of some that were missed. */
final class DueWords {

  private static final DateTimeFormatter SHOWN =
      DateTimeFormatter.ofPattern("EEEE d MMMM uuuu, HH:mm", Locale.ENGLISH);

  private DueWords() {}

  static String what(EventRow event) {
    JsonNode time = time(event);
    if (ChoreSource.isRow(event.kind())) {
      return "Its row was read";
    }
    if (isMissed(event)) {
      return "Times were missed";
    }
    return time.has(TimeSource.ASKED)
        ? "Run by hand by " + time.path(TimeSource.ASKED).asText() + ", stored"
        : time.has(TimeSource.MISSED) ? "A missed time is made up for" : "Its time has come";
  }

  static String detail(EventRow event) {
    JsonNode time = time(event);
    if (ChoreSource.isRow(event.kind())) {
      return "All rows are read when their bridge begins, and when its rules of coming round change.";
    }
    String missed = time.path(TimeSource.MISSED).asText();
    if (isMissed(event)) {
      return Words.capital(missed + ".");
    }
    String moved =
        time.path("moved").asBoolean() ? " It was moved from a day that is no working day." : "";
    return "It is the time of %s%s.%s"
        .formatted(
            SHOWN.format(OffsetDateTime.parse(time.path("at").asText())),
            missed.isEmpty() ? "" : ", missed at first, as " + missed,
            moved);
  }

  private static boolean isMissed(EventRow event) {
    return TimeSource.missed(ReceivedEvents.event(event)).isPresent();
  }

  private static JsonNode time(EventRow event) {
    return ReceivedEvents.body(event).path(TimeSource.OCCURRENCE);
  }
}
