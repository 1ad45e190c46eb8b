package org.ysthmos.app.chore;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.ChoreMapper.ChoreRow;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.Absence;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.decide.ChoreLook;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.ValueType;

/**
 * Rows that come round for years, with sleeps, holds, kills that undo what was not on the disk, a
 * clock that is put forward and back, and rows that are changed.
 */
class ChoreKeeperTest {

  private static final String ID = "rounds";
  private static final Instant BEGIN = Instant.parse("2025-01-01T12:00:00Z");
  private static final Duration DAY = Duration.ofDays(1);

  private final Bridges bridges = mock(Bridges.class);
  private final AppClock clock = mock(AppClock.class);
  private final ChoresOnDisk disk = new ChoresOnDisk(ID, BEGIN);
  private final KeptChores chores = new KeptChores(disk.mapper, mock(Tables.class));
  private Optional<Bridges.Hold> hold = Optional.empty();
  private Instant now = BEGIN;
  private BridgeVersion bridge = compiled("each");
  private ChoreKeeper keeper = started();
  private long told;

  @BeforeEach
  void store() {
    when(clock.instant()).thenAnswer(any -> now);
    when(bridges.broken()).thenReturn(List.of());
    when(bridges.live())
        .thenAnswer(
            any -> {
              Ceiling ceiling = Ceiling.of(bridge.definition().ceiling(), Map.of());
              return List.of(new Bridges.Live(bridge, "", BEGIN, ceiling, hold, 0));
            });
    keeper = started();
  }

  private ChoreKeeper started() {
    when(clock.instant()).thenAnswer(any -> now);
    IntakeWriter intake = mock(IntakeWriter.class);
    doAnswer(
            call -> {
              List<EventRow> page = call.getArgument(0);
              page.forEach(event -> disk.take(event));
              call.<Consumer<List<IntakeWriter.Kept>>>getArgument(1).accept(List.of());
              return null;
            })
        .when(intake)
        .keepPage(any(), any());
    Journal journal = mock(Journal.class);
    doAnswer(
            call -> {
              call.<Runnable>getArgument(0).run();
              return null;
            })
        .when(journal)
        .runSoon(any());
    when(journal.soon(any())).thenAnswer(call -> call.<Supplier<?>>getArgument(0).get());
    DiskRoom room = mock(DiskRoom.class);
    when(room.isEnough()).thenReturn(true);
    return new ChoreKeeper(
        disk.mapper,
        chores,
        bridges,
        intake,
        journal,
        room,
        clock,
        new Absence(clock),
        new WorkSignals());
  }

  private static BridgeVersion compiled(String catchUp) {
    CollectionShape rows =
        new CollectionShape(
            "sheets",
            "Sheets",
            "rounds",
            "rounds",
            "round",
            "",
            "",
            List.of(),
            List.of(
                FieldShape.of("/every", "every", ValueType.TEXT),
                FieldShape.of("/lead", "lead", ValueType.TEXT)));
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
          system: sheets
          collection: rounds
          event: [created, changed]
          chores: { every: /every, zone: America/Halifax, at: "06:00", lead: /lead, spread: PT10M }
          catch-up: %s
        to: { system: ledger, collection: jobs }
        match: [event/record, /occurrence/said]
        fields: { title: { text: "Go round" } }
        """
            .formatted(catchUp);
    Shapes shapes = mock(Shapes.class);
    when(shapes.find("sheets", "rounds")).thenReturn(Optional.of(rows));
    when(shapes.find("ledger", "jobs")).thenReturn(Optional.of(jobs));
    return BridgeCompiler.compile(document, 1, Catalog.of(shapes));
  }

  /** Somebody writes a row, and it is decided at once. */
  private void row(String record, String every, String lead) {
    String body = "{\"every\":\"%s\",\"lead\":\"%s\"}".formatted(every, lead);
    EventRow event =
        new EventRow(
            ++told,
            "sheets",
            "e" + told,
            "rounds",
            "changed",
            record,
            now,
            now,
            EventMapper.Origin.POLLED,
            body.getBytes(StandardCharsets.UTF_8));
    assertThat(chores.isDueBefore(ID, event, now)).as("its times were looked at before").isFalse();
    ChoreLook look =
        Decider.decide(
                bridge,
                ReceivedEvents.event(event),
                new TrialWorld(Catalog.of(mock(Shapes.class)), Map.of()),
                Mode.PLAIN)
            .chore()
            .orElseThrow();
    chores.keep(bridge, event, look);
  }

  private void look() {
    do {
      keeper.round();
    } while (hold.isEmpty() && keeper.next().filter(next -> !next.isAfter(now)).isPresent());
  }

  private void sleep(Duration span) {
    now = now.plus(span);
    look();
  }

  private List<EventRow> of(String kind) {
    return disk.events().stream()
        .filter(event -> event.kind().equals(kind + " for rounds"))
        .toList();
  }

  private static JsonNode time(EventRow event) {
    return ReceivedEvents.body(event).path(TimeSource.OCCURRENCE);
  }

  @Test
  void taskIsMadeBeforeItIsDueAndItsShareLater() {
    row("r-1", "every Monday", "3");
    sleep(Duration.ofHours(20));
    assertThat(of("due")).isEmpty();
    // Friday the third, three days before the Monday; the share is less than ten minutes.
    now = Instant.parse("2025-01-03T10:10:00Z");
    look();
    assertThat(of("due")).hasSize(1);
    assertThat(time(of("due").getFirst()).path("day").asText()).isEqualTo("2025-01-06");
    assertThat(time(of("due").getFirst()).path("next").asText()).isEqualTo("2025-01-13");
    assertThat(time(of("due").getFirst()).has("missed")).isFalse();
  }

  @Test
  void rowThatIsChangedComesByWhatItSaysNowAndByWhatItSaidBefore() {
    row("r-1", "daily", "");
    sleep(DAY.multipliedBy(3));
    row("r-1", "every Monday", "");
    sleep(DAY.multipliedBy(14));
    assertThat(of("due"))
        .extracting(event -> time(event).path("day").asText())
        .containsExactly("2025-01-02", "2025-01-03", "2025-01-04", "2025-01-06", "2025-01-13");
    row("r-1", "", "");
    sleep(DAY.multipliedBy(30));
    assertThat(of("due")).hasSize(5);
    assertThat(disk.row("r-1").rests()).contains("does not say how often");
  }

  @Test
  void sameRuleAgainMakesNothingTwiceAndLosesNothing() {
    row("r-1", "daily", "2");
    sleep(DAY.multipliedBy(2));
    int made = of("due").size();
    row("r-1", "FREQ=DAILY", "2 days");
    look();
    assertThat(of("due")).hasSize(made);
    sleep(DAY);
    assertThat(of("due")).hasSize(made + 1);
  }

  @Test
  void holdIsASleepOfTheBridgeAlone() {
    row("r-1", "daily", "");
    hold = Optional.of(new Bridges.Hold(now, "for a while", "someone"));
    sleep(DAY.multipliedBy(3));
    assertThat(disk.events()).isEmpty();
    hold = Optional.empty();
    sleep(Duration.ofSeconds(1));
    assertThat(of("due"))
        .hasSize(3)
        .allSatisfy(
            one -> assertThat(time(one).path("missed").asText()).isEqualTo("the bridge was held"));
    sleep(DAY);
    assertThat(time(of("due").getLast()).path("missed").asText()).startsWith("the machine slept");
  }

  @Test
  void ofALongSleepTheLatestOfEachRowIsMadeAndTheOthersAreNamed() {
    bridge = compiled("latest");
    row("r-1", "daily", "");
    row("r-2", "daily", "");
    sleep(DAY.multipliedBy(45));
    assertThat(of("due")).hasSize(2);
    List<String> passed = new ArrayList<>();
    of("missed").forEach(one -> time(one).path("times").forEach(id -> passed.add(id.asText())));
    assertThat(passed).hasSize(88);
  }

  @Test
  void manyThatAreDueAtOnceAreAllMade() {
    for (int i = 0; i < 1_000; i++) {
      row("r-" + i, "every Thursday", "");
    }
    sleep(DAY);
    assertThat(of("due")).hasSize(1_000);
    assertThat(keeper.next()).hasValueSatisfying(next -> assertThat(next).isAfter(now));
  }

  /** Every time exactly once: two years of sleeps, kills, holds and steps of the clock. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void everyTimeOfYearsIsMadeExactlyOnce(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    Map<String, String> rules =
        Map.of(
            "r-1", "FREQ=DAILY;BYHOUR=1,6,23",
            "r-2", "every Monday and Thursday",
            "r-3", "the 31st of each month".replace("the", "on the"));
    rules.forEach((record, rule) -> row(record, rule, "" + random.nextInt(3)));
    Set<String> expected = new HashSet<>();
    Instant end = BEGIN.plus(DAY.multipliedBy(730));
    disk.force();
    Instant farthest = now;
    while (farthest.isBefore(end)) {
      long seconds =
          switch (random.nextInt(20)) {
            case 0 -> -random.nextLong(3 * 86_400);
            case 1 -> random.nextLong(40 * 86_400);
            default -> random.nextLong(80_000);
          };
      now = now.plusSeconds(seconds).isBefore(BEGIN) ? BEGIN : now.plusSeconds(seconds);
      if (random.nextInt(10) == 0) {
        // A kill: what was not forced to the disk is undone.
        if (random.nextBoolean()) {
          disk.undoWhatWasNotForced();
        }
        keeper = started();
      }
      hold =
          random.nextInt(12) == 0
              ? Optional.of(new Bridges.Hold(now, "for a while", "someone"))
              : Optional.empty();
      look();
      if (random.nextInt(4) == 0) {
        disk.force();
      }
      farthest = now.isAfter(farthest) ? now : farthest;
    }
    now = farthest;
    hold = Optional.empty();
    look();
    for (ChoreRow row : disk.rows()) {
      ChoreTimes times = chores.times(bridge, row.recordId(), KeptChores.chore(row).orElseThrow());
      for (ChoreTimes.ToMake time : times.after(ChoreTimes.Progress.from(BEGIN), 5_000)) {
        if (!time.make().isAfter(farthest)) {
          expected.add(row.recordId() + " " + id(time.time()));
        }
      }
    }
    List<String> made =
        of("due").stream()
            .map(event -> event.recordId() + " " + event.sourceId().replaceAll(".*/", ""))
            .toList();
    assertThat(made).doesNotHaveDuplicates().containsExactlyInAnyOrderElementsOf(expected);
  }

  private static String id(Occurrence time) {
    return time.id();
  }
}
