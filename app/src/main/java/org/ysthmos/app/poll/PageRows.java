package org.ysthmos.app.poll;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.event.Aside;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.poll.PollMapper.PollRow;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.gateway.Seen;
import org.ysthmos.core.poll.PollProgress;

/**
 * What is kept of a page: an event for each change, and one for each thing that cannot be read or
 * kept, so that it holds nothing else back.
 */
@Component
class PageRows {

  private static final String REMOVED = "removed";

  private final EventMapper events;

  PageRows(EventMapper events) {
    this.events = events;
  }

  /**
   * The page with what cannot be kept set aside.
   *
   * @param system its name for people
   */
  static Page keepable(String system, Page page) {
    List<Changed> records = new ArrayList<>(page.records().size());
    List<SetAside> aside = new ArrayList<>(page.aside());
    for (Changed record : page.records()) {
      Optional<Failure> problem = problem(system, record);
      if (problem.isEmpty()) {
        records.add(record);
      } else {
        aside.add(
            new SetAside(
                shortened(record.id()),
                record.version(),
                shortened(record.id()),
                problem.get(),
                record.record().toString()));
      }
    }
    return new Page(records, page.next(), page.since(), page.met(), aside, page.troubles());
  }

  /** A name or an id as far as it is kept, still another than others that begin alike. */
  static String shortened(String id) {
    return id.length() <= EventRow.LONGEST_RECORD_ID
        ? id
        : id.substring(0, EventRow.LONGEST_RECORD_ID - 40) + "… " + id.hashCode();
  }

  private static Optional<Failure> problem(String system, Changed one) {
    if (one.id().length() > EventRow.LONGEST_RECORD_ID) {
      return Optional.of(
          Failure.of(
                  FailureKind.UNREADABLE,
                  "A record of %s has an id of %d characters, “%s…”; at most %d are kept"
                      .formatted(
                          system,
                          one.id().length(),
                          one.id().substring(0, 40),
                          EventRow.LONGEST_RECORD_ID))
              .withRemedy("Give it a shorter one there, or describe another field as the id"));
    }
    int size = one.record().toString().getBytes(StandardCharsets.UTF_8).length;
    if (size > EventRow.LARGEST_BODY) {
      return Optional.of(
          Failure.of(
                  FailureKind.UNREADABLE,
                  String.format(
                      Locale.ENGLISH,
                      "The record “%s” of %s has %,d bytes; at most %,d are kept",
                      one.id(),
                      system,
                      size,
                      EventRow.LARGEST_BODY))
              .withRemedy("Make it smaller there, or ask for fewer of its fields in the call"));
    }
    return Optional.empty();
  }

  /** The rows of a page, in its order; what was set aside comes last. */
  List<EventRow> of(PollRow row, SystemCollection collection, Page page, Seen seen, Instant now) {
    List<Changed> told =
        page.records().stream()
            .filter(record -> PollProgress.counts(record, row.begunAt()))
            .toList();
    Set<String> met = met(row, told);
    List<EventRow> rows = new ArrayList<>(told.size());
    for (Changed record : told) {
      rows.add(event(row, collection, record, !met.add(record.id()), now));
    }
    page.aside().forEach(aside -> rows.add(event(row, aside, seen, now)));
    return rows;
  }

  /** Which of the records events are kept of. */
  private Set<String> met(PollRow row, List<Changed> records) {
    Set<String> met = new HashSet<>();
    Chunks.each(
        records.stream().map(Changed::id).toList(),
        some -> met.addAll(events.recordsMet(row.systemId(), row.collectionId(), some)));
    return met;
  }

  /**
   * @param known whether an event of the record came before
   */
  private EventRow event(
      PollRow row, SystemCollection collection, Changed record, boolean known, Instant now) {
    String kind = PollProgress.kind(record, row.begunAt(), known);
    JsonNode data = PolledEvent.data(collection, record, kind);
    if (known && kind.equals(REMOVED)) {
      data = withLastKnown(row, record.id(), data);
    }
    return new EventRow(
        0,
        row.systemId(),
        PolledEvent.id(row.collectionId(), record.id(), record.version()),
        row.collectionId(),
        kind,
        record.id(),
        record.changed().orElse(now),
        now,
        EventMapper.Origin.POLLED,
        data.toString().getBytes(StandardCharsets.UTF_8));
  }

  /** A record that is gone carries what was last known of it, for rules and match keys. */
  private JsonNode withLastKnown(PollRow row, String record, JsonNode data) {
    EventRow last = events.previous(row.systemId(), row.collectionId(), record, Long.MAX_VALUE);
    Optional<JsonNode> known = Optional.ofNullable(last).flatMap(ReceivedEvents::json);
    if (known.isEmpty() || !known.get().isObject() || !data.isObject()) {
      return data;
    }
    ObjectNode whole = known.get().deepCopy();
    whole.setAll((ObjectNode) data);
    return whole;
  }

  /** What a person let be read again is another event, though nothing of it has changed. */
  private static EventRow event(PollRow row, SetAside aside, Seen seen, Instant now) {
    String again = seen.state(aside.id()).filter(state -> state.startsWith(Seen.AGAIN)).orElse("");
    return new EventRow(
        0,
        row.systemId(),
        PolledEvent.id(
            row.collectionId(), aside.id(), Aside.KIND + " " + aside.version() + " " + again),
        row.collectionId(),
        Aside.KIND,
        shortened(aside.what()),
        now,
        now,
        EventMapper.Origin.ASIDE,
        Aside.write(aside));
  }
}
