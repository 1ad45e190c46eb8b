package org.ysthmos.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.TransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;

class JournalTest {

  private final List<String> log = new ArrayList<>();
  private final AtomicInteger forces = new AtomicInteger();
  private final TransactionTemplate transaction = mock(TransactionTemplate.class);
  private final DiskRoom room = mock(DiskRoom.class);
  private final Journal journal = journal(true);

  private Journal journal(boolean forced) {
    return new Journal(
        transaction,
        mock(KeptConnection.class),
        () -> {
          forces.incrementAndGet();
          log.add("forced");
        },
        room,
        forced);
  }

  @BeforeEach
  void start() {
    doAnswer(
            call -> {
              Consumer<TransactionStatus> work = call.getArgument(0);
              List<String> before = List.copyOf(log);
              try {
                work.accept(mock(TransactionStatus.class));
              } catch (RuntimeException e) {
                log.clear();
                log.addAll(before);
                throw e;
              }
              return null;
            })
        .when(transaction)
        .executeWithoutResult(any());
    journal.start();
  }

  @AfterEach
  void stop() {
    journal.stop();
  }

  private int write(String what) {
    log.add(what);
    return log.size();
  }

  /** Keeps the journal busy, so that what is offered meanwhile goes into one batch. */
  private List<CompletableFuture<Integer>> together(List<Runnable> changes) {
    CountDownLatch begun = new CountDownLatch(1);
    CountDownLatch offered = new CountDownLatch(1);
    CompletableFuture<Boolean> first =
        journal.write(
            () -> {
              begun.countDown();
              try {
                offered.await();
              } catch (InterruptedException e) {
                throw new IllegalStateException(e);
              }
              return true;
            });
    try {
      begun.await();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
    List<CompletableFuture<Integer>> all =
        changes.stream()
            .map(
                change ->
                    journal.write(
                        () -> {
                          change.run();
                          return 1;
                        }))
            .toList();
    offered.countDown();
    first.join();
    return all;
  }

  @Test
  void isForcedOnceForManyChangesAndBeforeAnyoneLearnsOfIt() {
    List<CompletableFuture<Integer>> all =
        together(List.of(() -> write("a"), () -> write("b"), () -> write("c")));
    all.forEach(CompletableFuture::join);
    assertThat(log).containsExactly("forced", "a", "b", "c", "forced");
  }

  @Test
  void whereNothingIsForcedAllIsCommittedAllTheSame() {
    Journal unforced = journal(false);
    unforced.start();
    assertThat(unforced.now(() -> write("a"))).isEqualTo(1);
    unforced.stop();
    assertThat(log).containsExactly("a");
  }

  @Test
  void changeThatThrowsTakesNoOtherWithItAndWhoOfferedItLearnsWhy() {
    List<CompletableFuture<Integer>> all =
        together(
            List.of(
                () -> write("a"),
                () -> {
                  write("half of it");
                  throw new IllegalArgumentException("no such row");
                },
                () -> write("c")));
    assertThat(all.get(0).join()).isEqualTo(1);
    assertThat(all.get(2).join()).isEqualTo(1);
    assertThatThrownBy(() -> all.get(1).join()).hasRootCauseMessage("no such row");
    assertThat(log).contains("a", "c").doesNotContain("half of it");
  }

  @Test
  void waitingThrowsWhatTheChangeThrew() {
    assertThatThrownBy(
            () ->
                journal.now(
                    () -> {
                      throw new IllegalArgumentException("no such row");
                    }))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessage("no such row");
    assertThat(journal.now(() -> write("goes on"))).isPositive();
  }

  @Test
  void errorInAChangeDoesNotEndTheJournal() {
    CompletableFuture<Integer> broken =
        journal.write(
            () -> {
              throw new StackOverflowError("for the test");
            });
    assertThatThrownBy(broken::join).hasRootCauseInstanceOf(StackOverflowError.class);
    assertThat(journal.now(() -> write("goes on"))).isPositive();
  }

  @Test
  void stopWritesWhatWasOfferedAndTakesNothingMore() {
    List<CompletableFuture<Integer>> all = together(List.of(() -> write("a"), () -> write("b")));
    journal.stop();
    assertThat(all).allMatch(one -> one.join() == 1);
    assertThatThrownBy(() -> journal.now(() -> write("late"))).isInstanceOf(Journal.Full.class);
  }

  @Test
  void nothingIsWrittenToAFullDiskAndEverythingAgainWhenThereIsRoom() {
    when(room.isNone()).thenReturn(true);
    assertThatThrownBy(() -> journal.now(() -> write("lost")))
        .isInstanceOf(Journal.Full.class)
        .hasMessageContaining("full");
    when(room.isNone()).thenReturn(false);
    assertThat(journal.now(() -> write("kept"))).isNotNull();
    assertThat(log).containsExactly("kept", "forced");
  }
}
