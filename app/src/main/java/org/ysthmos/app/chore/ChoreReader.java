package org.ysthmos.app.chore;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.ChoreMapper.TableRow;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;

/**
 * Reads all rows of a table that comes round: when its bridge begins, and when its rules of coming
 * round changed, it tells them to the bridge. Later it looks which of them are gone, as not every
 * system tells of that, and tells those of which nothing was heard. How far it is stands with the
 * page that was kept.
 */
@Component
public class ChoreReader implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(ChoreReader.class);

  private static final Duration BETWEEN = Duration.ofSeconds(1);

  /** After how long it is looked again which rows are gone. */
  private static final Duration UNTIL_AGAIN = Duration.ofHours(1);

  /**
   * A row that a reading did not meet may have moved to another page meanwhile: it is read anew.
   */
  private static final Duration UNTIL_SURE = Duration.ofMinutes(1);

  /** What waits longer was told so by a clock that was ahead. */
  private static final Duration LONGEST_REST = Duration.ofDays(2);

  private static final Duration FIRST_WAIT = Duration.ofSeconds(5);
  private static final Duration LONGEST_WAIT = Duration.ofMinutes(5);

  /** After so many tries in vain, one after the other, the bridge holds itself: half an hour. */
  private static final int MOST_TRIES = 12;

  private static final String LISTS_NONE =
      "Its system does not list all rows, so that those come round of which it tells from now on.";

  private static final String GONE = "its row was not there when all were read";

  private final ChoreMapper mapper;
  private final Bridges bridges;
  private final BridgeHistory history;
  private final Systems systems;
  private final IntakeWriter intake;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final LiveFeed feed;
  private final WorkSignals.Signal signal = new WorkSignals.Signal();
  private final KeptThread thread;

  ChoreReader(
      ChoreMapper mapper,
      Bridges bridges,
      BridgeHistory history,
      Systems systems,
      IntakeWriter intake,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      LiveFeed feed) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.history = history;
    this.systems = systems;
    this.intake = intake;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.feed = feed;
    this.thread =
        KeptThread.ofRounds(
            "chore-rows", signal, () -> BETWEEN, this::round, "rows could not be read");
  }

  /** Whether rows are read just now that a bridge does not know yet. */
  public boolean isUnderWay() {
    Instant now = clock.instant();
    return ChoreKeeper.live(bridges).stream()
        .anyMatch(
            live -> {
              TableRow table = mapper.table(live.version().definition().id());
              return table == null
                  || table.number() != live.version().number()
                  || (table.tells() && !table.through() && !table.nextAt().isAfter(now));
            });
  }

  void round() {
    boolean anyCan = true;
    while (anyCan && thread.isRunning() && room.isEnough()) {
      anyCan = false;
      for (Bridges.Live live : ChoreKeeper.live(bridges)) {
        anyCan |= goOn(live);
      }
    }
  }

  /** One page of a bridge; false if it has to wait. */
  private boolean goOn(Bridges.Live live) {
    BridgeVersion bridge = live.version();
    Instant now = clock.instant();
    TableRow table = begun(bridge, now);
    if (table.nextAt().isAfter(now) && !table.nextAt().isAfter(now.plus(LONGEST_REST))) {
      return false;
    }
    TableRow going =
        table.through()
            ? TableRow.begin(table.bridgeId(), table.number(), table.reading() + 1, false, now)
            : table;
    try {
      return readPage(live, going, now);
    } catch (RuntimeException e) {
      LOG.error("rows for bridge {} could not be read", bridge.definition().id(), e);
      inVain(live, going, "Reading its rows broke here (%s)".formatted(e), FIRST_WAIT, now);
      return false;
    }
  }

  private TableRow begun(BridgeVersion bridge, Instant now) {
    String id = bridge.definition().id();
    TableRow known = mapper.table(id);
    if (known != null && known.number() == bridge.number()) {
      return known;
    }
    TableRow table =
        known != null && comesRoundAlike(bridge, known.number())
            ? known.by(bridge.number())
            : TableRow.begin(
                id, bridge.number(), known == null ? 1 : known.reading() + 1, true, now);
    journal.runSoon(() -> mapper.putTable(table));
    return table;
  }

  /** Whether rows come round by a version as they did by an earlier one. */
  private boolean comesRoundAlike(BridgeVersion bridge, int number) {
    return history
        .version(bridge.definition().id(), number)
        .compiled()
        .map(BridgeVersion::definition)
        .filter(before -> comesRoundAlike(before, bridge.definition()))
        .isPresent();
  }

  private static boolean comesRoundAlike(BridgeDefinition one, BridgeDefinition other) {
    return one.from().system().equals(other.from().system())
        && one.from().collection().equals(other.from().collection())
        && one.from().chores().equals(other.from().chores())
        && one.values().equals(other.values());
  }

  /**
   * Keeps a page with how far it is. What is read was so when it was asked for: what was told of a
   * row since then says more.
   *
   * @return whether there is another page at once
   */
  private boolean readPage(Bridges.Live live, TableRow table, Instant now) {
    BridgeDefinition.From from = live.version().definition().from();
    Optional<SystemCollection> collection = systems.collection(from.system(), from.collection());
    Optional<Systems.Connected> system = systems.find(from.system());
    if (collection.isEmpty() || system.isEmpty() || !collection.get().listsAll()) {
      TableRow through = table.after(0, null, now.plus(UNTIL_AGAIN));
      put(through.inVain(LISTS_NONE, 0, through.nextAt()));
      return false;
    }
    if (!system.get().breaker().admits(now)) {
      inVain(live, table, system.get().description().name() + " does not answer.", BETWEEN, now);
      return false;
    }
    return switch (system
        .get()
        .gateway()
        .whole(from.collection(), Optional.ofNullable(table.place()), call -> {})) {
      case NotRead notRead -> {
        system.get().note(notRead.failure(), now);
        unread(live, table, notRead.failure(), now);
        yield false;
      }
      case Page page -> {
        system.get().breaker().answered();
        keep(live.version(), table, page, collection.get(), now);
        yield page.next().isPresent();
      }
    };
  }

  private void keep(
      BridgeVersion bridge, TableRow table, Page page, SystemCollection collection, Instant now) {
    String id = bridge.definition().id();
    List<Changed> records = page.records().stream().filter(ChoreReader::canBeKept).toList();
    Set<String> known = table.tells() ? Set.of() : known(id, records);
    List<EventRow> events =
        records.stream()
            .filter(one -> !known.contains(one.id()))
            .map(one -> event(bridge, table.reading(), one, collection, now))
            .toList();
    intake.keepPage(
        events,
        kept -> {
          Chunks.each(
              records.stream().map(Changed::id).toList(),
              some -> mapper.met(id, table.reading(), some));
          mapper.putTable(after(table, records.size(), page.next(), now));
        });
    feed.changed(id, "");
  }

  private Set<String> known(String bridge, List<Changed> records) {
    Set<String> known = new HashSet<>();
    Chunks.each(
        records.stream().map(Changed::id).toList(),
        some -> known.addAll(mapper.known(bridge, some, GONE)));
    return known;
  }

  /** What two readings after each other did not meet is gone; inside a change. */
  private TableRow after(TableRow table, int rows, Optional<String> next, Instant now) {
    if (next.isPresent()) {
      return table.after(rows, next.get(), now);
    }
    int unused = mapper.notMet(table.bridgeId(), table.reading() - 1, GONE);
    boolean sure = mapper.missed(table.bridgeId(), table.reading()) == 0;
    return table.after(rows, null, now.plus(sure ? UNTIL_AGAIN : UNTIL_SURE));
  }

  /** What cannot be is set aside by whoever asks for changes, and seen there. */
  private static boolean canBeKept(Changed record) {
    return record.id().length() <= EventRow.LONGEST_RECORD_ID
        && record.record().toString().getBytes(StandardCharsets.UTF_8).length
            <= EventRow.LARGEST_BODY;
  }

  private static EventRow event(
      BridgeVersion bridge, int reading, Changed record, SystemCollection collection, Instant now) {
    BridgeDefinition definition = bridge.definition();
    String kind = ChoreSource.read(definition.id());
    return new EventRow(
        0,
        definition.from().system(),
        PolledEvent.id(
            "%s/read %d.%d".formatted(definition.id(), bridge.number(), reading),
            record.id(),
            record.version()),
        definition.from().collection(),
        kind,
        record.id(),
        record.changed().orElse(now),
        now,
        EventMapper.Origin.DUE,
        PolledEvent.data(collection, record, kind).toString().getBytes(StandardCharsets.UTF_8));
  }

  private void put(TableRow table) {
    journal.runSoon(() -> mapper.putTable(table));
  }

  private void unread(Bridges.Live live, TableRow table, Failure failure, Instant now) {
    if (failure.noRoom()) {
      put(
          table.inVain(
              Words.sentence(failure),
              table.tries(),
              now.plus(failure.retryAfter().orElse(FIRST_WAIT))));
      return;
    }
    inVain(live, table, Words.sentence(failure), FIRST_WAIT, now);
  }

  /** Tries again later; a bridge whose rows are not known is held at last, for a person to see. */
  private void inVain(Bridges.Live live, TableRow table, String why, Duration first, Instant now) {
    int tries = table.tries() + 1;
    boolean last = table.tells() && tries >= MOST_TRIES;
    Duration wait = first.multipliedBy(1L << Math.min(tries - 1, 10));
    Instant goesOn = now.plus(wait.compareTo(LONGEST_WAIT) > 0 ? LONGEST_WAIT : wait);
    put(table.inVain(Words.limited(why, 1900) + " It is tried again.", last ? 0 : tries, goesOn));
    if (last) {
      bridges.holdItself(
          table.bridgeId(), "Not all of its rows could be read: " + why, live.letThrough());
    }
    feed.changed(table.bridgeId(), "");
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
