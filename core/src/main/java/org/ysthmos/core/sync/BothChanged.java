package org.ysthmos.core.sync;

/** What a field becomes that was changed on both sides, to values that do not agree. */
public enum BothChanged {
  /** A person says; until then both sides keep what they have. */
  ASK,
  LEFT_WINS,
  RIGHT_WINS,
  /** By the times that the systems themselves give; a person says where they give none. */
  LATER_WINS,
  /**
   * What was added and removed on either side, or each paragraph; a person says where it clashes.
   */
  MERGE
}
