package org.ysthmos.app.courier;

import java.util.EnumSet;
import java.util.Set;

/** Where a delivery is that has not ended. */
public enum DeliveryState {
  /** It can be sent. */
  READY,
  /** The task it belongs under is not made yet. */
  AWAITING_PARENT,
  /** It is tried again at a stated time. */
  PAUSED,
  /** Somebody has claimed it and sends it. */
  SENDING;

  private Set<DeliveryState> next() {
    return switch (this) {
      case READY -> EnumSet.of(SENDING);
      case AWAITING_PARENT, PAUSED -> EnumSet.of(READY);
      case SENDING -> EnumSet.of(READY, PAUSED);
    };
  }

  public boolean mayBecome(DeliveryState other) {
    return next().contains(other);
  }
}
