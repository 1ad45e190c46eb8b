package org.ysthmos.core.sync;

import java.util.function.Function;

/** One thing for each side. */
public record Both<T>(T left, T right) {

  public static <T> Both<T> by(Function<Side, T> make) {
    return new Both<>(make.apply(Side.LEFT), make.apply(Side.RIGHT));
  }

  public T of(Side side) {
    return side == Side.LEFT ? left : right;
  }
}
