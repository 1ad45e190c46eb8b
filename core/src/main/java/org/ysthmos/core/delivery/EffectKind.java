package org.ysthmos.core.delivery;

/** What a delivery does in an outside system. */
public enum EffectKind {
  CREATE,
  CHANGE,
  REMOVE,
  /** Something that is said once and never changed: a letter, a word in a chat. */
  MESSAGE;

  /** Whether doing it twice makes two. Changing and removing twice comes to the same as once. */
  public boolean doublesWhenRepeated() {
    return this == CREATE || this == MESSAGE;
  }
}
