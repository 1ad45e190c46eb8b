package org.ysthmos.app.where;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.where.WhereMapper.Place;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.text.Digest;

/** Takes a record in as it stands at its source now, as if its source had told of it. */
@Component
class Fetching {

  /** What became of it; the id of the event, and how many bridges have it now. */
  record FetchedView(String event, int bridges) {}

  private final RecordNow now;
  private final HearingBridges hearing;
  private final Systems systems;
  private final IntakeWriter intake;
  private final AppClock clock;

  Fetching(
      RecordNow now, HearingBridges hearing, Systems systems, IntakeWriter intake, AppClock clock) {
    this.now = now;
    this.hearing = hearing;
    this.systems = systems;
    this.intake = intake;
    this.clock = clock;
  }

  /**
   * The kinds of which one is taken; empty if no bridge hears any that its system tells.
   *
   * @param first whether nothing was received of it so far
   */
  List<String> kinds(Place place, boolean first) {
    Set<String> heard = new LinkedHashSet<>();
    hearing.views(place).forEach(view -> heard.addAll(view.version().definition().from().events()));
    List<String> told =
        systems
            .collection(place.system(), place.collection())
            .map(SystemCollection::kinds)
            .orElse(List.of());
    List<String> fit =
        told.stream()
            .filter(heard::contains)
            .filter(kind -> !kind.equals(HearingBridges.REMOVED))
            .toList();
    // Systems name what is new first. What comes for the first time is new to the bridges.
    return first ? fit : fit.reversed();
  }

  /**
   * @param first whether nothing was received of it so far
   * @throws ApiProblem if it cannot be read, or came already as it is
   */
  FetchedView fetch(Place place, boolean first) {
    SystemCollection collection =
        systems
            .collection(place.system(), place.collection())
            .orElseThrow(() -> ApiProblem.notFound("collection", place.collection()));
    String kind =
        kinds(place, first).stream()
            .findFirst()
            .orElseThrow(() -> refused("No bridge at work hears of it."));
    RecordNow.Read read = now.ask(place.system(), place.collection(), place.record());
    JsonNode record = read.record().orElseThrow(() -> refused(why(read.view())));
    Event event = hearing.event(place, collection, record, kind);
    String version = HearingBridges.version(collection, record);
    Instant at = clock.instant();
    EventRow row =
        new EventRow(
            0,
            place.system(),
            // One that its source tells of with its version, too, is the same event.
            PolledEvent.id(
                place.collection(),
                place.record(),
                version.isEmpty() ? "as " + Digest.sha256(record.toString()) : version),
            place.collection(),
            kind,
            place.record(),
            at,
            at,
            Origin.POLLED,
            event.data().toString().getBytes(StandardCharsets.UTF_8));
    IntakeWriter.Kept kept = intake.keep(row).join();
    if (kept.known()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "It came already",
          "It came already as it stands there now. Send its trace again to have it once more.");
    }
    return new FetchedView(kept.eventId(), kept.bridges());
  }

  private static String why(RecordNow.RecordView view) {
    return switch (view.state()) {
      case THERE, NOT_THERE -> "Its source does not have it.";
      case NOT_ASKED -> "Its source finds no record by its id, so that it cannot be fetched.";
      case NO_ANSWER -> view.problem();
    };
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, "Not fetched", detail);
  }
}
