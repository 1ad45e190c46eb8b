package org.ysthmos.app.store;

import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import java.sql.SQLException;
import org.h2.mvstore.DataUtils;
import org.h2.mvstore.MVStoreException;
import org.junit.jupiter.api.Test;

class StorageFailuresTest {

  private final LastResort resort = mock(LastResort.class);
  private final StorageFailures failures = new StorageFailures(resort);

  private static SQLException causedBy(int code) {
    MVStoreException failed = new MVStoreException(code, "Writing failed");
    return new SQLException("General error", new IllegalStateException(failed));
  }

  @Test
  void writingThatFailedEndsTheProcessSoThatNothingMoreIsKept() {
    failures.exceptionThrown(causedBy(DataUtils.ERROR_WRITING_FAILED), "COMMIT");
    verify(resort).end(75);
  }

  @Test
  void whatStatementsAreRefusedForEndsNothing() {
    failures.exceptionThrown(new SQLException("Unique index violated", "23505", 23505), "INSERT");
    failures.exceptionThrown(causedBy(DataUtils.ERROR_TRANSACTION_LOCKED), "UPDATE");
    verify(resort, never()).end(anyInt());
  }
}
