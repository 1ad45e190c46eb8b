package org.ysthmos.app.poll;

/** What is done with a collection that is polled. */
enum PollState {
  /** It waits for its next time. */
  IDLE,
  /** Somebody has claimed it and reads it. */
  READING
}
