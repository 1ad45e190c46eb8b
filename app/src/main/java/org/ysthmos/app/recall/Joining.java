package org.ysthmos.app.recall;

import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.who.By;
import org.ysthmos.core.recall.RecallWay;

/** Takes one task back because another is the same thing, which its pair has from then on. */
@Component
public class Joining {

  private static final int MOST = 300;

  private final RecallLists lists;
  private final Recalls recalls;
  private final RecallMapper mapper;
  private final Pairs pairs;
  private final Journal journal;

  Joining(RecallLists lists, Recalls recalls, RecallMapper mapper, Pairs pairs, Journal journal) {
    this.lists = lists;
    this.recalls = recalls;
    this.mapper = mapper;
    this.pairs = pairs;
    this.journal = journal;
  }

  /**
   * Begins to take a pair's task back; one that somebody changed meanwhile stays, and the pair with
   * it. Where a task can neither be taken away nor closed, the pair is joined at once.
   *
   * @param trace the id of the trace that made the task
   * @param record the other task
   * @return the number of the recall; empty if the task stays where it is
   * @throws ApiProblem if the task is not there any more
   */
  public Optional<Long> join(String trace, String bridge, String hash, String record, By by) {
    long list = lists.listUnseen(lists.ofTrace(trace), by);
    ItemRow item =
        items(list).stream()
            .filter(one -> one.bridgeId().equals(bridge) && one.matchHash().equals(hash))
            .filter(one -> one.state() != ItemState.GONE_BEFORE)
            .findFirst()
            .orElseThrow(
                () -> {
                  lists.forget(list);
                  return new ApiProblem(
                      HttpStatus.CONFLICT,
                      "Not there any more",
                      "The task that was made is not there any more; there is nothing to join.");
                });
    if (item.way() == RecallWay.NAME) {
      lists.forget(list);
      journal.run(
          () -> {
            boolean unused = pairs.join(bridge, hash, item.recordId(), record);
          });
      return Optional.empty();
    }
    journal.run(
        () -> {
          mapper.joins(list, item.deliverySeq(), record);
          mapper.listedWhole(list);
          recalls.beginNow(list, 1, by);
        });
    return Optional.of(list);
  }

  private List<ItemRow> items(long list) {
    return mapper.items(list, Long.MAX_VALUE, MOST);
  }
}
