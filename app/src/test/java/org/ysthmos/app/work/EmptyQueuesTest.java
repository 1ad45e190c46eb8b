package org.ysthmos.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

class EmptyQueuesTest {

  private final AtomicLong now = new AtomicLong();
  private final EmptyQueues<String> empty = new EmptyQueues<>(now::get);
  private final AtomicInteger asked = new AtomicInteger();

  private boolean anyReady(String queue, boolean answer) {
    return empty.anyReady(
        queue,
        () -> {
          asked.incrementAndGet();
          return answer;
        });
  }

  /** As a change that is committed, or undone. */
  private static void change(Runnable what, boolean committed) {
    TransactionSynchronizationManager.initSynchronization();
    try {
      what.run();
      if (committed) {
        TransactionSynchronizationManager.getSynchronizations()
            .forEach(TransactionSynchronization::afterCommit);
      }
    } finally {
      TransactionSynchronizationManager.clearSynchronization();
    }
  }

  @Test
  void whatWasEmptyIsAskedAgainOnceSomethingComes() {
    assertThat(anyReady("a", false)).isFalse();
    assertThat(anyReady("a", true)).isFalse();
    assertThat(asked).hasValue(1);
    change(() -> empty.comesTo("b"), true);
    change(() -> empty.comesTo("a"), false);
    assertThat(anyReady("a", true)).isFalse();
    change(() -> empty.comesTo("a"), true);
    assertThat(anyReady("a", true)).isTrue();
    assertThat(anyReady("a", false)).isFalse();
    change(empty::comesToAny, true);
    assertThat(anyReady("a", true)).isTrue();
    assertThat(asked).hasValue(4);
  }

  @Test
  void whatComesWhileItIsAskedIsNotMissed() {
    boolean first =
        empty.anyReady(
            "a",
            () -> {
              change(() -> empty.comesTo("a"), true);
              return false;
            });
    assertThat(first).isFalse();
    assertThat(anyReady("a", true)).isTrue();
  }

  /** Another node may add to it, of which nothing is heard here. */
  @Test
  void eachIsAskedAgainAfterAWhile() {
    assertThat(anyReady("a", false)).isFalse();
    now.addAndGet(Duration.ofMillis(249).toNanos());
    assertThat(anyReady("a", true)).isFalse();
    now.addAndGet(Duration.ofMillis(1).toNanos());
    assertThat(anyReady("a", true)).isTrue();
    assertThat(asked).hasValue(2);
  }
}
