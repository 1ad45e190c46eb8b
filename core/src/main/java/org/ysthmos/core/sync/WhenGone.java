package org.ysthmos.core.sync;

/** What becomes of a task whose other one is gone. */
public enum WhenGone {
  /** A person says. */
  ASK,
  CLOSE,
  /** Unless somebody entered something there that the other side never had: then a person says. */
  DELETE,
  /** It goes on by itself. */
  PART,
  MAKE_AGAIN
}
