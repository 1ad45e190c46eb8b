package org.ysthmos.core.failure;

import java.time.Duration;
import java.util.Optional;

/**
 * An expected failure, as a value.
 *
 * @param message what happened, a full sentence without secrets
 * @param field the name of the field it is about
 * @param found the offending value
 * @param remedy what a person can do
 * @param retryAfter how long the other system asked us to wait
 */
public record Failure(
    FailureKind kind,
    String message,
    Optional<String> field,
    Optional<String> found,
    Optional<String> remedy,
    Optional<Duration> retryAfter) {

  public static Failure of(FailureKind kind, String message) {
    return new Failure(
        kind, message, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
  }

  public Failure withField(String name, String value) {
    return new Failure(kind, message, Optional.of(name), Optional.of(value), remedy, retryAfter);
  }

  public Failure withRemedy(String text) {
    return new Failure(kind, message, field, found, Optional.of(text), retryAfter);
  }

  public Failure withRetryAfter(Duration wait) {
    return new Failure(kind, message, field, found, remedy, Optional.of(wait));
  }
}
