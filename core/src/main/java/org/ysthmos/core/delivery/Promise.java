package org.ysthmos.core.delivery;

/** How a target keeps an effect from being made twice when the answer to a try was lost. */
public enum Promise {
  /** What was made is found by our key, and what is not found after some time was not made. */
  FOUND_BY_KEY("a lost answer doubles nothing: we look by our key"),
  /** The target knows a repeated call by its key and makes nothing twice. */
  KNOWN_BY_KEY("a lost answer doubles nothing: it knows our key"),
  /** What is found was made; what is not found may have been made all the same. */
  SEEN_IF_KEPT("after a lost answer we look for a copy, then a person decides"),
  /** Nothing tells whether an effect was made. */
  NONE("after a lost answer a person decides");

  private final String words;

  Promise(String words) {
    this.words = words;
  }

  /** What happens after a lost answer, in the words of the screens. */
  public String words() {
    return words;
  }
}
