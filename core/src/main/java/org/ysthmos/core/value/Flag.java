package org.ysthmos.core.value;

/** Yes or no. */
public record Flag(boolean yes) implements Value {

  public static final Flag YES = new Flag(true);
  public static final Flag NO = new Flag(false);

  /** Whether something computed is a flag that says yes. */
  public static boolean isYes(Computed computed) {
    return computed instanceof Flag flag && flag.yes();
  }

  public static Flag of(boolean yes) {
    return yes ? YES : NO;
  }

  @Override
  public ValueType type() {
    return ValueType.FLAG;
  }

  @Override
  public String display() {
    return yes ? "yes" : "no";
  }
}
