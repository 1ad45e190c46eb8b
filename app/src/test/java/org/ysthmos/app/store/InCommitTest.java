package org.ysthmos.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;
import org.springframework.transaction.support.DefaultTransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;

class InCommitTest {

  private final List<List<Integer>> written = new ArrayList<>();
  private final InCommit<List<Integer>> numbers = new InCommit<>(ArrayList::new, written::add);
  private final TransactionTemplate commit = new TransactionTemplate(new Commits());

  /** Begins and ends; nothing else. */
  private static final class Commits extends AbstractPlatformTransactionManager {
    @Override
    protected Object doGetTransaction() {
      return new Object();
    }

    @Override
    protected void doBegin(Object transaction, TransactionDefinition definition) {}

    @Override
    protected void doCommit(DefaultTransactionStatus status) {}

    @Override
    protected void doRollback(DefaultTransactionStatus status) {}
  }

  @Test
  void whatSeveralChangesAddIsWrittenOnceForEachCommit() {
    commit.executeWithoutResult(
        status -> {
          numbers.with(open -> open.add(1));
          boolean seen = numbers.with(open -> open.contains(1));
          assertThat(seen).isTrue();
          numbers.with(open -> open.add(2));
          assertThat(written).isEmpty();
        });
    commit.executeWithoutResult(status -> numbers.with(open -> open.add(3)));
    assertThat(written).containsExactly(List.of(1, 2), List.of(3));
  }

  @Test
  void whatIsUndoneIsForgotten() {
    assertThatThrownBy(
            () ->
                commit.executeWithoutResult(
                    status -> {
                      numbers.with(open -> open.add(1));
                      throw new IllegalStateException("broken");
                    }))
        .hasMessage("broken");
    commit.executeWithoutResult(status -> numbers.with(open -> open.add(2)));
    assertThat(written).containsExactly(List.of(2));
  }

  @Test
  void outsideACommitItIsWrittenAtOnce() {
    numbers.with(open -> open.add(1));
    numbers.with(open -> open.add(2));
    assertThat(written).containsExactly(List.of(1), List.of(2));
  }
}
