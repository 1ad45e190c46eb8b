package org.ysthmos.core.sync;

/** The status of a task on each side. */
public record Statuses(String left, String right) {

  public String of(Side side) {
    return side == Side.LEFT ? left : right;
  }

  /** The same with another status on a side. */
  public Statuses with(Side side, String status) {
    return side == Side.LEFT ? new Statuses(status, right) : new Statuses(left, status);
  }
}
