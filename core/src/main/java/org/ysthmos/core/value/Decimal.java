package org.ysthmos.core.value;

import java.math.BigDecimal;

/**
 * An exact decimal number. {@code 1.0} and {@code 1.00} are equal: trailing zeros carry no meaning.
 */
public record Decimal(BigDecimal number) implements Value {

  public Decimal {
    number = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
  }

  public static Decimal of(long number) {
    return new Decimal(BigDecimal.valueOf(number));
  }

  /**
   * @throws NumberFormatException if {@code digits} is not a decimal number with a point
   */
  public static Decimal parse(String digits) {
    return new Decimal(new BigDecimal(digits));
  }

  @Override
  public ValueType type() {
    return ValueType.NUMBER;
  }

  @Override
  public String display() {
    return number.toPlainString();
  }
}
