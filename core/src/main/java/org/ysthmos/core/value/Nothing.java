package org.ysthmos.core.value;

/**
 * Absent. Distinct from an empty text: a form field left out is nothing, one sent empty is text.
 */
public enum Nothing implements Value {
  NOTHING;

  @Override
  public ValueType type() {
    return ValueType.NOTHING;
  }

  @Override
  public String display() {
    return "";
  }
}
