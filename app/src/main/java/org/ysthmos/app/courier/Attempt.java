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

  DeliveryRow delivery() {
    return claimed.delivery();
  }
}
