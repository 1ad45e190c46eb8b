package org.ysthmos.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.sync.StatusFinding.Lost;
import org.ysthmos.core.sync.StatusFinding.NeverReached;
import org.ysthmos.core.sync.StatusFinding.NotMapped;
import org.ysthmos.core.sync.StatusFinding.NotSeen;

class StatusTableTest {

  /** So many changes across are played through. */
  private static final int CHANGES = 4;

  /** Three lanes of a board against six statuses of a ledger. */
  private static final StatusTable GARDEN =
      new StatusTable(
          Map.of("to-do", "planned", "doing", "started", "done", "finished"),
          Map.of(
              "planned", "to-do",
              "started", "doing",
              "waiting", "doing",
              "checked", "done",
              "finished", "done"));

  private static final List<String> LANES = List.of("to-do", "doing", "done");
  private static final List<String> LEDGER =
      List.of("planned", "started", "waiting", "checked", "finished", "dropped");

  private static List<String> names(String of, int many) {
    return IntStream.range(0, many).mapToObj(i -> of + i).toList();
  }

  @ParameterizedTest
  @CsvSource({
    // What agrees is not touched, so that the ledger keeps what the board cannot say.
    "LEFT, doing, waiting, doing, waiting",
    "LEFT, doing, planned, doing, started",
    "RIGHT, to-do, waiting, doing, waiting",
    "RIGHT, doing, waiting, doing, waiting",
    "LEFT, done, checked, done, checked",
    "LEFT, done, waiting, done, finished",
    // A status that is not mapped changes nothing.
    "RIGHT, doing, dropped, doing, dropped",
  })
  void changeIsCarriedAcrossOnlyWhereTheTwoAgreeNoMore(
      Side changed, String left, String right, String oneAfter, String otherAfter) {
    assertThat(GARDEN.settle(new Statuses(left, right), changed))
        .isEqualTo(new Statuses(oneAfter, otherAfter));
  }

  @Test
  void tableIsExplained() {
    assertThat(StatusCheck.of(GARDEN, LANES, LEDGER))
        .contains(
            new NotMapped(Side.RIGHT, "dropped"),
            new NeverReached(Side.RIGHT, "waiting"),
            new NeverReached(Side.RIGHT, "checked"),
            new NeverReached(Side.RIGHT, "dropped"),
            new NotSeen(Side.RIGHT, "started", "waiting", "doing"),
            new Lost(Side.RIGHT, "waiting", "doing", List.of("to-do"), "started"))
        .noneMatch(one -> one instanceof Lost lost && lost.side() == Side.LEFT);
  }

  /** Twice is once, what agrees is not touched, and what is mapped agrees afterwards. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void laws(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 500; round++) {
      List<String> ones = names("a", 1 + random.nextInt(6));
      List<String> others = names("b", 1 + random.nextInt(6));
      StatusTable table = new StatusTable(drawn(ones, others, random), drawn(others, ones, random));
      for (String left : ones) {
        for (String right : others) {
          Statuses pair = new Statuses(left, right);
          for (Side side : Side.values()) {
            Statuses settled = table.settle(pair, side);
            assertThat(table.settle(settled, side)).isEqualTo(settled);
            assertThat(settled.of(side)).isEqualTo(pair.of(side));
            if (table.agree(pair)) {
              assertThat(settled).isEqualTo(pair);
            } else if (table.across(side, pair.of(side)).isPresent()) {
              assertThat(table.agree(settled)).isTrue();
              // What is told back of our own writing changes nothing.
              assertThat(table.settle(settled, side.across())).isEqualTo(settled);
            }
          }
        }
      }
    }
  }

  private static Map<String, String> drawn(List<String> from, List<String> to, Random random) {
    Map<String, String> drawn = new LinkedHashMap<>();
    for (String status : from) {
      int to1 = random.nextInt(to.size() + 1);
      if (to1 < to.size()) {
        drawn.put(status, to.get(to1));
      }
    }
    return drawn;
  }

  /**
   * Every table of up to four by four, of those that differ by the names of statuses alone one:
   * what the check says is what happens.
   */
  @ParameterizedTest
  @CsvSource({
    "1, 1", "1, 2", "1, 3", "1, 4", "2, 2", "2, 3", "2, 4", "3, 3", "3, 4", "4, 4", "2, 1", "3, 1",
    "4, 1", "3, 2", "4, 2", "4, 3"
  })
  void whatTheCheckSaysIsWhatHappens(int ones, int others) {
    List<String> left = names("a", ones);
    List<String> right = names("b", others);
    EveryTable.of(ones, others)
        .forEach(
            table ->
                check(
                    new StatusTable(
                        mapped(table, 0, left, right), mapped(table, ones, right, left)),
                    left,
                    right));
  }

  /** What stands for each status from a place of a table on; nothing where there is none. */
  private static Map<String, String> mapped(
      int[] table, int from, List<String> statuses, List<String> across) {
    Map<String, String> mapped = new LinkedHashMap<>();
    for (int i = 0; i < statuses.size(); i++) {
      int to = table[from + i];
      if (to < across.size()) {
        mapped.put(statuses.get(i), across.get(to));
      }
    }
    return mapped;
  }

  private static void check(StatusTable table, List<String> ones, List<String> others) {
    List<StatusFinding> found = StatusCheck.of(table, ones, others);
    for (Side side : Side.values()) {
      List<String> here = side == Side.LEFT ? ones : others;
      List<String> across = side == Side.LEFT ? others : ones;
      Set<StatusFinding> happens = new HashSet<>();
      Set<String> reached = new HashSet<>();
      for (String status : here) {
        for (String right : across) {
          Statuses start = new Statuses("", "").with(side, status).with(side.across(), right);
          for (String to : here) {
            Statuses then = table.settle(start.with(side, to), side);
            if (table.agree(start)
                && !to.equals(status)
                && then.equals(start.with(side, to))
                && table.across(side, to).isPresent()) {
              happens.add(new NotSeen(side, status, to, right));
            }
          }
          changesAcross(
              table,
              side,
              start,
              across,
              CHANGES,
              end -> {
                if (!end.of(side).equals(status)) {
                  reached.add(end.of(side));
                  if (table.agree(start) && end.of(side.across()).equals(right)) {
                    happens.add(new Lost(side, status, right, List.of(), ""));
                  }
                }
              });
        }
      }
      for (String status : here) {
        boolean mapped = table.across(side, status).isPresent();
        assertThat(found.contains(new NotMapped(side, status))).isEqualTo(!mapped);
        if (here.size() > 1) {
          assertThat(found.contains(new NeverReached(side, status)))
              .as("%s there %s back %s", status, table.from(Side.LEFT), table.from(Side.RIGHT))
              .isEqualTo(!reached.contains(status));
        }
      }
      Set<StatusFinding> said = new HashSet<>();
      for (StatusFinding left : found) {
        if (left instanceof NotSeen seen
            && seen.side() == side
            && table.across(side, seen.to()).isPresent()) {
          said.add(seen);
        } else if (left instanceof Lost lost && lost.side() == side) {
          assertThat(after(table, lost)).isEqualTo(lost.becomes()).isNotEqualTo(lost.status());
          if (lost.over().size() < CHANGES) {
            said.add(new Lost(side, lost.status(), lost.across(), List.of(), ""));
          }
        }
      }
      assertThat(said)
          .as("there %s back %s", table.from(Side.LEFT), table.from(Side.RIGHT))
          .isEqualTo(happens);
    }
  }

  /** Every sequence of up to four changes across. */
  private static void changesAcross(
      StatusTable table,
      Side side,
      Statuses now,
      List<String> across,
      int changes,
      Consumer<Statuses> each) {
    if (changes == 0) {
      return;
    }
    for (String over : across) {
      Statuses then = table.settle(now.with(side.across(), over), side.across());
      each.accept(then);
      changesAcross(table, side, then, across, changes - 1, each);
    }
  }

  /** What a side is once the changes across that are said were made. */
  private static String after(StatusTable table, Lost lost) {
    Statuses now =
        new Statuses("", "")
            .with(lost.side(), lost.status())
            .with(lost.side().across(), lost.across());
    List<String> way = new ArrayList<>(lost.over());
    way.add(lost.across());
    for (String over : way) {
      now = table.settle(now.with(lost.side().across(), over), lost.side().across());
    }
    return now.of(lost.side());
  }
}
