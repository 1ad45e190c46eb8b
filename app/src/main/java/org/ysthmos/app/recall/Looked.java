package org.ysthmos.app.recall;

/** What a look at a record came to. */
public enum Looked {
  /** It is as it was when it was last written. */
  SAME,
  /** Somebody changed it since. */
  CHANGED,
  /** It is not there any more. */
  GONE,
  /** It cannot be looked at, or could not. */
  UNKNOWN
}
