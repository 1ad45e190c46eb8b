package org.ysthmos.app.gap;

import org.jspecify.annotations.Nullable;

/**
 * A collection whose events of the missing time were received by the one that went on.
 *
 * @param readUntil up to which event of ours it was read again; null until it was
 */
public record GapPlace(String system, String collection, Way way, @Nullable Long readUntil) {

  /** How what happened there meanwhile comes to be known. */
  public enum Way {
    /** It is polled, and goes on where the copy stood. */
    POLLED,
    /** Its system told of it once and does not again by itself. */
    TOLD
  }

  /** Whether it is still to be read again. */
  public boolean isAwaited() {
    return way == Way.POLLED && readUntil == null;
  }
}
