package org.ysthmos.core.recall;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.recall.RecallOrder.Later;
import org.ysthmos.core.recall.RecallOrder.May;
import org.ysthmos.core.recall.RecallOrder.Stand;
import org.ysthmos.core.recall.RecallPlan.Able;
import org.ysthmos.core.recall.RecallPlan.Step;
import org.ysthmos.core.value.Text;

class RecallPlanTest {

  private static final CollectionRef TASKS = new CollectionRef("board", "tasks");
  private static final Function<CollectionRef, Able> ALL = any -> new Able(true, true, true);

  private static final Function<List<MadeEffect>, PutBack> UNKNOWN = any -> PutBack.NONE;

  private static MadeEffect effect(long delivery, String pair, EffectKind kind) {
    return new MadeEffect(delivery, delivery / 10, pair, TASKS, "r-" + pair, kind);
  }

  @Test
  void whatWasMadeGoesWholeAndTheLastMadeGoesFirst() {
    List<Step> steps =
        RecallPlan.of(
            List.of(
                effect(3, "a", EffectKind.CREATE),
                effect(12, "a", EffectKind.CHANGE),
                effect(5, "b", EffectKind.CREATE),
                effect(14, "a", EffectKind.CHANGE)),
            ALL,
            UNKNOWN);
    assertThat(steps)
        .extracting(step -> step.effect().pair() + " " + step.way() + " " + step.changes())
        .containsExactly("b TAKE_AWAY 0", "a TAKE_AWAY 2");
    assertThat(steps.getLast().effect().delivery()).isEqualTo(3);
  }

  @Test
  void whatWasThereBeforeIsNamedOnce() {
    List<Step> steps =
        RecallPlan.of(
            List.of(effect(3, "a", EffectKind.CHANGE), effect(9, "a", EffectKind.CHANGE)),
            ALL,
            UNKNOWN);
    assertThat(steps).hasSize(1);
    assertThat(steps.getFirst().way()).isEqualTo(RecallWay.NAME);
    assertThat(steps.getFirst().changes()).isEqualTo(2);
    assertThat(steps.getFirst().because()).contains("there before");
  }

  @Test
  void whatWasThereBeforeHoldsAgainWhatItHeldWhereThatIsKnown() {
    PutBack known =
        new PutBack(new LinkedHashMap<>(Map.of("title", Text.of("A"))), List.of("lane"), List.of());
    List<MadeEffect> changes =
        List.of(effect(9, "a", EffectKind.CHANGE), effect(3, "a", EffectKind.CHANGE));
    List<List<MadeEffect>> asked = new ArrayList<>();
    Step step =
        RecallPlan.of(
                changes,
                ALL,
                effects -> {
                  asked.add(effects);
                  return known;
                })
            .getFirst();
    assertThat(step.way()).isEqualTo(RecallWay.PUT_BACK);
    assertThat(step.before()).isEqualTo(known);
    assertThat(asked.getFirst()).extracting(MadeEffect::delivery).containsExactly(3L, 9L);
    Step closed =
        RecallPlan.of(changes, any -> new Able(true, true, false), any -> known).getFirst();
    assertThat(closed.way()).isEqualTo(RecallWay.NAME);
  }

  @Test
  void oneThatOthersRemovedAndThatWasMadeAnewIsTwoRecords() {
    MadeEffect first = new MadeEffect(1, 1, "a", TASKS, "r-1", EffectKind.CREATE);
    MadeEffect second = new MadeEffect(2, 2, "a", TASKS, "r-2", EffectKind.CREATE);
    assertThat(RecallPlan.of(List.of(first, second), ALL, UNKNOWN))
        .extracting(step -> step.effect().record())
        .containsExactly("r-2", "r-1");
  }

  @ParameterizedTest
  @CsvSource({
    "CREATE,  true,  false, TAKE_AWAY",
    "CREATE,  true,  true,  TAKE_AWAY",
    "CREATE,  false, true,  CLOSE",
    "CREATE,  false, false, NAME",
    "MESSAGE, true,  false, TAKE_AWAY",
    "MESSAGE, false, true,  NAME",
    "MESSAGE, false, false, NAME",
    "CHANGE,  true,  true,  NAME"
  })
  void byWhatItsCollectionAllows(
      EffectKind kind, boolean removes, boolean closes, RecallWay expected) {
    Step step =
        RecallPlan.of(
                List.of(effect(1, "a", kind)), any -> new Able(removes, closes, true), UNKNOWN)
            .getFirst();
    assertThat(step.way()).isEqualTo(expected);
    assertThat(step.because().isEmpty()).isEqualTo(expected == RecallWay.TAKE_AWAY);
  }

  @Test
  void takingAwayIsNothingToTakeBack() {
    assertThat(RecallPlan.of(List.of(effect(1, "a", EffectKind.REMOVE)), ALL, UNKNOWN)).isEmpty();
  }

  /** Whatever the effects and in whichever order they are given. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void eachRecordOnceAndInTheSameOrder(long seed) {
    Random random = new Random(seed);
    List<MadeEffect> effects = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      EffectKind kind = EffectKind.values()[random.nextInt(EffectKind.values().length)];
      effects.add(effect(i, "p" + random.nextInt(40), kind));
    }
    List<Step> steps = RecallPlan.of(effects, ALL, UNKNOWN);
    assertThat(steps).extracting(step -> step.effect().pair()).doesNotHaveDuplicates();
    assertThat(steps)
        .extracting(step -> step.effect().delivery())
        .isSortedAccordingTo(Collections.reverseOrder());
    assertThat(steps.stream().filter(step -> step.way() == RecallWay.TAKE_AWAY))
        .allMatch(step -> step.effect().kind() != EffectKind.CHANGE);
    List<MadeEffect> shuffled = new ArrayList<>(effects);
    Collections.shuffle(shuffled, random);
    assertThat(RecallPlan.of(shuffled, ALL, UNKNOWN)).isEqualTo(steps);
  }

  @Test
  void whatStandsUnderAnotherGoesBeforeIt() {
    assertThat(RecallOrder.go(List.of())).isEqualTo(May.GO);
    Later open = new Later(true, Stand.OPEN);
    Later went = new Later(true, Stand.WENT);
    Later stays = new Later(true, Stand.STAYS);
    Later besides = new Later(false, Stand.STAYS);
    assertThat(RecallOrder.go(List.of(went, open))).isEqualTo(May.LATER);
    assertThat(RecallOrder.go(List.of(went, went))).isEqualTo(May.GO);
    assertThat(RecallOrder.go(List.of(open, stays))).isEqualTo(May.NOT);
    assertThat(RecallOrder.go(List.of(besides, went))).isEqualTo(May.GO);
    assertThat(RecallOrder.go(List.of(new Later(false, Stand.OPEN)))).isEqualTo(May.LATER);
  }

  /** 16,000 tasks at 90 calls a minute: about three hours. */
  @Test
  void howLongManyCallsTake() {
    RateLimit limit = new RateLimit(90, Duration.ofMinutes(1));
    assertThat(limit.timeFor(16_000)).isEqualTo(Duration.ofMinutes(177));
    assertThat(limit.timeFor(90)).isZero();
    assertThat(limit.timeFor(91)).isEqualTo(Duration.ofMinutes(1));
    assertThat(limit.timeFor(0)).isZero();
  }
}
