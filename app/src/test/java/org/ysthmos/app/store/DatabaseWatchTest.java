package org.ysthmos.app.store;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.sql.SQLException;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;

class DatabaseWatchTest {

  private final Journal journal = mock(Journal.class);
  private final LastResort resort = mock(LastResort.class);
  private final DatabaseWatch watch = new DatabaseWatch(journal, mock(Pulse.class), resort);

  private void lookTwice(CompletableFuture<Integer> answer) {
    when(journal.<Integer>offer(any())).thenReturn(answer);
    watch.look();
    watch.look();
  }

  @Test
  void databaseThatHasClosedItselfEndsTheProcessSoThatItIsStartedAgain() {
    lookTwice(
        CompletableFuture.failedFuture(
            new IllegalStateException(new SQLException("closed", "90098", 90098))));
    verify(resort).end(75);
  }

  @Test
  void whatCannotBeWrittenForAWhileEndsNothing() {
    lookTwice(CompletableFuture.failedFuture(new Journal.Full("the disk is full")));
    lookTwice(CompletableFuture.completedFuture(1));
    lookTwice(new CompletableFuture<>());
    verify(resort, never()).end(anyInt());
  }
}
