package org.ysthmos.app.resend;

/** How sending again together stands. */
public enum ResendState {
  RUNNING,
  /** All of it was sent. */
  SENT,
  /** A person stopped it; what was not sent waits as before. */
  STOPPED,
  /** It broke through a fault of ours; what was not sent waits as before. */
  BROKEN
}
