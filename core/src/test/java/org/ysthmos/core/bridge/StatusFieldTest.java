package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.bridge.StatusField.Setting;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.PlayThrough.Played;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.StatusFinding.Lost;
import org.ysthmos.core.sync.StatusFinding.NotMapped;
import org.ysthmos.core.sync.StatusFinding.NotSeen;
import org.ysthmos.core.sync.Statuses;
import org.ysthmos.core.testkit.Shores;

/** Lanes of a board against statuses of a ledger, as a document states them. */
class StatusFieldTest {

  private static final String TO_RIGHT =
      "    to-right: { values: { wanted: open, doing: in-work, finished: done } }\n";
  private static final String TO_LEFT =
      "    to-left: { values: { open: wanted, planned: wanted, in-work: doing, done: finished } }\n";
  private static final List<String> LANES = List.of("wanted", "doing", "finished");
  private static final List<String> STATUSES = List.of("open", "planned", "in-work", "done");

  private static StatusField status(String toRight, String toLeft) {
    assertThat(Shores.BRIDGE).contains(TO_RIGHT).contains(TO_LEFT);
    return Shores.bridge(Shores.BRIDGE.replace(TO_RIGHT, toRight).replace(TO_LEFT, toLeft))
        .between()
        .orElseThrow()
        .fields()
        .stream()
        .flatMap(field -> StatusField.of(field).stream())
        .collect(Collectors.collectingAndThen(Collectors.toList(), List::getFirst));
  }

  private static Setting left(String status) {
    return new Setting(Side.LEFT, status);
  }

  private static Setting right(String status) {
    return new Setting(Side.RIGHT, status);
  }

  private static List<String> played(StatusField field, Setting... settings) {
    return field.play("wanted", "open", List.of(settings)).stream()
        .map(one -> one.left().display() + "|" + one.right().display())
        .toList();
  }

  @Test
  void onlyFieldsThatAreLookedUpAreTables() {
    assertThat(Shores.bridge(Shores.BRIDGE).between().orElseThrow().fields())
        .filteredOn(field -> StatusField.of(field).isPresent())
        .extracting(field -> field.rule().name())
        .containsExactly("status");
    // What is only written when a task is made carries no change.
    String once = Shores.BRIDGE.replace(TO_RIGHT, "    direction: once\n" + TO_RIGHT);
    assertThat(Shores.bridge(once).between().orElseThrow().fields())
        .noneMatch(field -> StatusField.of(field).isPresent());
  }

  @Test
  void statusThatOnlyOneSideKnowsStaysUntilItsOwnChanges() {
    StatusField field = status(TO_RIGHT, TO_LEFT);
    assertThat(
            played(
                field,
                right("planned"),
                left("doing"),
                left("wanted"),
                right("done"),
                left("doing")))
        .containsExactly(
            "wanted|planned", "doing|in-work", "wanted|open", "finished|done", "doing|in-work");
  }

  @Test
  void surprisesAreTold() {
    StatusField field = status(TO_RIGHT, TO_LEFT);
    assertThat(field.findings())
        .contains(new NotSeen(Side.RIGHT, "open", "planned", "wanted"))
        .anyMatch(one -> one instanceof Lost lost && lost.status().equals("planned"))
        .noneMatch(NotMapped.class::isInstance);
  }

  @Test
  void ofASideThatOnlyFollowsNothingIsExpected() {
    StatusField field =
        status("    direction: to-right\n" + TO_RIGHT.replace("doing: in-work, ", ""), "");
    assertThat(field.goes(Side.RIGHT)).isFalse();
    assertThat(field.findings())
        .contains(new NotMapped(Side.LEFT, "doing"))
        .noneMatch(one -> one instanceof NotMapped not && not.side() == Side.RIGHT)
        .noneMatch(NotSeen.class::isInstance)
        .noneMatch(Lost.class::isInstance);
    // A change there stays, as the document states for drift.
    List<Played> played = field.play("wanted", "open", List.of(right("done"), left("finished")));
    assertThat(played.getFirst().outcome()).isInstanceOf(FieldOutcome.NotCarried.class);
    assertThat(played.getLast().outcome()).isInstanceOf(FieldOutcome.Adopted.class);
  }

  @Test
  void allOthersBecomeWhatIsStatedForThem() {
    StatusField field =
        status(TO_RIGHT, "    to-left: { values: { done: finished }, otherwise: doing }\n");
    assertThat(field.table().across(Side.RIGHT, "planned")).contains("doing");
    assertThat(played(field, right("planned"), right("done")))
        .containsExactly("doing|planned", "finished|done");
  }

  /** What the table says is what the merge of real tasks does, whatever the document states. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void mergeDoesWhatTheTableSays(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 60; round++) {
      StatusField field =
          status(
              "    to-right: { values: { %s } }\n".formatted(drawn(LANES, STATUSES, random)),
              "    to-left: { values: { %s } }\n".formatted(drawn(STATUSES, LANES, random)));
      Statuses now = new Statuses(any(LANES, random), any(STATUSES, random));
      Statuses first = now;
      List<Setting> settings = new ArrayList<>();
      List<Statuses> expected = new ArrayList<>();
      for (int i = 0; i < 6; i++) {
        Side side = random.nextBoolean() ? Side.LEFT : Side.RIGHT;
        String status = any(side == Side.LEFT ? LANES : STATUSES, random);
        if (!status.equals(now.of(side))) {
          settings.add(new Setting(side, status));
          now = field.table().settle(now.with(side, status), side);
          expected.add(now);
        }
      }
      assertThat(field.play(first.left(), first.right(), settings))
          .extracting(one -> new Statuses(one.left().display(), one.right().display()))
          .as("%s of %s from %s", settings, field.table().from(Side.LEFT), first)
          .isEqualTo(expected);
    }
  }

  private static String any(List<String> of, Random random) {
    return of.get(random.nextInt(of.size()));
  }

  /** At least one of them, as an empty table says nothing. */
  private static String drawn(List<String> from, List<String> to, Random random) {
    List<String> drawn = new ArrayList<>();
    for (String status : from) {
      if (drawn.isEmpty() || random.nextInt(4) > 0) {
        drawn.add(status + ": " + any(to, random));
      }
    }
    return String.join(", ", drawn);
  }
}
