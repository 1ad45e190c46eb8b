package org.ysthmos.core.value;

/** Unicode text; may be empty, which is not the same as {@link Nothing}. */
public record Text(String text) implements Value {

  public static Text of(String text) {
    return new Text(text);
  }

  @Override
  public ValueType type() {
    return ValueType.TEXT;
  }

  @Override
  public String display() {
    return text;
  }
}
