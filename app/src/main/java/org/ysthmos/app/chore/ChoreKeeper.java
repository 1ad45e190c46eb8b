package org.ysthmos.app.chore;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.ChoreMapper.ChoreRow;
import org.ysthmos.app.chore.ChoreMapper.TableRow;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.Absence;
import org.ysthmos.app.timetable.Absence.Stopped;
import org.ysthmos.app.timetable.Breaks;
import org.ysthmos.app.timetable.TimeEvents;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Due;
import org.ysthmos.core.recurrence.Occurrence;

/**
 * Makes an event of each time that comes of a row. Only those are read of which a task is to be
 * made, however many rows there are; how far one is stands with its events in one change, and a
 * time is the same event however often it is looked at.
 */
@Component
public class ChoreKeeper implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(ChoreKeeper.class);
  private static final Duration BETWEEN = Duration.ofSeconds(1);

  /** So many rows are taken in one change, and so many times of one. */
  private static final int ROWS_AT_ONCE = 100;

  private static final int TIMES_AT_ONCE = 20;

  /** A clock that is set back farther than this was wrong before. */
  private static final Duration SET_BACK = Duration.ofHours(1);

  private final ChoreMapper mapper;
  private final KeptChores chores;
  private final Bridges bridges;
  private final IntakeWriter intake;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final Absence absence;
  private final Breaks breaks;
  private final WorkSignals.Signal signal;
  private final KeptThread thread;

  /** The latest moment at which rows were looked at; at the start that is not known. */
  private Instant latest = Instant.MAX;

  ChoreKeeper(
      ChoreMapper mapper,
      KeptChores chores,
      Bridges bridges,
      IntakeWriter intake,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      Absence absence,
      WorkSignals signals) {
    this.mapper = mapper;
    this.chores = chores;
    this.bridges = bridges;
    this.intake = intake;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.absence = absence;
    this.breaks = new Breaks(bridges);
    this.signal = signals.toChores();
    this.thread =
        KeptThread.ofRounds(
            "chores",
            signal,
            () -> BETWEEN,
            this::round,
            "the times of rows could not be looked at");
  }

  /** The live bridges over rows that come round. */
  static List<Bridges.Live> live(Bridges bridges) {
    return bridges.live().stream().filter(live -> live.version().chores().isPresent()).toList();
  }

  /** When a task is made next; empty if none is. */
  public Optional<Instant> next() {
    return live(bridges).stream()
        .filter(live -> live.hold().isEmpty())
        .map(live -> mapper.nextMake(live.version().definition().id()))
        .filter(Objects::nonNull)
        .min(Instant::compareTo);
  }

  void round() {
    if (!room.isEnough()) {
      return;
    }
    Instant now = clock.instant();
    if (now.isBefore(latest)) {
      wasAhead(now);
    }
    latest = now;
    List<Bridges.Live> live = live(bridges);
    live.forEach(one -> breaks.guard(one, () -> tendTo(one, now)));
    forget(live);
  }

  /** What was made while the clock was ahead is known by its events, so that none comes twice. */
  private void wasAhead(Instant now) {
    int many = journal.soon(() -> mapper.beginAnew(now, now.plus(SET_BACK)));
    if (many > 0) {
      LOG.warn("the times of {} rows were looked at by a clock that was ahead", many);
    }
  }

  private void tendTo(Bridges.Live live, Instant now) {
    String id = live.version().definition().id();
    TableRow table = mapper.table(id);
    if (table == null) {
      return;
    }
    if (live.hold().isPresent()) {
      stopped(table, Stopped.HELD);
      return;
    }
    List<ChoreRow> due = mapper.due(id, now, ROWS_AT_ONCE);
    List<EventRow> events = new ArrayList<>();
    List<ChoreRow> after = new ArrayList<>();
    due.forEach(row -> after.add(lookAt(live.version(), row, stopped(table), now, events)));
    if (!due.isEmpty()) {
      intake.keepPage(events, kept -> after.forEach(mapper::moved));
    }
    boolean more =
        due.size() == ROWS_AT_ONCE
            || after.stream().anyMatch(row -> row.makeAt() != null && !row.makeAt().isAfter(now));
    if (more) {
      signal.raise();
    } else {
      stopped(table, null);
    }
  }

  private static @Nullable Stopped stopped(TableRow table) {
    return table.stopped() == null ? null : Stopped.valueOf(table.stopped());
  }

  private void stopped(TableRow table, @Nullable Stopped why) {
    if (stopped(table) != why) {
      journal.runSoon(() -> mapper.stop(table.bridgeId(), why == null ? null : why.name()));
    }
  }

  /** A row whose times cannot be told rests, and keeps no other from coming round. */
  private ChoreRow lookAt(
      BridgeVersion bridge,
      ChoreRow row,
      @Nullable Stopped stopped,
      Instant now,
      List<EventRow> events) {
    try {
      Chore chore = KeptChores.chore(row).orElseThrow();
      CatchUp catchUp = bridge.chores().orElseThrow().rules().catchUp();
      ChoreTimes.Look look =
          chores
              .times(bridge, row.recordId(), chore)
              .look(KeptChores.progress(row), now, catchUp, TIMES_AT_ONCE);
      Event told = KeptChores.told(bridge, row);
      for (Event event : events(bridge, told, look, catchUp, stopped, now)) {
        events.add(TimeEvents.row(event, now));
      }
      return row.after(look, now);
    } catch (RuntimeException e) {
      LOG.error("the times of row {} of {} cannot be told", row.recordId(), row.bridgeId(), e);
      return row.resting("its times cannot be told: " + e.getMessage());
    }
  }

  private List<Event> events(
      BridgeVersion bridge,
      Event row,
      ChoreTimes.Look look,
      CatchUp catchUp,
      @Nullable Stopped stopped,
      Instant now) {
    String id = bridge.definition().id();
    List<Event> events = new ArrayList<>();
    if (!look.passed().isEmpty()) {
      List<Occurrence> missed = look.passed().stream().map(ToMake::time).toList();
      String why = absence.why(stopped, look.passed().getLast().make());
      events.add(ChoreSource.missed(id, row, missed, why, catchUp));
    }
    for (int i = 0; i < look.made().size(); i++) {
      ToMake time = look.made().get(i);
      boolean onTime = !time.make().isBefore(now.minus(Due.ON_TIME));
      Optional<ToMake> next =
          i + 1 < look.made().size() ? Optional.of(look.made().get(i + 1)) : look.next();
      events.add(
          ChoreSource.event(
              id,
              row,
              time,
              onTime ? "" : absence.why(stopped, time.make()),
              next.map(ToMake::time)));
    }
    return events;
  }

  /** What is not live any more begins anew if it ever is again. */
  private void forget(List<Bridges.Live> live) {
    List<String> kept =
        new ArrayList<>(live.stream().map(one -> one.version().definition().id()).toList());
    for (Bridges.Broken broken : bridges.broken()) {
      kept.add(broken.id());
      Optional.ofNullable(mapper.table(broken.id()))
          .ifPresent(table -> stopped(table, Stopped.BROKEN));
    }
    for (String gone : mapper.tables().stream().filter(id -> !kept.contains(id)).toList()) {
      journal.runSoon(
          () -> {
            mapper.removeAll(gone);
            mapper.removeTable(gone);
          });
    }
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
