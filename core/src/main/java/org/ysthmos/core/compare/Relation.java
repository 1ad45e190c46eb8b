package org.ysthmos.core.compare;

import org.ysthmos.core.value.ValueType;

/** An order between two values of one type. */
public enum Relation {
  MORE_THAN("more than", false),
  AT_LEAST("at least", false),
  LESS_THAN("less than", false),
  AT_MOST("at most", false),
  BEFORE("before", true),
  AFTER("after", true);

  private final String words;
  private final boolean inTime;

  Relation(String words, boolean inTime) {
    this.words = words;
    this.inTime = inTime;
  }

  public String words() {
    return words;
  }

  boolean takes(ValueType type) {
    return isOrdered(type) && inTime != type.equals(ValueType.NUMBER);
  }

  String takesWords() {
    return inTime ? "a day or a moment" : "a number";
  }

  static boolean isOrdered(ValueType type) {
    return switch (type.kind()) {
      case NUMBER, DAY, MOMENT -> true;
      default -> false;
    };
  }

  boolean holds(int order) {
    return switch (this) {
      case MORE_THAN, AFTER -> order > 0;
      case AT_LEAST -> order >= 0;
      case LESS_THAN, BEFORE -> order < 0;
      case AT_MOST -> order <= 0;
    };
  }
}
