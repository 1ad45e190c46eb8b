package org.ysthmos.app.rehearsal;

import java.util.Arrays;
import java.util.HexFormat;

/**
 * A number for each SHA-256 that is known, by its first half: of a million hashes two begin alike
 * with a chance below 10^-26. It takes 24 bytes for each place of a table that is at most two
 * thirds full, so that a hundred thousand need six megabytes; with maps of objects it would be
 * several times that. Not for several threads.
 */
final class HashIndex {

  /** No number that is kept. */
  static final long FREE = Long.MIN_VALUE;

  private static final int FIRST_PLACES = 1 << 10;
  private static final int HALF = 16;

  /** Two longs of the hash and the number; the number is {@link #FREE} where a place is free. */
  private long[] places = free(FIRST_PLACES);

  private int used;

  /**
   * @param hash as hexadecimal digits, at least 32
   * @return {@link #FREE} if it is not known
   */
  long get(String hash) {
    return places[at(places, first(hash), second(hash)) + 2];
  }

  /**
   * @param number not {@link #FREE}
   */
  void put(String hash, long number) {
    if (3L * (used + 1) > 2L * (places.length / 3)) {
      grow();
    }
    int at = at(places, first(hash), second(hash));
    used += places[at + 2] == FREE ? 1 : 0;
    set(places, at, first(hash), second(hash), number);
  }

  private void grow() {
    long[] more = free(2 * (places.length / 3));
    for (int at = 0; at < places.length; at += 3) {
      if (places[at + 2] != FREE) {
        set(more, at(more, places[at], places[at + 1]), places[at], places[at + 1], places[at + 2]);
      }
    }
    places = more;
  }

  private static void set(long[] places, int at, long first, long second, long number) {
    places[at] = first;
    places[at + 1] = second;
    places[at + 2] = number;
  }

  /** Where a hash stands, or would stand. */
  private static int at(long[] places, long first, long second) {
    int count = places.length / 3;
    // A hash is spread evenly as it is.
    for (int place = (int) first & (count - 1); ; place = (place + 1) & (count - 1)) {
      int at = 3 * place;
      if (places[at + 2] == FREE || (places[at] == first && places[at + 1] == second)) {
        return at;
      }
    }
  }

  private static long[] free(int count) {
    long[] places = new long[3 * count];
    Arrays.fill(places, FREE);
    return places;
  }

  private static long first(String hash) {
    return HexFormat.fromHexDigitsToLong(hash, 0, HALF);
  }

  private static long second(String hash) {
    return HexFormat.fromHexDigitsToLong(hash, HALF, 2 * HALF);
  }
}
