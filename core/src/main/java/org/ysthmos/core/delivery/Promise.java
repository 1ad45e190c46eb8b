package org.ysthmos.core.delivery;

/** How a target keeps an effect from being made twice when the answer to a try was lost. */
public enum Promise {
  /** What was made is found by our key, and what is not found after some time was not made. */
  FOUND_BY_KEY("what we made is found there by our key, so a lost answer doubles nothing"),
  /** The target knows a repeated call by its key and makes nothing twice. */
  KNOWN_BY_KEY("it knows a repeated call by our key, so a lost answer doubles nothing"),
  /** What is found was made; what is not found may have been made all the same. */
  SEEN_IF_KEPT("a copy shows what was sent; where there is none, a person decides"),
  /** Nothing tells whether an effect was made. */
  NONE("it cannot be searched by our key: after a lost answer a person decides");

  private final String words;

  Promise(String words) {
    this.words = words;
  }

  /** What is promised, as the second half of a sentence about the target. */
  public String words() {
    return words;
  }
}
