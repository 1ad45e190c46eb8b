package org.ysthmos.app.rehearsal;

/** How a rehearsal stands. */
enum RehearsalState {
  /** It goes on, or waits until others are through. */
  RUNNING,
  ENDED,
  /** A person stopped it; what it came to so far is kept. */
  STOPPED,
  /** It could not go on; what it came to so far is kept. */
  FAILED
}
