package org.ysthmos.app.keep;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class EffortTest {

  private static final long ALL = 1_000_000;

  private final Effort effort = new Effort(100);

  private long mostTried(long most) {
    long tried = 0;
    for (int i = 0; i < 100 && effort.isWorth(ALL, most); i++) {
      tried = Math.max(tried, effort.bytes(most));
      effort.was(false, ALL, most);
    }
    return tried;
  }

  @Test
  void moreIsTakenOnUntilItIsOfUse() {
    effort.was(false, ALL, ALL);
    effort.was(false, ALL, ALL);
    assertThat(effort.bytes(ALL)).isEqualTo(400);
    effort.was(true, ALL, ALL);
    assertThat(effort.bytes(ALL)).isEqualTo(100);
    assertThat(effort.isWorth(ALL, ALL)).isTrue();
  }

  @Test
  void whatWasOfNoUseAtAllIsTriedAgainOnceThereIsSomethingElse() {
    assertThat(mostTried(30_000)).isEqualTo(30_000);
    assertThat(effort.isWorth(ALL, 30_000)).isFalse();
    assertThat(effort.isWorth(ALL + ALL / 30, 30_000)).isFalse();
    assertThat(effort.isWorth(ALL + ALL / 10, 30_000)).isTrue();
    assertThat(effort.isWorth(ALL / 2, 30_000)).isTrue();
    assertThat(effort.bytes(ALL)).isEqualTo(100);
  }

  @Test
  void whatWasOfNoUseIsTriedAgainOnceMuchMoreMayBeTakenOn() {
    assertThat(mostTried(30_000)).isEqualTo(30_000);
    assertThat(effort.isWorth(ALL, 50_000)).isFalse();
    assertThat(mostTried(ALL)).isEqualTo(ALL);
    assertThat(effort.isWorth(ALL, ALL)).isFalse();
  }

  @Test
  void whatWasReachedAtRestIsNotTakenOnOnceOthersWait() {
    for (int i = 0; i < 5; i++) {
      effort.was(false, ALL, ALL);
    }
    assertThat(effort.bytes(ALL)).isEqualTo(3_200);
    assertThat(effort.bytes(500)).isEqualTo(500);
  }
}
