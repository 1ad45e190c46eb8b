package org.ysthmos.core.value;

/** Yes or no. */
public record Flag(boolean yes) implements Value {

  @Override
  public ValueType type() {
    return ValueType.FLAG;
  }

  @Override
  public String display() {
    return yes ? "yes" : "no";
  }
}
