package org.ysthmos.app.courier;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * One try of a delivery with the calls made for it.
 *
 * @param calls in order; more are added as they are made
 * @param synced the side of a pair of tasks that are kept alike; empty for other bridges
 */
record Attempt(
    DeliveryQueue.Claimed claimed,
    String systemName,
    List<RemoteCall> calls,
    Optional<SyncedPairs.Sending> synced) {

  static Attempt of(
      DeliveryQueue.Claimed claimed, String systemName, Optional<SyncedPairs.Sending> synced) {
    return new Attempt(claimed, systemName, new ArrayList<>(), synced);
  }

  /** Whether it takes back what another delivery made, long after its trace has ended. */
  boolean isRecall() {
    return claimed.queue().equals(DeliveryQueue.RECALLS);
  }

  /** The queue of the traces that may wait for the pair. */
  String traceQueue() {
    return isRecall() ? delivery().bridgeId() : claimed.queue();
  }

  DeliveryRow delivery() {
    return claimed.delivery();
  }
}
