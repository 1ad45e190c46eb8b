package org.ysthmos.app.work;

import java.util.List;
import java.util.function.Consumer;

/** Handles each of several, so that one that cannot be handled keeps none of the others back. */
public final class EachAlone {

  private EachAlone() {}

  /**
   * @throws RuntimeException the first that was thrown, with the others behind it, when all were
   *     handled
   */
  public static <T> void of(List<T> all, Consumer<T> handling) {
    RuntimeException first = null;
    for (T one : all) {
      try {
        handling.accept(one);
      } catch (RuntimeException e) {
        if (first == null) {
          first = e;
        } else {
          first.addSuppressed(e);
        }
      }
    }
    if (first != null) {
      throw first;
    }
  }
}
