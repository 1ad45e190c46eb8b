package org.ysthmos.core.value;

/**
 * A value that a person should look at before trusting it.
 *
 * @param value the value to go on with
 * @param warning a full sentence that says what was done and why
 */
public record Warned(Value value, String warning) implements Computed {

  /**
   * The value, warned of or not.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static Value valueOf(Computed computed) {
    return switch (computed) {
      case Value value -> value;
      case Warned warned -> warned.value();
      case Problem problem -> throw new IllegalArgumentException("no value: " + problem.message());
    };
  }
}
