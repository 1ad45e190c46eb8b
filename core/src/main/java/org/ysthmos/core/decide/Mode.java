package org.ysthmos.core.decide;

/** How much a decision keeps. Both modes decide the same. */
public enum Mode {
  /** Only what delivery needs. */
  PLAIN,
  /** The value after every step and the outcome of every test, too. */
  EXPLAINED
}
