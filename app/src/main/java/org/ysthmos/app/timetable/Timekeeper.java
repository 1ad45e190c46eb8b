package org.ysthmos.app.timetable;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.Absence.Stopped;
import org.ysthmos.app.timetable.TimetableMapper.TimetableRow;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Due;
import org.ysthmos.core.recurrence.Occurrence;

/**
 * Makes an event of each time that comes, of every live bridge that begins with times. How far it
 * looked stands with the events that came of it in one change, so that neither a stop nor a sleep
 * loses a time; and a time is the same event however often it is looked at, so that no step of a
 * clock makes one twice.
 */
@Component
public class Timekeeper implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(Timekeeper.class);
  private static final Duration BETWEEN = Duration.ofSeconds(1);

  /** So many times of one bridge are taken in one change. */
  private static final int AT_ONCE = 200;

  /** A clock that is set back farther than this was wrong before. */
  private static final Duration SET_BACK = Duration.ofHours(1);

  /** When a bridge is to be looked at again, as long as its version is this one. */
  private record Ahead(BridgeVersion version, Instant next) {}

  private final TimetableMapper mapper;
  private final Segments segments;
  private final Bridges bridges;
  private final IntakeWriter intake;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final Absence absence;
  private final WorkSignals.Signal signal;
  private final Map<String, TimetableRow> rows = new HashMap<>();
  private final Map<String, Ahead> ahead = new ConcurrentHashMap<>();
  private final Breaks breaks;
  private final KeptThread thread;

  Timekeeper(
      TimetableMapper mapper,
      Segments segments,
      Bridges bridges,
      IntakeWriter intake,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      Absence absence,
      WorkSignals signals) {
    this.mapper = mapper;
    this.segments = segments;
    this.bridges = bridges;
    this.intake = intake;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.absence = absence;
    this.breaks = new Breaks(bridges);
    this.signal = signals.toTime();
    mapper.all().forEach(row -> rows.put(row.bridgeId(), row));
    this.thread =
        KeptThread.ofRounds(
            "times",
            signal,
            () -> BETWEEN,
            this::round,
            "the times of bridges could not be looked at");
  }

  /** When a time comes next that is looked at; empty if none does. */
  public Optional<Instant> next() {
    return live().stream()
        .filter(live -> live.hold().isEmpty())
        .map(this::next)
        .min(Comparator.naturalOrder())
        .filter(next -> next.isBefore(Instant.MAX));
  }

  /** One that was not looked at yet, or was compiled anew since, is due. */
  @SuppressWarnings("ReferenceEquality")
  private Instant next(Bridges.Live live) {
    Ahead known = ahead.get(live.version().definition().id());
    return known != null && known.version() == live.version() ? known.next() : Instant.MIN;
  }

  private List<Bridges.Live> live() {
    return bridges.live().stream()
        .filter(live -> live.version().definition().from().times().isPresent())
        .toList();
  }

  void round() {
    if (!room.isEnough()) {
      return;
    }
    Instant now = clock.instant();
    List<Bridges.Live> live = live();
    live.forEach(one -> breaks.guard(one, () -> tendTo(one, now)));
    forget(live);
  }

  private void tendTo(Bridges.Live live, Instant now) {
    TimetableRow row = row(live, now);
    if (live.hold().isPresent()) {
      stopped(row, Stopped.HELD);
    } else if (!next(live).isAfter(now)) {
      ahead.put(
          live.version().definition().id(), new Ahead(live.version(), lookAt(live, row, now)));
    }
  }

  private TimetableRow row(Bridges.Live live, Instant now) {
    String id = live.version().definition().id();
    TimetableRow known = rows.get(id);
    if (known == null) {
      known = new TimetableRow(id, live.version().number(), live.since(), null);
      TimetableRow added = known;
      journal.runSoon(() -> mapper.add(added));
      rows.put(id, added);
    }
    if (known.handled().isAfter(now.plus(SET_BACK))) {
      // The clock was ahead. What was made then is known by its events, so that none is made twice.
      LOG.warn("the times of {} were looked at up to {}, which is to come", id, known.handled());
      return change(new TimetableRow(id, known.number(), now, known.stopped()));
    }
    return known;
  }

  private TimetableRow change(TimetableRow row) {
    journal.runSoon(() -> mapper.change(row));
    rows.put(row.bridgeId(), row);
    return row;
  }

  private void stopped(TimetableRow row, Stopped why) {
    if (row.stopped() != why) {
      change(new TimetableRow(row.bridgeId(), row.number(), row.handled(), why));
    }
  }

  /**
   * Takes in some of what came since it was looked last, so that one with very many keeps no other
   * waiting.
   *
   * @return when it is to be looked at again
   */
  private Instant lookAt(Bridges.Live live, TimetableRow row, Instant now) {
    Segments.Segment segment = segments.after(live, row.number());
    Due due =
        Due.of(segment.times(), row.handled(), segment.end(), now, segment.catchUp(), AT_ONCE);
    boolean ends = !due.more() && segment.end().isBefore(now);
    boolean goesOn = due.more() || ends;
    List<EventRow> events = events(row, due, segment.catchUp(), now);
    TimetableRow after =
        new TimetableRow(
            row.bridgeId(),
            ends ? segment.following() : row.number(),
            ends ? segment.end() : due.until(),
            goesOn ? row.stopped() : null);
    if (!events.isEmpty() || goesOn || row.stopped() != null) {
      intake.keepPage(events, kept -> mapper.change(after));
      rows.put(after.bridgeId(), after);
    }
    if (goesOn) {
      signal.raise();
      return now;
    }
    return segment.times().next(now).map(one -> one.at().toInstant()).orElse(Instant.MAX);
  }

  private List<EventRow> events(TimetableRow row, Due due, CatchUp catchUp, Instant now) {
    String bridge = row.bridgeId();
    List<EventRow> events = new ArrayList<>();
    if (!due.passed().isEmpty()) {
      String why = why(row, due.passed().getLast());
      events.add(TimeEvents.row(TimeSource.missed(bridge, due.passed(), why, catchUp), now));
    }
    for (Occurrence time : due.made()) {
      String missed = Due.isOnTime(time, now) ? "" : why(row, time);
      events.add(TimeEvents.row(TimeSource.event(bridge, time, missed), now));
    }
    return events;
  }

  private String why(TimetableRow row, Occurrence time) {
    return absence.why(row.stopped(), time.at().toInstant());
  }

  /**
   * What is not live any more begins anew if it ever is again; what cannot be used goes on then.
   */
  private void forget(List<Bridges.Live> live) {
    Set<String> kept =
        live.stream().map(one -> one.version().definition().id()).collect(Collectors.toSet());
    for (Bridges.Broken broken : bridges.broken()) {
      Optional.ofNullable(rows.get(broken.id())).ifPresent(row -> stopped(row, Stopped.BROKEN));
      kept.add(broken.id());
    }
    for (String gone : rows.keySet().stream().filter(id -> !kept.contains(id)).toList()) {
      journal.runSoon(() -> mapper.remove(gone));
      rows.remove(gone);
      ahead.remove(gone);
    }
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
