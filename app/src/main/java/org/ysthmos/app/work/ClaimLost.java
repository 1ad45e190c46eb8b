package org.ysthmos.app.work;

/** Who writes down what became of a piece does not have it any more: its lease ran out. */
public final class ClaimLost extends IllegalStateException {

  public ClaimLost(String piece) {
    super("the claim on " + piece + " is over; another goes on with it");
  }
}
