package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.MemoryWorld;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Nothing;

/** Sets of tasks whose anchor day is moved or taken away, and days of several calendars. */
class TaskSetTest {

  private static String shown(TaskDecision task, String field) {
    return task.fields().getOrDefault(field, Nothing.NOTHING).display();
  }

  /** What is made of it stands as it was decided. */
  private static void carryOut(MemoryWorld world, Decision decision) {
    for (TaskDecision task : decision.tasks()) {
      world.pair(
          task.key(),
          new World.PairState(task.target().or(() -> Optional.of(task.member())), task.fields()));
    }
  }

  private static BridgeVersion withoutAnchor(String word) {
    return BridgeCompiler.compile(
        Garden.document("exhibition-to-preparations")
            .replace("when: { value: /opens, is: present }\n", "")
            .replace("set:\n", "set:\n  no-anchor: " + word + "\n"),
        1,
        Garden.CATALOG);
  }

  /** A law of sets, for every day of a year and a half. */
  @Test
  void movedAndMovedBackIsAsIfItHadNeverMoved() {
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    Event first = Garden.exhibition("2026-12-24");
    for (int days = -200; days <= 350; days++) {
      MemoryWorld world = MemoryWorld.finding();
      Decision made = Decider.decide(bridge, first, world, Mode.PLAIN);
      carryOut(world, made);
      String other = LocalDate.of(2026, 12, 24).plusDays(days).toString();
      carryOut(world, Decider.decide(bridge, Garden.exhibition(other), world, Mode.PLAIN));
      Decision back = Decider.decide(bridge, first, world, Mode.PLAIN);
      assertThat(back.tasks())
          .extracting(TaskDecision::fields)
          .containsExactlyElementsOf(made.tasks().stream().map(TaskDecision::fields).toList());
      carryOut(world, back);
      assertThat(Decider.decide(bridge, first, world, Mode.PLAIN).verdict())
          .isEqualTo(Verdict.UNCHANGED);
    }
  }

  @Test
  void whatWouldMoveIsWhatMovesOnceTheAnchorIsThatDay() {
    BridgeVersion bridge = Garden.bridge("exhibition-to-preparations");
    MemoryWorld world = MemoryWorld.finding();
    Event event = Garden.exhibition("2026-12-24");
    carryOut(world, Decider.decide(bridge, event, world, Mode.PLAIN));
    Decision foreseen =
        Decider.decide(
            bridge, event, world, Mode.PLAIN, new Anchor(Optional.of(Day.of(2027, 1, 12))));
    Decision moved = Decider.decide(bridge, Garden.exhibition("2027-01-12"), world, Mode.PLAIN);
    assertThat(foreseen.tasks())
        .extracting(task -> task.member() + " " + task.verdict() + " " + shown(task, "due"))
        .containsExactlyElementsOf(
            moved.tasks().stream()
                .map(task -> task.member() + " " + task.verdict() + " " + shown(task, "due"))
                .toList());
  }

  @ParameterizedTest
  @CsvSource({"leave, UNCHANGED, 0", "close, UPDATE, 5", "remove, UPDATE, 5"})
  void anchorThatIsTakenAwayDoesWithTheTasksAsStated(String word, Verdict verdict, int deliveries) {
    BridgeVersion bridge = withoutAnchor(word);
    MemoryWorld world =
        MemoryWorld.finding().closing(Map.of("status", new Choice("done"))).removing();
    assertThat(Decider.decide(bridge, Garden.exhibition(""), world, Mode.PLAIN).because())
        .isEqualTo("it has no anchor day, and nothing was made for it so far");
    Decision made = Decider.decide(bridge, Garden.exhibition("2026-12-24"), world, Mode.PLAIN);
    carryOut(world, made);
    made.tasks().stream()
        .filter(task -> task.member().equals("labels"))
        .forEach(task -> world.touch(task.key()));
    Decision gone = Decider.decide(bridge, Garden.exhibition(" "), world, Mode.PLAIN);
    assertThat(gone.verdict()).isEqualTo(verdict);
    assertThat(gone.tasks()).hasSize(6);
    assertThat(gone.deliveries()).hasSize(deliveries);
    assertThat(gone.deliveries()).allMatch(one -> one.removes() == word.equals("remove"));
    if (word.equals("close")) {
      assertThat(gone.deliveries())
          .allSatisfy(one -> assertThat(one.fields()).containsEntry("status", new Choice("done")));
      carryOut(world, gone);
      assertThat(Decider.decide(bridge, Garden.exhibition(""), world, Mode.PLAIN).deliveries())
          .isEmpty();
    }
    if (!word.equals("leave")) {
      assertThat(gone.tasks())
          .filteredOn(task -> task.member().equals("labels"))
          .extracting(TaskDecision::because)
          .first()
          .asString()
          .contains("someone has worked on it");
    }
    List<String> order = gone.tasks().stream().map(TaskDecision::member).toList();
    assertThat(order.indexOf("opening")).isGreaterThan(order.indexOf("hang"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"close", "remove"})
  void systemThatCannotDoSoIsNamed(String word) {
    MemoryWorld world = MemoryWorld.finding();
    carryOut(
        world,
        Decider.decide(withoutAnchor(word), Garden.exhibition("2026-12-24"), world, Mode.PLAIN));
    Decision gone = Decider.decide(withoutAnchor(word), Garden.exhibition(""), world, Mode.PLAIN);
    assertThat(gone.verdict()).isEqualTo(Verdict.FAILED);
    assertThat(gone.failures().getFirst().message()).contains("does not say how to");
  }

  /** The gallery works from Wednesday to Sunday, the office from Monday to Friday. */
  @Test
  void dayOfSeveralCalendarsIsOneThatCountsInEachOfThem() {
    WorkingCalendar gallery =
        new WorkingCalendar(
            "gallery",
            "Gallery",
            EnumSet.range(DayOfWeek.WEDNESDAY, DayOfWeek.SUNDAY),
            Map.of(),
            List.of(),
            null);
    WorkingCalendar office = Garden.CATALOG.calendar("office").orElseThrow();
    LocalDate thursday = LocalDate.of(2026, 12, 10);
    assertThat(WorkingCalendar.move(List.of(office, gallery), thursday, -3))
        .contains(LocalDate.of(2026, 12, 3));
    assertThat(WorkingCalendar.move(List.of(office, gallery), LocalDate.of(2026, 12, 7), 0))
        .contains(LocalDate.of(2026, 12, 9));
    assertThat(WorkingCalendar.move(List.of(office), thursday, -3))
        .isEqualTo(office.move(thursday, -3));
    String document =
        Garden.document("exhibition-to-preparations")
            .replace(
                "working-days: -3, calendar: office",
                "working-days: -3, calendar: [office, office]");
    BridgeDefinition read = BridgeReader.read(DocumentNode.parse(document));
    assertThat(BridgeReader.read(DocumentNode.parse(BridgeWriter.write(read)))).isEqualTo(read);
    Decision decision =
        Decider.decide(
            BridgeCompiler.compile(document, 1, Garden.CATALOG),
            Garden.exhibition("2026-12-24"),
            MemoryWorld.finding(),
            Mode.PLAIN);
    assertThat(decision.tasks())
        .filteredOn(task -> task.member().equals("hang"))
        .extracting(task -> shown(task, "due"))
        .containsExactly("2026-12-21");
  }
}
