package org.ysthmos.core.sync;

/** What becomes of a change on the side that only follows. */
public enum Drift {
  /** It stays until the field changes on the side that it follows. */
  LEAVE,
  /** It is written over at once with what the other side has. */
  RESTORE,
  /** A person says. */
  ASK
}
