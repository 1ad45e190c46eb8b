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

  /** Nothing but time that goes by, so that whoever asks at intervals asks. */
  static Happening pause(Instant at) {
    return new Happening(at, "time goes by", hands -> {});
  }
}
