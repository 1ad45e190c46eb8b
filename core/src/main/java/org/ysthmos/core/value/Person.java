package org.ysthmos.core.value;

/** A person, by their key in the directory of the system that is spoken to. */
public record Person(String key) implements Value {

  @Override
  public ValueType type() {
    return ValueType.PERSON;
  }

  @Override
  public String display() {
    return key;
  }
}
