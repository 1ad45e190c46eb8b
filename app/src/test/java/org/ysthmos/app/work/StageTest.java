package org.ysthmos.app.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class StageTest {

  private final ConcurrentLinkedQueue<String> ready = new ConcurrentLinkedQueue<>();
  private final ConcurrentLinkedQueue<String> done = new ConcurrentLinkedQueue<>();

  @SuppressWarnings("unchecked")
  private final Predicate<String> claim = mock(Predicate.class);

  @SuppressWarnings("unchecked")
  private final Consumer<String> handBack = mock(Consumer.class);

  private final WorkSignals.Signal signal = new WorkSignals().toDecide();
  private Stage<String> stage;

  @BeforeEach
  void start() {
    when(claim.test("free")).thenReturn(true);
    when(claim.test("broken")).thenReturn(true);
    when(claim.test("taken")).thenReturn(false);
    stage = stage(limit -> ready.isEmpty() ? List.of() : List.of(ready.remove()));
    stage.start();
  }

  private Stage<String> stage(IntFunction<List<String>> reading) {
    return new Stage<>(
        "stage",
        2,
        signal,
        reading,
        claim,
        piece -> {
          if (piece.equals("broken")) {
            throw new IllegalStateException("broken for the test");
          }
          done.add(piece);
        },
        handBack);
  }

  @AfterEach
  void stop() {
    stage.stop();
  }

  private void offer(String piece) {
    ready.add(piece);
    signal.raise();
  }

  @Test
  void worksOffWhatIsReady() {
    offer("free");
    await().until(() -> done.size() == 1);
    verify(handBack, never()).accept("free");
  }

  @Test
  void leavesWhatAnotherTook() {
    offer("taken");
    offer("free");
    await().until(() -> done.size() == 1);
    assertThat(done).containsExactly("free");
  }

  @Test
  void handsBackWhatBrokeAndGoesOn() {
    for (int i = 0; i < 5; i++) {
      offer("broken");
    }
    offer("free");
    await().until(() -> done.size() == 1);
    await().untilAsserted(() -> verify(handBack, org.mockito.Mockito.times(5)).accept("broken"));
  }

  @Test
  void storeThatCannotAnswerForAMomentDoesNotEndTheStage() {
    stage.stop();
    @SuppressWarnings("unchecked")
    IntFunction<List<String>> failing = mock(IntFunction.class);
    when(failing.apply(anyInt()))
        .thenThrow(new IllegalStateException("no answer"))
        .thenReturn(List.of("free"))
        .thenReturn(List.of());
    stage = stage(failing);
    stage.start();
    await().until(() -> done.size() == 1);
  }
}
