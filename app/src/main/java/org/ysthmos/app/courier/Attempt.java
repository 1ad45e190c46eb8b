package org.ysthmos.app.courier;

import java.util.ArrayList;
import java.util.List;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * One try of a delivery with the calls made for it.
 *
 * @param calls in order; more are added as they are made
 */
record Attempt(DeliveryQueue.Claimed claimed, String systemName, List<RemoteCall> calls) {

  static Attempt of(DeliveryQueue.Claimed claimed, String systemName) {
    return new Attempt(claimed, systemName, new ArrayList<>());
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
