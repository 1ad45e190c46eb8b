package org.ysthmos.app.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class StageTest {

  /** Two queues of pieces; what a piece is called says how its work goes. */
  private static final class Source implements WorkSource<String, String> {
    final Map<String, ConcurrentLinkedQueue<String>> ready = new ConcurrentHashMap<>();
    final ConcurrentLinkedQueue<String> done = new ConcurrentLinkedQueue<>();
    final ConcurrentLinkedQueue<String> given = new ConcurrentLinkedQueue<>();
    final ConcurrentLinkedQueue<String> renewed = new ConcurrentLinkedQueue<>();
    final AtomicInteger claimFaults = new AtomicInteger();
    final CountDownLatch mayEnd = new CountDownLatch(1);
    volatile boolean giveBackFails;
    volatile boolean wakeFails;
    volatile boolean endless;
    final AtomicInteger woken = new AtomicInteger();
    final AtomicInteger made = new AtomicInteger();
    volatile String broken = "";

    Source() {
      ready.put("a", new ConcurrentLinkedQueue<>());
      ready.put("b", new ConcurrentLinkedQueue<>());
    }

    @Override
    public void wake(Set<String> running) {
      woken.incrementAndGet();
      if (wakeFails) {
        throw new IllegalStateException("a row that cannot be changed");
      }
    }

    @Override
    public Collection<String> queues() {
      return List.of("a", "b");
    }

    @Override
    public int room(String queue, int running) {
      return 2 - running;
    }

    @Override
    public Object group(String queue) {
      return queue;
    }

    @Override
    public List<String> claim(String queue, int most) {
      if (queue.equals(broken)) {
        throw new IllegalStateException("this queue cannot be claimed from");
      }
      if (claimFaults.getAndUpdate(left -> Math.max(0, left - 1)) > 0) {
        throw new IllegalStateException("no answer");
      }
      if (endless) {
        return List.of("one of many " + made.incrementAndGet());
      }
      List<String> claimed = new ArrayList<>();
      while (claimed.size() < most && !ready.get(queue).isEmpty()) {
        claimed.add(ready.get(queue).remove());
      }
      return claimed;
    }

    @Override
    public String claimOf(String piece) {
      return piece;
    }

    @Override
    public void work(String piece) {
      if (piece.startsWith("broken")) {
        throw new IllegalStateException("broken for the test");
      }
      if (piece.startsWith("error")) {
        throw new StackOverflowError("an error, for the test");
      }
      if (piece.startsWith("lost")) {
        throw new ClaimLost(piece);
      }
      if (piece.startsWith("hangs")) {
        try {
          mayEnd.await();
        } catch (InterruptedException e) {
          done.add("interrupted");
        }
      }
      done.add(piece);
    }

    @Override
    public void giveBack(String piece, Throwable why) {
      if (giveBackFails) {
        throw new IllegalStateException("the store does not answer");
      }
      given.add(piece);
    }

    @Override
    public void renew(Collection<String> claims) {
      renewed.addAll(claims);
    }
  }

  private final Source source = new Source();
  private final WorkSignals.Signal signal = new WorkSignals().toDecide();
  private Stage<String, String> stage;

  @BeforeEach
  void start() {
    Claims claims = mock(Claims.class);
    when(claims.mayBeMade()).thenReturn(true);
    when(claims.lease()).thenReturn(Duration.ofMillis(80));
    stage = new Stage<>("stage", claims, signal, source, Duration.ofMillis(300));
    stage.start();
  }

  @AfterEach
  void stop() {
    source.mayEnd.countDown();
    stage.stop();
  }

  private void offer(String queue, String piece) {
    source.ready.get(queue).add(piece);
    signal.raise();
  }

  @Test
  void worksOffWhatIsReady() {
    offer("a", "one");
    offer("b", "two");
    await().until(() -> source.done.size() == 2);
    assertThat(source.given).isEmpty();
  }

  @Test
  void givesBackWhatBrokeAlsoByAnErrorAndGoesOn() {
    for (int i = 0; i < 5; i++) {
      offer("a", "broken " + i);
      offer("a", "error " + i);
    }
    offer("a", "free");
    await().until(() -> source.done.contains("free"));
    await().until(() -> source.given.size() == 10);
  }

  /** Each claim that throws once took a worker with it, and after some the stage stood still. */
  @Test
  void claimsThatThrowTakeNoWorkerWithThem() {
    source.claimFaults.set(3);
    for (int i = 0; i < 6; i++) {
      offer("a", "free " + i);
    }
    await().atMost(Duration.ofSeconds(20)).until(() -> source.done.size() == 6);
  }

  /** One row that the database could not change any more stood before all others. */
  @Test
  void whatCannotBeWokenOrClaimedKeepsNothingElseBack() {
    source.wakeFails = true;
    source.broken = "a";
    offer("a", "of the broken queue");
    for (int i = 0; i < 20; i++) {
      offer("b", "free " + i);
    }
    await().until(() -> source.done.stream().filter(one -> one.startsWith("free")).count() == 20);
    source.broken = "";
    await().atMost(Duration.ofSeconds(20)).until(() -> source.done.contains("of the broken queue"));
  }

  @Test
  void whatWaitsForATimeIsLookedForHoweverMuchIsReady() {
    source.endless = true;
    signal.raise();
    await().until(() -> source.made.get() > 0);
    int before = source.woken.get();
    await().until(() -> source.woken.get() > before + 2);
    source.endless = false;
    assertThat(source.done.size()).isPositive();
  }

  @Test
  void whatCannotBeGivenBackIsNotRenewedAnyMoreAndItsWorkerIsFree() {
    source.giveBackFails = true;
    offer("a", "broken 1");
    offer("a", "broken 2");
    offer("a", "broken 3");
    offer("a", "free");
    await().until(() -> source.done.contains("free"));
    assertThat(stage.underWay()).isZero();
  }

  @Test
  void claimThatIsLostIsNotGivenBack() {
    offer("a", "lost");
    offer("a", "free");
    await().until(() -> source.done.contains("free"));
    assertThat(source.given).isEmpty();
  }

  @Test
  void groupThatStandsStillKeepsNoOtherOneWaiting() {
    offer("a", "hangs 1");
    offer("a", "hangs 2");
    offer("a", "behind them");
    for (int i = 0; i < 20; i++) {
      offer("b", "free " + i);
    }
    await().until(() -> source.done.size() == 20);
    assertThat(source.done).doesNotContain("behind them");
    assertThat(stage.underWay()).isEqualTo(2);
  }

  @Test
  void claimsOfWhatIsWorkedOnAreRenewed() {
    offer("a", "hangs");
    await().until(() -> source.renewed.stream().filter("hangs"::equals).count() >= 3);
  }

  @Test
  void stopWaitsForAStatedTimeAndInterruptsNothing() {
    offer("a", "hangs");
    await().until(() -> stage.underWay() == 1);
    stage.stop();
    assertThat(stage.isRunning()).isFalse();
    source.mayEnd.countDown();
    await().until(() -> source.done.contains("hangs"));
    assertThat(source.done).doesNotContain("interrupted");
  }
}
