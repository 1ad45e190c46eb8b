package org.ysthmos.app.recall;

import org.ysthmos.core.recall.RecallOrder.Stand;

/** How one record of a recall stands. */
public enum ItemState {
  /** It can only be named. */
  NAMED,
  /** It is there, as far as is known. */
  WAITING,
  UNDER_WAY,
  TAKEN_BACK,
  /** It was not there any more. */
  GONE_BEFORE,
  /** It stays: somebody changed it, or what stands under it stays. */
  STAYS,
  /** It could not be taken back. */
  FAILED,
  /** It was taken back, and its event was sent again. */
  MADE_AGAIN;

  /** How it stands to what was made before it. */
  Stand stand(boolean chosen) {
    return switch (this) {
      case WAITING -> chosen ? Stand.OPEN : Stand.STAYS;
      case UNDER_WAY -> Stand.OPEN;
      case TAKEN_BACK, GONE_BEFORE -> Stand.WENT;
      case NAMED, STAYS, FAILED, MADE_AGAIN -> Stand.STAYS;
    };
  }
}
