package org.ysthmos.standins.hook;

/** What goes wrong with a webhook. */
public enum HookTrouble {
  NONE,
  /** It is delivered twice, with the same id, as a sender does that missed the first answer. */
  TWICE,
  /** It comes after the webhook that was sent later. */
  OUT_OF_ORDER,
  /** It is never delivered. */
  LOST
}
