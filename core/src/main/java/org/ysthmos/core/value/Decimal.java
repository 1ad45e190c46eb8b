package org.ysthmos.core.value;

import java.math.BigDecimal;
import java.math.MathContext;

/**
 * An exact decimal number. {@code 1.0} and {@code 1.00} are equal: trailing zeros carry no meaning.
 */
public record Decimal(BigDecimal number) implements Value {

  public Decimal {
    number = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
  }

  /** The most digits before or after the point that are taken; a number is not to fill a disk. */
  public static final int MOST_DIGITS = 1000;

  /** The number, or a problem if it has more than {@link #MOST_DIGITS} digits on either side. */
  public static Computed checked(BigDecimal number) {
    if (Math.abs((long) number.precision() - number.scale()) > MOST_DIGITS
        || number.scale() > MOST_DIGITS) {
      return new Problem(
          "the number has more than " + MOST_DIGITS + " digits",
          number.round(new MathContext(6)).toString(),
          "Correct the number at its source, then send again");
    }
    return new Decimal(number);
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
