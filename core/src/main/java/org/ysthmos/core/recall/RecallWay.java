package org.ysthmos.core.recall;

/** What can be done about an effect that is to be taken back. */
public enum RecallWay {
  /** The record that it made is taken away. */
  TAKE_AWAY,
  /** The record that it made is closed, as its system lets none be taken away. */
  CLOSE,
  /** The record was there before and was changed: its fields hold again what they held. */
  PUT_BACK,
  /** It can only be named, so that a person knows of it. */
  NAME
}
