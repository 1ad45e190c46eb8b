package org.ysthmos.core.sync;

/** The status of a task on each side. */
public record Statuses(String one, String other) {

  public String of(Side side) {
    return side == Side.ONE ? one : other;
  }

  /** The same with another status on a side. */
  public Statuses with(Side side, String status) {
    return side == Side.ONE ? new Statuses(status, other) : new Statuses(one, status);
  }
}
