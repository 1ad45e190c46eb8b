package org.ysthmos.app.duplicate;

/** What a task is known by among the titles. */
public sealed interface KnownTask {

  /** A task of ours, by its pair; it need not be made yet. */
  record OfPair(String bridge, String hash) implements KnownTask {}

  /** A task that others made and that an event told of, by its id over there. */
  record Told(String record) implements KnownTask {}
}
