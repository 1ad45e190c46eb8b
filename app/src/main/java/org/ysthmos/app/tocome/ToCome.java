package org.ysthmos.app.tocome;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.KeptChores;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.CameTimes;
import org.ysthmos.app.timetable.Timetables;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Timetable;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * What bridges that begin by themselves will make and when, by the same deciding that will make it,
 * and what became of the times that came.
 */
@Component
class ToCome {

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);

  /** So many times of one bridge are looked at. */
  private static final int MOST_OF_ONE = 200;

  /** So many of one row; the feed looks ninety days ahead. */
  private static final int MOST_OF_ROW = 92;

  /** What waits no longer than this is not told of. */
  private static final Duration AT_ONCE = Duration.ofSeconds(30);

  /** So many are told of in all. */
  static final int MOST = 1000;

  /** How a time stands. */
  enum State {
    TO_COME,
    /** An event that was put off is decided or sent once more. */
    WAITS,
    /** It comes once its bridge is released, if the bridge makes up for it. */
    HELD,
    /** Somebody ran it by hand, so that it does not come by itself. */
    RUN,
    /** Nothing will come of it, as the bridge's condition is not met. */
    PASSED_BY,
    /** It would fail if it came now. */
    FAILS,
    CAME,
    /** It was missed at first. */
    MADE_UP_FOR,
    MISSED
  }

  /**
   * A time.
   *
   * @param uid by which it is known
   * @param title of the task; what the bridge is called where there is none
   * @param person whose it will be, as people call them; empty if nobody's
   * @param what in words what is special with it
   * @param trace of what came of it; empty if it did not come so far
   */
  record TimeEntry(
      String uid,
      Instant at,
      String bridge,
      String bridgeName,
      String system,
      String title,
      String person,
      State state,
      String what,
      String trace) {

    TimeEntry with(String whose) {
      return new TimeEntry(uid, at, bridge, bridgeName, system, title, whose, state, what, trace);
    }
  }

  /**
   * @param cut whether there are more than are told of
   */
  record All(List<TimeEntry> entries, boolean cut) {}

  private final Bridges bridges;
  private final Timetables timetables;
  private final CameTimes came;
  private final KeptChores chores;
  private final WaitingMapper waiting;
  private final SampleWorld world;
  private final AppClock clock;

  ToCome(
      Bridges bridges,
      Timetables timetables,
      CameTimes came,
      KeptChores chores,
      WaitingMapper waiting,
      SampleWorld world,
      AppClock clock) {
    this.bridges = bridges;
    this.timetables = timetables;
    this.came = came;
    this.chores = chores;
    this.waiting = waiting;
    this.world = world;
    this.clock = clock;
  }

  /** All from a moment up to another one, the earliest first. */
  All between(Instant from, Instant until) {
    List<TimeEntry> entries = new ArrayList<>();
    boolean cut = false;
    for (Bridges.Live live : bridges.live()) {
      Optional<Timetable> times = live.version().definition().from().times();
      if (times.isPresent()) {
        cut |= add(live, times.get(), from, until, entries);
      }
      if (live.version().chores().isPresent()) {
        cut |= addRows(live, from, until, entries);
      }
    }
    cut |= addWaiting(from, until, entries);
    entries.sort(Comparator.comparing(TimeEntry::at).thenComparing(TimeEntry::bridge));
    return entries.size() <= MOST
        ? new All(withPeople(entries), cut)
        : new All(withPeople(entries.subList(0, MOST)), true);
  }

  /** Those of which a task came, with whose it is by what was to be written. */
  private List<TimeEntry> withPeople(List<TimeEntry> entries) {
    Set<String> traces =
        entries.stream()
            .map(TimeEntry::trace)
            .filter(trace -> !trace.isEmpty())
            .collect(Collectors.toSet());
    if (traces.isEmpty()) {
      return entries;
    }
    Map<String, Map<String, Value>> tasks = new HashMap<>();
    waiting
        .tasks(traces)
        .forEach(row -> tasks.computeIfAbsent(row.traceId(), t -> KeptFields.read(row.fields())));
    return entries.stream()
        .map(entry -> withPerson(entry, tasks.getOrDefault(entry.trace(), Map.of())))
        .toList();
  }

  private TimeEntry withPerson(TimeEntry entry, Map<String, Value> task) {
    return bridges
        .live(entry.bridge())
        .filter(live -> !task.isEmpty())
        .map(live -> entry.with(person(live.version(), task)))
        .orElse(entry);
  }

  /** What events wait for that were put off; what goes on at once is no part of it. */
  private boolean addWaiting(Instant from, Instant until, List<TimeEntry> entries) {
    Instant soon = clock.instant().plus(AT_ONCE);
    Instant after = from.isBefore(soon) ? soon : from;
    if (!until.isAfter(after)) {
      return false;
    }
    List<WaitingMapper.WaitingRow> rows = waiting.between(after, until, MOST_OF_ONE + 1);
    rows.stream().limit(MOST_OF_ONE).forEach(row -> entries.add(entry(row)));
    return rows.size() > MOST_OF_ONE;
  }

  private TimeEntry entry(WaitingMapper.WaitingRow row) {
    String name = bridges.nameOf(row.bridgeId());
    return new TimeEntry(
        row.traceId(),
        row.at(),
        row.bridgeId(),
        name,
        bridges.live(row.bridgeId()).map(live -> live.version().target().systemName()).orElse(""),
        row.title() == null || row.title().isBlank() ? name : row.title(),
        "",
        State.WAITS,
        row.reason() == null ? "" : row.reason(),
        row.traceId());
  }

  private boolean add(
      Bridges.Live live, Timetable times, Instant from, Instant until, List<TimeEntry> entries) {
    String id = live.version().definition().id();
    Instant now = clock.instant();
    Set<String> known = addCame(live, came.lately(id, MOST_OF_ONE), from, until, entries);
    if (!until.isAfter(now)) {
      return false;
    }
    Instant after = from.isBefore(now) ? now : from.minusNanos(1);
    List<Occurrence> found = timetables.times(times).between(after, until, MOST_OF_ONE + 1);
    found.stream()
        .limit(MOST_OF_ONE)
        .map(time -> TimeSource.event(id, time, ""))
        .filter(event -> !known.contains(event.id()))
        .forEach(event -> entries.add(entry(live, event)));
    return found.size() > MOST_OF_ONE;
  }

  /**
   * @return the ids of the events of all that came lately
   */
  private Set<String> addCame(
      Bridges.Live live,
      List<CameTimes.Came> lately,
      Instant from,
      Instant until,
      List<TimeEntry> entries) {
    Set<String> known = new HashSet<>();
    for (CameTimes.Came one : lately) {
      known.add(one.eventId());
      if (!one.at().isBefore(from) && !one.at().isAfter(until)) {
        entries.add(entry(live.version(), one, clock.instant()));
      }
    }
    return known;
  }

  /** The same of rows, of which those are read whose tasks are made by then. */
  private boolean addRows(Bridges.Live live, Instant from, Instant until, List<TimeEntry> entries) {
    BridgeVersion bridge = live.version();
    Set<String> known =
        addCame(live, came.lately(bridge.definition(), MOST_OF_ONE), from, until, entries);
    List<Event> events = new ArrayList<>();
    List<KeptChores.Kept> rows = chores.next(bridge, until, MOST_OF_ONE + 1);
    boolean cut = rows.size() > MOST_OF_ONE;
    for (KeptChores.Kept row : rows.subList(0, Math.min(MOST_OF_ONE, rows.size()))) {
      List<ToMake> times = row.times().after(row.progress(), MOST_OF_ROW);
      for (int i = 0; i < times.size() && !times.get(i).make().isAfter(until); i++) {
        Optional<Occurrence> next =
            i + 1 < times.size() ? Optional.of(times.get(i + 1).time()) : Optional.empty();
        events.add(ChoreSource.event(bridge.definition().id(), row.row(), times.get(i), "", next));
      }
    }
    events.sort(Comparator.comparing(Event::time));
    events.stream()
        .limit(MOST_OF_ONE)
        .filter(event -> !event.time().isBefore(from) && !known.contains(event.id()))
        .forEach(event -> entries.add(entry(live, event)));
    return cut || events.size() > MOST_OF_ONE;
  }

  private TimeEntry entry(BridgeVersion bridge, CameTimes.Came one, Instant now) {
    State state =
        !one.made()
            ? State.MISSED
            : one.at().isAfter(now)
                ? State.RUN
                : one.missed().isEmpty() ? State.CAME : State.MADE_UP_FOR;
    String what = one.asked().isEmpty() ? one.missed() : "run by hand by " + one.asked();
    return new TimeEntry(
        one.eventId(),
        one.at(),
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.target().systemName(),
        one.title().isEmpty() ? bridge.definition().name() : one.title(),
        "",
        state,
        what,
        one.trace());
  }

  private TimeEntry entry(Bridges.Live live, Event event) {
    BridgeVersion bridge = live.version();
    Decision decision = Decider.decide(bridge, event, world, Mode.PLAIN);
    State state =
        switch (decision.verdict()) {
          case FAILED -> State.FAILS;
          case PASSED_BY -> State.PASSED_BY;
          default -> live.hold().isPresent() ? State.HELD : State.TO_COME;
        };
    String what =
        switch (state) {
          case FAILS -> decision.failures().getFirst().message();
          case PASSED_BY -> decision.because();
          case HELD -> "its bridge is held";
          default -> due(event);
        };
    return new TimeEntry(
        event.id(),
        event.time(),
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.target().systemName(),
        text(bridge, decision.task(), bridge.target().titleField())
            .orElse(bridge.definition().name()),
        person(bridge, decision.task()),
        state,
        what,
        "");
  }

  /** When it is due, where it is made on an earlier day. */
  private static String due(Event event) {
    JsonNode occurrence = event.data().path(TimeSource.OCCURRENCE);
    OffsetDateTime at = OffsetDateTime.parse(occurrence.path("at").asText());
    boolean sameDay = event.time().atOffset(at.getOffset()).toLocalDate().equals(at.toLocalDate());
    return sameDay ? "" : "due " + DAY.format(at);
  }

  private static Optional<String> text(BridgeVersion bridge, Map<String, Value> task, String key) {
    Value value = task.get(key);
    return value == null || value.display().isBlank()
        ? Optional.empty()
        : bridge.target().field(key).map(field -> field.shown(value));
  }

  private static String person(BridgeVersion bridge, Map<String, Value> task) {
    return bridge.target().fields().stream()
        .filter(field -> isPerson(field.type()))
        .map(FieldShape::key)
        .flatMap(key -> text(bridge, task, key).stream())
        .findFirst()
        .orElse("");
  }

  private static boolean isPerson(ValueType type) {
    return type.equals(ValueType.PERSON) || type.equals(ValueType.listOf(ValueType.PERSON));
  }
}
