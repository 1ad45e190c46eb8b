package org.ysthmos.core.value;

/** One of a known set, by its key in the system that owns the set. */
public record Choice(String key) implements Value {

  @Override
  public ValueType type() {
    return ValueType.CHOICE;
  }

  @Override
  public String display() {
    return key;
  }
}
