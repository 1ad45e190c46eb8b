package org.ysthmos.core.guard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.guard.BusyPast.Slot;
import org.ysthmos.core.testkit.Desk;

class CeilingTest {

  private static final Instant MONDAY = Instant.parse("2026-11-23T00:00:00Z");
  private static final String STATED = "ceiling: { creates: 10, per: PT1H }";

  @Test
  void whatADocumentDoesNotStateIsThreeTimesTheBusiestAndNotLessThanTheFloor() {
    Ceiling ceiling =
        Ceiling.of(
            Optional.of(
                new BridgeDefinition.Ceiling(Map.of(EffectKind.CREATE, 7), Duration.ofDays(1))),
            Map.of(
                EffectKind.CHANGE, new BusyPast(41, MONDAY),
                EffectKind.MESSAGE, new BusyPast(4, MONDAY)));
    assertThat(ceiling.per()).isEqualTo(Duration.ofDays(1));
    assertThat(ceiling.limit(EffectKind.CREATE).most()).isEqualTo(7);
    assertThat(ceiling.limit(EffectKind.CREATE).reckoned()).isEmpty();
    assertThat(ceiling.limit(EffectKind.CHANGE).most()).isEqualTo(123);
    assertThat(ceiling.limit(EffectKind.MESSAGE).most()).isEqualTo(Ceiling.FLOOR);
    assertThat(ceiling.limit(EffectKind.MESSAGE).reckoned()).contains(new BusyPast(4, MONDAY));
  }

  @Test
  void kindsAreBoundedApart() {
    Ceiling ceiling = stated(Map.of(EffectKind.CREATE, 5, EffectKind.CHANGE, 5));
    Map<EffectKind, Long> before = Map.of(EffectKind.CREATE, 5L, EffectKind.CHANGE, 4L);
    assertThat(ceiling.passedBy(before, Map.of(EffectKind.CHANGE, 1))).isEmpty();
    assertThat(ceiling.passedBy(before, Map.of(EffectKind.CHANGE, 1, EffectKind.CREATE, 1)))
        .get()
        .satisfies(passed -> assertThat(passed.kind()).isEqualTo(EffectKind.CREATE))
        .extracting(CeilingWords::because)
        .isEqualTo("It would have come to 6 new tasks; its ceiling is 5 new tasks in an hour");
  }

  @ParameterizedTest
  @CsvSource({
    "0,1,",
    "1,1,AGAIN",
    "0,7,",
    "0,8,CHAIN",
    "3,9,AGAIN",
  })
  void whatComesOfItsOwnDoingIsBounded(int again, int depth, TurnGuard.Sort sort) {
    TurnGuard guard = new TurnGuard(BridgeDefinition.Turns.USUAL, Duration.ofHours(1));
    assertThat(guard.ofChain(again, depth).map(TurnGuard.Passed::sort))
        .isEqualTo(Optional.ofNullable(sort));
    TurnGuard roomy = new TurnGuard(new BridgeDefinition.Turns(3, 10, 2), Duration.ofHours(1));
    assertThat(roomy.ofChain(again, depth)).isEmpty();
    assertThat(roomy.ofTask(1)).isEmpty();
    assertThat(roomy.ofTask(2).map(passed -> CeilingWords.because(passed, "task 7")))
        .contains("It would write to task 7 for the 3rd time in an hour; it may 2 times");
  }

  /** Releasing does not help; it says what does. */
  @Test
  void oneEventThatIsMoreThanTheCeilingIsNamed() {
    assertThat(
            stated(Map.of(EffectKind.CREATE, 5)).passedBy(Map.of(), Map.of(EffectKind.CREATE, 8)))
        .get()
        .extracting(CeilingWords::because)
        .isEqualTo(
            "One event alone wants 8 new tasks; its ceiling is 5 new tasks in an hour. Raise the"
                + " ceiling before you release it");
  }

  private static Ceiling stated(Map<EffectKind, Integer> most) {
    return Ceiling.of(
        Optional.of(new BridgeDefinition.Ceiling(most, Duration.ofHours(1))), Map.of());
  }

  @ParameterizedTest
  @CsvSource({"PT1H,an hour", "PT24H,a day", "PT90M,90 minutes", "PT0.5S,PT0.5S", "P2D,2 days"})
  void spansReadAsPeopleSayThem(Duration span, String words) {
    assertThat(CeilingWords.span(span)).isEqualTo(words);
  }

  @Test
  void documentsStateAnyOfTheThreeOrNoneAtAll() {
    for (String ceiling :
        List.of(
            "ceiling: { messages: 2, per: P1D }",
            "ceiling: { creates: 1, changes: 2, messages: 3, per: PT10M }",
            "ceiling: { again: 2, chain: 4, same-task: 20, per: PT10M }",
            "ceiling: { creates: 1, chain: 4, per: PT10M }",
            "")) {
      String document = Desk.BRIDGE.replace(STATED, ceiling);
      BridgeDefinition read = Desk.bridge(document).definition();
      assertThat(read.ceiling().isPresent()).isEqualTo(!ceiling.isEmpty());
      String written = BridgeWriter.write(read);
      assertThat(written.contains("ceiling")).isEqualTo(!ceiling.isEmpty());
      assertThat(BridgeReader.read(DocumentNode.parse(written)).ceiling())
          .isEqualTo(read.ceiling());
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ creates: 0, per: PT1H } | a bridge that is to do nothing is held",
        "{ per: PT1H } | at least one of creates, changes, messages",
        "{ creates: 5 } | per",
        "{ again: -1, per: PT1H } | from 0 to 1000",
        "{ chain: 1001, per: PT1H } | from 1 to 1000",
        "{ creates: 5, per: PT0S } | longer than nothing",
        "{ removes: 5, per: PT1H } | removes"
      })
  void badCeilingsAreRefused(String ceiling, String words) {
    assertThatThrownBy(() -> Desk.bridge(Desk.BRIDGE.replace(STATED, "ceiling: " + ceiling)))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(words);
  }

  static LongStream seeds() {
    return LongStream.range(0, 60);
  }

  /** Against looking at every slot in turn. */
  @ParameterizedTest
  @MethodSource("seeds")
  void busiestSpanIsTheLargestSumOfNeighbours(long seed) {
    Random random = new Random(seed);
    long[] effects = new long[60];
    List<Slot> slots = new ArrayList<>();
    for (int i = 0; i < effects.length; i++) {
      if (random.nextInt(3) > 0) {
        effects[i] = 1 + random.nextInt(9);
        slots.add(new Slot(MONDAY.plus(BusyPast.SLOT.multipliedBy(i)), effects[i]));
      }
    }
    Collections.shuffle(slots, random);
    int width = 1 + random.nextInt(8);
    long best = 0;
    for (int i = 0; i < effects.length; i++) {
      long sum = 0;
      for (int j = i; j < Math.min(effects.length, i + width); j++) {
        sum += effects[j];
      }
      best = Math.max(best, sum);
    }
    Duration span = BusyPast.SLOT.multipliedBy(width).minusMinutes(random.nextInt(30));
    assertThat(BusyPast.of(slots, span).effects()).isEqualTo(best);
  }

  @Test
  void nothingWasBusyWhereNothingEverHappened() {
    assertThat(BusyPast.of(List.of(), Duration.ofHours(1))).isEqualTo(BusyPast.NONE);
  }
}
