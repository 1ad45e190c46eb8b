package org.ysthmos.app.store;

import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** What must not be done before a change can be seen by others. */
public final class AfterCommit {

  private AfterCommit() {}

  /** Does it once the change under way is committed; never if it is undone. */
  public static void run(Runnable what) {
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            what.run();
          }
        });
  }
}
