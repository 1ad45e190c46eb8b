package org.ysthmos.app.pair;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * How often a task was written to. One span is counted after the other, so that across the end of
 * one as many as twice the most may come within its length.
 *
 * @param times since then
 * @param since when the span began; empty if it never was
 */
public record Often(int times, Optional<Instant> since) {

  /** How often it was in the span that a moment falls into. */
  public int within(Duration span, Instant now) {
    return isOver(span, now) ? 0 : times;
  }

  /** The same with one more. */
  Often more(Duration span, Instant now) {
    // A clock that was set back must not keep a span from ending.
    Instant begun = since.filter(any -> !isOver(span, now)).filter(now::isAfter).orElse(now);
    return new Often(within(span, now) + 1, Optional.of(begun));
  }

  private boolean isOver(Duration span, Instant now) {
    return since.isEmpty() || !now.isBefore(since.get().plus(span));
  }
}
