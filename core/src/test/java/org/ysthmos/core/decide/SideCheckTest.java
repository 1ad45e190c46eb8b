package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class SideCheckTest {

  private final Shores shores = new Shores();

  private static SyncedPair pair(Map<String, Value> left, Map<String, Value> right) {
    return new SyncedPair(
        Synced.key("shores", Side.LEFT, "b1"),
        new Both<>(Optional.of("b1"), Optional.of("l1")),
        new Agreed(left, right),
        Map.of(),
        Optional.empty());
  }

  private static SyncedPair pair() {
    return pair(
        Map.of("title", Text.of("Mend"), "status", new Choice("doing")),
        Map.of("title", Text.of("Mend"), "status", new Choice("in-work")));
  }

  private static JsonNode task(String... fields) {
    ObjectNode node = JsonNodeFactory.instance.objectNode();
    for (int i = 0; i < fields.length; i += 2) {
      node.put(fields[i], fields[i + 1]);
    }
    return node;
  }

  private SideCheck check(Side side) {
    String place = side == Side.LEFT ? "board/tasks" : "ledger/jobs";
    return new SideCheck(
        Shores.bridge(Shores.BRIDGE).seenFrom(place.split("/")[0], place.split("/")[1]), shores);
  }

  private SideCheck.Outcome listed(Side side, JsonNode task, Optional<SyncedPair> pair) {
    boolean left = side == Side.LEFT;
    Event event =
        new Event(
            "e",
            left ? "board" : "ledger",
            left ? "tasks" : "jobs",
            Look.KIND,
            left ? "b1" : "l1",
            Instant.EPOCH,
            task);
    return check(side).of(event, pair);
  }

  @Test
  void taskThatHoldsWhatItHeldIsAlikeWhateverTheOtherHolds() {
    assertThat(listed(Side.RIGHT, task("title", "Mend", "status", "in-work"), Optional.of(pair())))
        .isInstanceOf(SideCheck.Alike.class);
    assertThat(listed(Side.RIGHT, task("title", "Mend", "status", "planned"), Optional.of(pair())))
        .isInstanceOf(SideCheck.Closer.class);
  }

  /** The note is the ledger's to follow, and one that was put in there is put right. */
  @Test
  void fieldThatFollowsMattersOnlyWhereItIsPutRight() {
    JsonNode noted = task("title", "Mend", "status", "in-work", "note", "by boat");
    assertThat(listed(Side.RIGHT, noted, Optional.of(pair()))).isInstanceOf(SideCheck.Closer.class);
    String left = Shores.BRIDGE.replace(", drift: restore", "");
    Event event = new Event("e", "ledger", "jobs", Look.KIND, "l1", Instant.EPOCH, noted);
    assertThat(
            new SideCheck(Shores.bridge(left).seenFrom("ledger", "jobs"), shores)
                .of(event, Optional.of(pair())))
        .isInstanceOf(SideCheck.Alike.class);
  }

  @Test
  void taskOfNoPairIsLookedAtOnlyIfItWouldBeMadeAcross() {
    assertThat(listed(Side.RIGHT, task("title", "Mend"), Optional.empty()))
        .isEqualTo(new SideCheck.Aside("it passes only when Label is given"));
    assertThat(listed(Side.RIGHT, task("title", "Mend", "label", "x"), Optional.empty()))
        .isInstanceOf(SideCheck.Closer.class);
  }

  @Test
  void whatCannotBeReadIsLookedAt() {
    assertThat(listed(Side.RIGHT, task("title", "Mend", "due", "soon"), Optional.of(pair())))
        .isInstanceOf(SideCheck.Closer.class);
  }

  @Test
  void listThatTellsLessIsFoundOut() {
    JsonNode whole = task("title", "Mend", "status", "open", "label", "x", "colour", "red");
    assertThat(check(Side.RIGHT).lacks(task("title", "Mend"), whole))
        .containsExactly("/status", "/label");
    assertThat(check(Side.RIGHT).lacks(whole, whole)).isEmpty();
  }

  private static final List<String> TITLES = List.of("Mend", "Mend it", "Repair");
  private static final List<String> LANES = List.of("wanted", "doing", "finished");
  private static final List<String> STATUSES = List.of("open", "planned", "in-work", "done");
  private static final List<String> NOTES = List.of("", "by boat", "on foot");

  private static String any(List<String> of, Random random) {
    return of.get(random.nextInt(of.size()));
  }

  static LongStream seeds() {
    return LongStream.range(0, 15);
  }

  /** Nothing is left out: of what both lists say is as it was, a look would come to nothing. */
  @ParameterizedTest
  @MethodSource("seeds")
  void whatIsNotLookedAtIsAlike(long seed) {
    Random random = new Random(seed);
    int alike = 0;
    for (int i = 0; i < 40; i++) {
      SyncedPair pair = agreed(random);
      String[] left = holds("lane", LANES, pair, Side.LEFT, random);
      String[] right = holds("status", STATUSES, pair, Side.RIGHT, random);
      shores.paired(pair).holding("b1", left).holding("l1", right);
      boolean closer =
          listed(Side.LEFT, task(left), Optional.of(pair)) instanceof SideCheck.Closer
              || listed(Side.RIGHT, task(right), Optional.of(pair)) instanceof SideCheck.Closer;
      Optional<Difference> difference =
          Difference.of(Look.PLAIN, shores.decide(Side.LEFT, Look.KIND, "b1"));
      if (!closer) {
        alike++;
        assertThat(difference).isEmpty();
      }
    }
    assertThat(alike).isPositive();
  }

  private static SyncedPair agreed(Random random) {
    Map<String, Value> left = new HashMap<>();
    Map<String, Value> right = new HashMap<>();
    left.put("title", Text.of(any(TITLES, random)));
    right.put("title", Text.of(any(TITLES, random)));
    left.put("status", new Choice(any(LANES, random)));
    right.put("status", new Choice(any(STATUSES, random)));
    if (random.nextBoolean()) {
      left.put("note", Text.of("by boat"));
      right.put("note", Text.of("by boat"));
    }
    return pair(left, right);
  }

  /** What was agreed, and now and then something else. */
  private static String[] holds(
      String status, List<String> statuses, SyncedPair pair, Side side, Random random) {
    Map<String, String> now = new HashMap<>();
    now.put("title", pair.agreed().of(side, "title").display());
    now.put(status, ((Choice) pair.agreed().of(side, "status")).key());
    now.put("note", pair.agreed().of(side, "note").display());
    if (random.nextInt(3) == 0) {
      switch (random.nextInt(3)) {
        case 0 -> now.put("title", any(TITLES, random));
        case 1 -> now.put(status, any(statuses, random));
        default -> now.put("note", any(NOTES, random));
      }
    }
    return now.entrySet().stream()
        .flatMap(field -> Stream.of(field.getKey(), field.getValue()))
        .toArray(String[]::new);
  }
}
