package org.ysthmos.core.failure;

import java.time.Duration;
import java.util.Optional;

/**
 * An expected failure, as a value.
 *
 * @param message what happened, a full sentence without secrets
 * @param field the name of the field it is about
 * @param found the offending value
 * @param code what the other system called it, for example an HTTP status
 * @param remedy what a person can do
 * @param retryAfter how long the other system asked us to wait
 * @param noRoom whether nothing was called, because the system's limit leaves no room just now;
 *     that is no failed try
 */
public record Failure(
    FailureKind kind,
    String message,
    Optional<String> field,
    Optional<String> found,
    Optional<String> code,
    Optional<String> remedy,
    Optional<Duration> retryAfter,
    boolean noRoom) {

  public static Failure of(FailureKind kind, String message) {
    return new Failure(
        kind,
        message,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        false);
  }

  /** Nothing was called: the limit of the system leaves room only after a wait. */
  public static Failure noRoom(String message, Duration wait) {
    return new Failure(
        FailureKind.RATE_LIMITED,
        message,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Optional.of(wait),
        true);
  }

  /**
   * A fault of ours that came again and again.
   *
   * @param doing what was done when it broke, as a sentence begins: {@code Sending it}
   */
  public static Failure brokeHere(String doing, int times, Throwable why) {
    return of(FailureKind.BROKE_HERE, "%s broke here %d times (%s)".formatted(doing, times, why))
        .withRemedy("The log of the application says more. Send it again when it is mended");
  }

  public Failure withField(String name, String value) {
    return new Failure(
        kind, message, Optional.of(name), Optional.of(value), code, remedy, retryAfter, noRoom);
  }

  public Failure withCode(String name) {
    return new Failure(kind, message, field, found, Optional.of(name), remedy, retryAfter, noRoom);
  }

  public Failure withRemedy(String text) {
    return new Failure(kind, message, field, found, code, Optional.of(text), retryAfter, noRoom);
  }

  public Failure withRetryAfter(Duration wait) {
    return new Failure(kind, message, field, found, code, remedy, Optional.of(wait), noRoom);
  }
}
