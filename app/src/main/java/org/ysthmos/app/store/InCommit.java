package org.ysthmos.app.store;

import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * What the changes of one commit have in common, so that numbers that each of them adds to are
 * written once for all. It is written right before the commit and given up with it; where one of
 * the changes throws, it is forgotten like all that they wrote.
 *
 * @param <T> what is kept until then
 */
public final class InCommit<T> {

  private final Supplier<T> fresh;
  private final Consumer<T> write;

  /**
   * @param write writes it to the database
   */
  public InCommit(Supplier<T> fresh, Consumer<T> write) {
    this.fresh = fresh;
    this.write = write;
  }

  /**
   * Does something with what the commit under way has so far; outside one it is written at once.
   */
  public <R> R with(Function<T, R> what) {
    if (!TransactionSynchronizationManager.isSynchronizationActive()) {
      T alone = fresh.get();
      R came = what.apply(alone);
      write.accept(alone);
      return came;
    }
    return what.apply(shared());
  }

  private T shared() {
    @SuppressWarnings("unchecked")
    @Nullable T bound = (T) TransactionSynchronizationManager.getResource(this);
    if (bound != null) {
      return bound;
    }
    T first = fresh.get();
    TransactionSynchronizationManager.bindResource(this, first);
    TransactionSynchronizationManager.registerSynchronization(new Written(first));
    return first;
  }

  /** Writes while the connection is still that of the change. */
  private final class Written implements TransactionSynchronization, Ordered {
    private final T shared;

    Written(T shared) {
      this.shared = shared;
    }

    @Override
    public int getOrder() {
      return Ordered.HIGHEST_PRECEDENCE;
    }

    @Override
    public void beforeCommit(boolean readOnly) {
      write.accept(shared);
    }

    @Override
    public void afterCompletion(int status) {
      TransactionSynchronizationManager.unbindResource(InCommit.this);
    }
  }
}
