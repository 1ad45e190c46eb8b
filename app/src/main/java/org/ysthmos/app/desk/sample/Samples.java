package org.ysthmos.app.desk.sample;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.SampleMapper.SampleRow;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.timetable.Timetables;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.event.CloudEventJson;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.Timetable;

/**
 * Events to try a draft on: those that people added to its desk, the newest that were received, and
 * where there are few of them, records read at the source.
 */
@Component
public class Samples {

  /** How many samples a proof sheet has at the most. */
  public static final int MOST = 1000;

  /** With fewer received events than this the source is read. */
  static final int FEW = 10;

  /** So many of the times to come are tried. */
  private static final int TO_COME = 10;

  /**
   * The samples of a desk.
   *
   * @param problem why the source could not be read; empty if it could, or need not be
   */
  public record Found(List<Sample> samples, String problem) {}

  private final SampleMapper added;
  private final EventMapper events;
  private final SourceReading source;
  private final Systems systems;
  private final Timetables timetables;
  private final RowTimes rowTimes;
  private final Catalog catalog;
  private final ObjectMapper json;
  private final AppClock clock;

  Samples(
      SampleMapper added,
      EventMapper events,
      SourceReading source,
      Systems systems,
      Timetables timetables,
      RowTimes rowTimes,
      Catalog catalog,
      ObjectMapper json,
      AppClock clock) {
    this.added = added;
    this.events = events;
    this.source = source;
    this.systems = systems;
    this.timetables = timetables;
    this.rowTimes = rowTimes;
    this.catalog = catalog;
    this.json = json;
    this.clock = clock;
  }

  /** The samples for a draft, those added first, then the newest. */
  public Found of(String bridge, DraftStart start, int most) {
    List<Sample> samples = new ArrayList<>();
    for (SampleRow row : added.of(bridge)) {
      Event event = event(row);
      if (start.hears(event)) {
        samples.add(new Sample(row.id(), Sample.Origin.ADDED, event));
      }
    }
    if (start.kinds().isEmpty()) {
      return new Found(limited(samples, most), "");
    }
    start.times().ifPresent(times -> samples.addAll(toCome(bridge, times)));
    List<EventMapper.EventRow> received = rows(start, most);
    List<Sample> readable = readable(received);
    samples.addAll(readable);
    Set<String> records = new HashSet<>();
    readable.forEach(sample -> records.add(sample.event().record()));
    String problem =
        records.isEmpty() && !received.isEmpty() ? "What was received cannot be read as JSON" : "";
    boolean ofSystem = !start.system().equals(TimeSource.SYSTEM);
    if (ofSystem && received.size() < FEW) {
      SourceReading.Read read =
          source.newest(start.system(), start.collection(), start.kinds().getFirst());
      problem = read.problem().isEmpty() ? problem : read.problem();
      read.events().stream()
          .filter(event -> !records.contains(event.record()))
          .forEach(event -> samples.add(new Sample(event.id(), Sample.Origin.READ, event)));
    }
    start.rows().ifPresent(document -> samples.addAll(0, rowsToCome(document, samples)));
    return new Found(limited(samples, most), problem);
  }

  /** The newest that were received, so that no system is asked. */
  public List<Sample> received(DraftStart start, int most) {
    return readable(rows(start, most));
  }

  private static List<Sample> readable(List<EventMapper.EventRow> rows) {
    List<Sample> readable = new ArrayList<>(rows.size());
    for (EventMapper.EventRow row : rows) {
      ReceivedEvents.readable(row)
          .ifPresent(event -> readable.add(new Sample(row.id(), Sample.Origin.RECEIVED, event)));
    }
    return readable;
  }

  /** The newest that were received, of several places the newest of each, the newest first. */
  private List<EventMapper.EventRow> rows(DraftStart start, int most) {
    if (start.collections().size() == 1) {
      return events.newestOf(start.system(), start.collection(), start.kinds(), most);
    }
    int ofEach = Math.max(1, most / start.collections().size());
    List<EventMapper.EventRow> all = new ArrayList<>();
    for (String collection : start.collections()) {
      all.addAll(events.newestOf(start.system(), collection, start.kinds(), ofEach));
    }
    all.sort(Comparator.comparingLong(EventMapper.EventRow::seq).reversed());
    return limited(all, most);
  }

  /** The next times of rows that are among the samples; none while the draft cannot be used. */
  private List<Sample> rowsToCome(String document, List<Sample> samples) {
    List<Event> rows = samples.stream().map(Sample::event).toList();
    return DraftCompiler.compile(document, catalog)
        .version()
        .filter(draft -> draft.chores().isPresent())
        .map(draft -> rowTimes.toCome(draft, rows, TO_COME))
        .orElse(List.of());
  }

  /** The next times; none if they cannot be told, which the draft's own problems say. */
  private List<Sample> toCome(String bridge, Timetable times) {
    try {
      return timetables.times(times).after(clock.instant(), TO_COME).stream()
          .map(time -> TimeSource.event(bridge, time, ""))
          .map(event -> new Sample(event.id(), Sample.Origin.TO_COME, event))
          .toList();
    } catch (IllegalStateException noCalendar) {
      return List.of();
    }
  }

  /**
   * @throws ApiProblem if no sample of the desk has the id
   */
  public Sample find(String bridge, DraftStart start, String id) {
    return of(bridge, start, MOST).samples().stream()
        .filter(one -> one.id().equals(id))
        .findFirst()
        .orElseThrow(
            () ->
                new ApiProblem(
                    HttpStatus.CONFLICT,
                    "The event is gone",
                    "That event is not among the samples any more; choose another."));
  }

  private static <T> List<T> limited(List<T> all, int most) {
    return all.size() <= most ? all : all.subList(0, most);
  }

  /**
   * Adds events to a desk.
   *
   * @return the ids of the samples, in the order of the text
   * @throws ApiProblem if any part of the text is no event of the draft's source; none is added
   *     then
   */
  @Transactional
  public List<String> add(String bridge, DraftStart start, String text) {
    Instant now = clock.instant();
    SampleText reader =
        new SampleText(
            start.system(),
            start.collection(),
            start.kinds(),
            systems.collection(start.system(), start.collection()),
            now);
    List<String> ids = new ArrayList<>();
    for (Event event : reader.read(text)) {
      String id = Ids.at(now);
      String kept = CloudEventJson.write(event).toString();
      added.add(new SampleRow(id, bridge, kept, now, ids.size()));
      ids.add(id);
    }
    return ids;
  }

  public void remove(String bridge, String id) {
    if (added.remove(bridge, id) == 0) {
      throw ApiProblem.notFound("sample", id);
    }
  }

  private Event event(SampleRow row) {
    try {
      return CloudEventJson.read(json.readTree(row.event()));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a sample was kept that cannot be read: " + row.id(), e);
    }
  }
}
