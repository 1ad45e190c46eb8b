package org.ysthmos.app.work;

import java.util.Collection;
import java.util.List;
import java.util.Set;

/**
 * Where a stage takes its work from, and what it does with it.
 *
 * @param <Q> a queue of pieces that are worked off in order
 * @param <W> a piece of work with its claim
 */
public interface WorkSource<Q, W> {

  /** Makes ready what was put off until now, and takes back what was claimed for too long. */
  void wake(Set<String> running);

  /** The queues that may hold work. */
  Collection<Q> queues();

  /**
   * How many more pieces of a queue may be worked on.
   *
   * @param running how many are worked on just now in the queue's group
   */
  int room(Q queue, int running);

  /** Queues that share their workers; a group that stands still keeps no other one waiting. */
  Object group(Q queue);

  /** Claims at most so many pieces, in order. */
  List<W> claim(Q queue, int most);

  /** The name of a piece's claim. */
  String claimOf(W piece);

  void work(W piece);

  /** Gives a piece back that broke through a fault of ours; after some times it is given up. */
  void giveBack(W piece, Throwable why);

  /** Makes claims last longer. */
  void renew(Collection<String> claims);
}
