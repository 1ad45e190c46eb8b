package org.ysthmos.app.keep;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class EffortTest {

  private static final long MANY = 1_000_000_000;

  @Test
  void moreIsTakenOnUntilItIsOfUse() {
    Effort effort = new Effort(100);
    effort.was(false, MANY);
    effort.was(false, MANY);
    assertThat(effort.bytes()).isEqualTo(400);
    effort.was(true, MANY);
    assertThat(effort.bytes()).isEqualTo(100);
  }

  @Test
  void whatWasOfNoUseAtAllIsTriedAgainOnceThereIsSomethingElse() {
    Effort effort = new Effort(100);
    long most = 0;
    for (int i = 0; i < 100 && effort.isWorth(MANY); i++) {
      most = Math.max(most, effort.bytes());
      effort.was(false, MANY);
    }
    assertThat(most).isBetween(MANY / 4, MANY / 2);
    assertThat(effort.isWorth(MANY)).isFalse();
    assertThat(effort.isWorth(MANY + MANY / 30)).isFalse();
    assertThat(effort.isWorth(MANY + MANY / 10)).isTrue();
    assertThat(effort.isWorth(MANY / 2)).isTrue();
    assertThat(effort.bytes()).isEqualTo(100);
  }

  @Test
  void ofLittleAllIsTakenOn() {
    Effort effort = new Effort(1 << 18);
    int tries = 0;
    while (effort.isWorth(3_000_000)) {
      effort.was(false, 3_000_000);
      tries++;
    }
    assertThat(tries).isEqualTo(5);
  }
}
