package org.ysthmos.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class DeliveryRulesTest {

  private static final Instant NOON = Instant.parse("2026-11-26T12:00:00Z");
  private final DeliveryRules rules =
      new DeliveryRules(List.of(Duration.ofSeconds(2), Duration.ofSeconds(30)));

  private DeliveryRules.Next next(Promise promise, Doubt doubt, Duration later) {
    return rules.next(EffectKind.CREATE, promise, false, doubt, NOON.plus(later));
  }

  @ParameterizedTest
  @EnumSource(Promise.class)
  void whatWasNeverTriedIsSent(Promise promise) {
    assertThat(next(promise, Doubt.NONE, Duration.ZERO)).isInstanceOf(DeliveryRules.Send.class);
  }

  @ParameterizedTest
  @EnumSource(Promise.class)
  void changesAndRemovalsAreRepeatedAsTheyComeToTheSame(Promise promise) {
    for (EffectKind kind : List.of(EffectKind.CHANGE, EffectKind.REMOVE)) {
      assertThat(rules.next(kind, promise, true, Doubt.since(NOON), NOON))
          .isInstanceOf(DeliveryRules.Send.class);
    }
  }

  @Test
  void lostAnswerIsLookedForTwiceBeforeItIsSentAgain() {
    Doubt doubt = Doubt.since(NOON);
    assertThat(next(Promise.FOUND_BY_KEY, doubt, Duration.ofSeconds(1)))
        .isEqualTo(new DeliveryRules.Wait(NOON.plusSeconds(2)));
    assertThat(next(Promise.FOUND_BY_KEY, doubt, Duration.ofSeconds(2)))
        .isInstanceOf(DeliveryRules.Look.class);
    Doubt once = rules.lookedInVain(doubt);
    assertThat(next(Promise.FOUND_BY_KEY, once, Duration.ofSeconds(3)))
        .isEqualTo(new DeliveryRules.Wait(NOON.plusSeconds(30)));
    Doubt twice = rules.lookedInVain(once);
    assertThat(next(Promise.FOUND_BY_KEY, twice, Duration.ofSeconds(31)))
        .isInstanceOf(DeliveryRules.Send.class);
  }

  @Test
  void targetThatRemembersKeysIsAskedAgainForADayAndThenAPersonIs() {
    assertThat(next(Promise.KNOWN_BY_KEY, Doubt.since(NOON), Duration.ofHours(23)))
        .isInstanceOf(DeliveryRules.Send.class);
    assertThat(next(Promise.KNOWN_BY_KEY, Doubt.since(NOON), Duration.ofHours(24)))
        .isInstanceOf(DeliveryRules.AskAPerson.class);
  }

  @Test
  void whereNothingCanBeLookedForAPersonDecides() {
    assertThat(next(Promise.NONE, Doubt.since(NOON), Duration.ZERO))
        .isInstanceOf(DeliveryRules.AskAPerson.class);
  }

  @Test
  void copyThatIsNotThereDoesNotMeanThatNothingWasSent() {
    Doubt looked = new Doubt.Open(NOON, 2);
    assertThat(next(Promise.SEEN_IF_KEPT, Doubt.since(NOON), Duration.ofSeconds(2)))
        .isInstanceOf(DeliveryRules.Look.class);
    assertThat(next(Promise.SEEN_IF_KEPT, looked, Duration.ofMinutes(5)))
        .isInstanceOf(DeliveryRules.AskAPerson.class);
  }

  @Test
  void whatIsKnownToBeMadeIsGoneOnWith() {
    assertThat(rules.next(EffectKind.CREATE, Promise.NONE, true, Doubt.since(NOON), NOON))
        .isInstanceOf(DeliveryRules.Send.class);
  }

  @Test
  void clockThatWasSetBackDoesNotMakeItWait() {
    assertThat(next(Promise.FOUND_BY_KEY, Doubt.since(NOON), Duration.ofDays(-1)))
        .isInstanceOf(DeliveryRules.Look.class);
  }

  @Test
  void restoredDataIsSettledByOneLookAtOnce() {
    Doubt doubt = rules.onceBeforeSending(NOON);
    assertThat(next(Promise.FOUND_BY_KEY, doubt, Duration.ZERO))
        .isInstanceOf(DeliveryRules.Look.class);
    assertThat(next(Promise.FOUND_BY_KEY, rules.lookedInVain(doubt), Duration.ZERO))
        .isInstanceOf(DeliveryRules.Send.class);
  }

  @Test
  void looksMustComeOneAfterTheOther() {
    assertThatThrownBy(() -> new DeliveryRules(List.of())).hasMessageContaining("at least one");
    assertThatThrownBy(
            () -> new DeliveryRules(List.of(Duration.ofSeconds(3), Duration.ofSeconds(3))))
        .hasMessageContaining("one after the other");
  }
}
