package org.ysthmos.app.timetable;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.TimetableMapper.TimetableRow;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.Timetable;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.ValueType;

/**
 * Times of years, with a clock that is put forward and back, with sleeps, and with kills that undo
 * what was not on the disk yet.
 */
class TimekeeperTest {

  private static final String ID = "rounds";
  private static final Instant BEGIN = Instant.parse("2025-01-01T12:00:00Z");
  private static final Duration DAY = Duration.ofDays(1);

  /** What is on the disk: events by their ids, in order, and how far the times were looked at. */
  private static final class Store {
    private final Map<String, EventRow> events = new TreeMap<>();
    private final Map<String, TimetableRow> rows = new TreeMap<>();

    private Store copy() {
      Store copy = new Store();
      copy.events.putAll(events);
      copy.rows.putAll(rows);
      return copy;
    }
  }

  private final Bridges bridges = mock(Bridges.class);
  private final BridgeHistory history = mock(BridgeHistory.class);
  private final Timetables timetables = mock(Timetables.class);
  private final AppClock clock = mock(AppClock.class);
  private final List<BridgeHistory.Kept> versions = new ArrayList<>();
  private Store disk = new Store();
  private Optional<Bridges.Hold> hold = Optional.empty();
  private Instant now = BEGIN;
  private Timekeeper keeper = started();

  @BeforeEach
  void bridge() {
    when(clock.instant()).thenAnswer(any -> now);
    when(timetables.times(any()))
        .thenAnswer(
            asked -> new Occurrences(asked.<Timetable>getArgument(0).times(), Optional.empty()));
    when(history.versions(ID)).thenAnswer(any -> versions.reversed());
    when(bridges.broken()).thenReturn(List.of());
    goLive("FREQ=DAILY", "each");
    keeper = started();
  }

  /** As at a start: all that is known is what is on the disk. */
  private Timekeeper started() {
    when(clock.instant()).thenAnswer(any -> now);
    TimetableMapper mapper = mock(TimetableMapper.class);
    when(mapper.all()).thenAnswer(any -> List.copyOf(disk.rows.values()));
    Consumer<TimetableRow> keep = row -> disk.rows.put(row.bridgeId(), row);
    doAnswer(call -> run(keep, call.getArgument(0))).when(mapper).add(any());
    doAnswer(call -> run(keep, call.getArgument(0))).when(mapper).change(any());
    doAnswer(call -> disk.rows.remove(call.<String>getArgument(0)))
        .when(mapper)
        .remove(anyString());
    IntakeWriter intake = mock(IntakeWriter.class);
    doAnswer(
            call -> {
              List<EventRow> page = call.getArgument(0);
              page.forEach(event -> disk.events.putIfAbsent(event.sourceId(), event));
              call.<Consumer<List<IntakeWriter.Kept>>>getArgument(1).accept(List.of());
              return null;
            })
        .when(intake)
        .keepPage(any(), any());
    Journal journal = mock(Journal.class);
    doAnswer(call -> run(Runnable::run, call.getArgument(0))).when(journal).runSoon(any());
    DiskRoom room = mock(DiskRoom.class);
    when(room.isEnough()).thenReturn(true);
    return new Timekeeper(
        mapper,
        new Segments(history, timetables),
        bridges,
        intake,
        journal,
        room,
        clock,
        new Absence(clock),
        new WorkSignals());
  }

  private static <T> Object run(Consumer<T> act, T with) {
    act.accept(with);
    return "";
  }

  private static BridgeVersion compiled(String rule, String catchUp, int number) {
    CollectionShape jobs =
        new CollectionShape(
            "ledger",
            "Ledger",
            "jobs",
            "jobs",
            "job",
            "title",
            "",
            List.of(FieldShape.of("title", "title", ValueType.TEXT)),
            List.of());
    String document =
        """
        bridge: rounds
        name: Rounds
        purpose: Somebody goes round
        from:
          times: { rule: "%s", zone: America/Halifax, start: "2025-01-01T06:00" }
          catch-up: %s
        to: { system: ledger, collection: jobs }
        match: [event/id]
        fields: { title: { text: "Go round" } }
        """
            .formatted(rule, catchUp);
    Shapes shapes = mock(Shapes.class);
    when(shapes.find("ledger", "jobs")).thenReturn(Optional.of(jobs));
    return BridgeCompiler.compile(document, number, Catalog.of(shapes));
  }

  private void goLive(String rule, String catchUp) {
    int number = versions.size() + 1;
    BridgeVersion version = compiled(rule, catchUp, number);
    versions.add(new BridgeHistory.Kept(number, BridgeWriter.write(version.definition()), now));
    Instant since = now;
    Ceiling ceiling = Ceiling.of(version.definition().ceiling(), Map.of());
    when(bridges.live())
        .thenAnswer(any -> List.of(new Bridges.Live(version, "", since, ceiling, hold, 0)));
  }

  /** As its thread does: once, and again as long as something is due. */
  private void look() {
    do {
      keeper.round();
    } while (hold.isEmpty() && keeper.next().filter(next -> !next.isAfter(now)).isPresent());
  }

  private void sleep(Duration span) {
    now = now.plus(span);
    look();
  }

  private static JsonNode time(EventRow event) {
    return ReceivedEvents.body(event).path(TimeSource.OCCURRENCE);
  }

  private List<EventRow> made() {
    return disk.events.values().stream()
        .filter(event -> event.kind().equals(TimeSource.DUE))
        .toList();
  }

  private List<EventRow> missed() {
    return disk.events.values().stream()
        .filter(event -> event.kind().equals(TimeSource.MISSED))
        .toList();
  }

  private Set<Instant> times(String rule, Instant from, Instant until) {
    return new Occurrences(
            compiled(rule, "each", 1).definition().from().times().orElseThrow().times(),
            Optional.empty())
        .between(from, until, 100_000).stream()
            .map(Occurrence::at)
            .map(at -> at.toInstant())
            .collect(Collectors.toSet());
  }

  private static Function<EventRow, Instant> at() {
    return EventRow::happenedAt;
  }

  @Test
  void nothingBeforeItWentLiveIsMade() {
    sleep(Duration.ofMinutes(1));
    assertThat(disk.events).isEmpty();
    assertThat(keeper.next()).contains(Instant.parse("2025-01-02T10:00:00Z"));
  }

  @Test
  void timeThatIsLookedAtWhenItComesWasNotMissed() {
    now = Instant.parse("2025-01-02T10:00:00Z");
    sleep(Duration.ofSeconds(1));
    assertThat(made()).hasSize(1);
    assertThat(time(made().getFirst()).has("missed")).isFalse();
    sleep(Duration.ofSeconds(1));
    assertThat(made()).hasSize(1);
  }

  @Test
  void eachThatWasMissedInASleepSaysSo() {
    sleep(Duration.ofMinutes(1));
    sleep(DAY.multipliedBy(400));
    assertThat(made()).extracting(at()).hasSize(400).isSorted();
    assertThat(made())
        .allSatisfy(
            one -> assertThat(time(one).path("missed").asText()).startsWith("the machine slept"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"latest", "none"})
  void whatIsNotMadeUpForIsKeptAsMissed(String catchUp) {
    goLive("FREQ=DAILY", catchUp);
    sleep(Duration.ofMinutes(1));
    Instant slept = now;
    now = now.plus(DAY.multipliedBy(450));
    keeper = started();
    look();
    assertThat(made()).hasSize(catchUp.equals("latest") ? 1 : 0);
    List<String> all = new ArrayList<>();
    missed().forEach(one -> time(one).path("times").forEach(id -> all.add(id.asText())));
    assertThat(all).doesNotHaveDuplicates().hasSize(450 - made().size());
    assertThat(missed().getFirst().happenedAt()).isAfter(slept);
    assertThat(time(missed().getFirst()).path("missed").asText())
        .contains("as Ysthmos was not running");
  }

  @Test
  void holdIsASleepOfTheBridgeAlone() {
    sleep(Duration.ofMinutes(1));
    hold = Optional.of(new Bridges.Hold(now, "for a while", "someone"));
    sleep(DAY.multipliedBy(3));
    assertThat(disk.events).isEmpty();
    assertThat(keeper.next()).isEmpty();
    keeper = started();
    hold = Optional.empty();
    sleep(Duration.ofSeconds(1));
    assertThat(made())
        .hasSize(3)
        .allSatisfy(
            one -> assertThat(time(one).path("missed").asText()).isEqualTo("the bridge was held"));
    sleep(DAY);
    assertThat(time(made().getLast()).path("missed").asText())
        .as("the hold is over")
        .startsWith("the machine slept");
  }

  @Test
  void timesOfAVersionCountFromWhenItWentLive() {
    sleep(Duration.ofMinutes(1));
    hold = Optional.of(new Bridges.Hold(now, "for a while", "someone"));
    sleep(DAY.multipliedBy(2));
    goLive("FREQ=HOURLY", "each");
    Instant second = now;
    sleep(Duration.ofHours(5));
    hold = Optional.empty();
    sleep(Duration.ofSeconds(1));
    Set<Instant> expected = times("FREQ=DAILY", BEGIN, second);
    expected.addAll(times("FREQ=HOURLY", second, now));
    assertThat(made()).extracting(at()).containsExactlyInAnyOrderElementsOf(expected);
  }

  @Test
  void clockThatWasFarAheadKeepsNothingBack() {
    sleep(Duration.ofMinutes(1));
    sleep(DAY.multipliedBy(30));
    assertThat(made()).hasSize(30);
    now = BEGIN.plus(Duration.ofMinutes(5));
    look();
    Duration quarter = Duration.ofMinutes(15);
    for (int i = 0; i < 4 * 24 * 31; i++) {
      sleep(quarter);
    }
    assertThat(made()).as("none twice, and the next is not lost").hasSize(31);
  }

  @Test
  void bridgeWhoseTimesCannotBeToldIsHeldInTheEnd() {
    doThrow(new IllegalStateException("there is no calendar")).when(timetables).times(any());
    for (int i = 0; i < 6; i++) {
      verify(bridges, never()).holdItself(any(), any(), anyLong());
      keeper.round();
    }
    verify(bridges)
        .holdItself(eq(ID), eq("Its times cannot be told: there is no calendar"), eq(0L));
  }

  @Test
  void whatIsRetiredBeginsAnew() {
    sleep(DAY);
    assertThat(disk.rows).isNotEmpty();
    when(bridges.live()).thenReturn(List.of());
    look();
    assertThat(disk.rows).isEmpty();
  }

  /** Every time exactly once: two years of sleeps, kills, and steps of the clock. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void everyTimeOfYearsIsMadeExactlyOnce(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    String rule = random.nextBoolean() ? "FREQ=DAILY;BYHOUR=1,6,23" : "FREQ=HOURLY;INTERVAL=3";
    goLive(rule, "each");
    keeper = started();
    look();
    Instant end = BEGIN.plus(DAY.multipliedBy(730));
    Store forced = disk.copy();
    Instant farthest = now;
    while (farthest.isBefore(end)) {
      long seconds =
          switch (random.nextInt(20)) {
            case 0 -> -random.nextLong(3 * 86_400);
            case 1 -> random.nextLong(40 * 86_400);
            default -> random.nextLong(40_000);
          };
      now = now.plusSeconds(seconds).isBefore(BEGIN) ? BEGIN : now.plusSeconds(seconds);
      if (random.nextInt(10) == 0) {
        // A kill: what was not forced to the disk is undone.
        disk = random.nextBoolean() ? disk : forced.copy();
        keeper = started();
      }
      look();
      if (random.nextInt(4) == 0) {
        forced = disk.copy();
      }
      farthest = now.isAfter(farthest) ? now : farthest;
    }
    now = farthest;
    look();
    assertThat(made())
        .extracting(at())
        .containsExactlyInAnyOrderElementsOf(times(rule, BEGIN, farthest));
  }
}
