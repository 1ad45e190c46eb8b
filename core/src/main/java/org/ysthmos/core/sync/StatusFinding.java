package org.ysthmos.core.sync;

import java.util.List;

/** What people should know of a table of statuses before it is used. */
public sealed interface StatusFinding {

  /** A status that changes nothing across, as it is not mapped. */
  record NotMapped(Side side, String status) implements StatusFinding {}

  /** A status that no change across ever brings this side to. */
  record NeverReached(Side side, String status) implements StatusFinding {}

  /**
   * Two statuses that both stand for one across: a change from one to the other is not seen there.
   */
  record NotSeen(Side side, String from, String to, String across) implements StatusFinding {}

  /**
   * A status that is lost by a round trip: if the status across becomes others and then what it was
   * again, this side is another than before.
   *
   * @param across what stands across before and after the round trip
   * @param over what stands there in between, in order; as few as possible
   * @param becomes what this side is afterwards
   */
  record Lost(Side side, String status, String across, List<String> over, String becomes)
      implements StatusFinding {
    public Lost {
      over = List.copyOf(over);
    }
  }
}
