package org.ysthmos.app.store;

import java.util.List;
import java.util.function.Consumer;

/** Long lists in statements of one length, so that few statements are parsed. */
public final class Chunks {

  private static final int LENGTH = 25;

  private Chunks() {}

  /** Calls with lists of one fixed length as far as they go, then with lists of one. */
  public static <T> void each(List<T> all, Consumer<List<T>> some) {
    int at = 0;
    for (; at + LENGTH <= all.size(); at += LENGTH) {
      some.accept(all.subList(at, at + LENGTH));
    }
    for (; at < all.size(); at++) {
      some.accept(all.subList(at, at + 1));
    }
  }
}
