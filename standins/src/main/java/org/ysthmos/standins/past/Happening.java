package org.ysthmos.standins.past;

import java.io.IOException;
import java.time.Instant;

/**
 * Something that somebody did.
 *
 * @param what in a few words
 */
record Happening(Instant at, String what, Deed deed) {

  /** How it is done. */
  @FunctionalInterface
  interface Deed {

    /**
     * @throws IOException if a system does not answer
     * @throws InterruptedException if the making of the past is stopped
     */
    void carryOut(Hands hands) throws IOException, InterruptedException;
  }

  /** The same, done at another time. */
  Happening at(Instant other) {
    return new Happening(other, what, deed);
  }
}
