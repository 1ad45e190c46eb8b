package org.ysthmos.core.sync;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;

/**
 * All tables between so many statuses of one side and so many of the other; of those that become
 * the same by other names of the statuses only the first. A table is for each status of the one
 * side the number of one of the other, then the same back; the number after the last stands for
 * none.
 */
final class EveryTable {

  private final int ones;
  private final int others;
  private final List<int[]> ordersOfOnes;
  private final List<int[]> ordersOfOthers;
  private final BitSet met = new BitSet();

  private EveryTable(int ones, int others) {
    this.ones = ones;
    this.others = others;
    this.ordersOfOnes = orders(ones);
    this.ordersOfOthers = orders(others);
  }

  static List<int[]> of(int ones, int others) {
    return new EveryTable(ones, others).all();
  }

  private List<int[]> all() {
    int many = (int) (Math.pow(others + 1, ones) * Math.pow(ones + 1, others));
    List<int[]> all = new ArrayList<>();
    for (int number = 0; number < many; number++) {
      if (!met.get(number)) {
        int[] table = table(number);
        all.add(table);
        ordersOfOnes.forEach(
            one -> ordersOfOthers.forEach(other -> met.set(number(renamed(table, one, other)))));
      }
    }
    return all;
  }

  private int choices(int place) {
    return place < ones ? others + 1 : ones + 1;
  }

  private int[] table(int number) {
    int[] table = new int[ones + others];
    int rest = number;
    for (int place = 0; place < table.length; place++) {
      table[place] = rest % choices(place);
      rest /= choices(place);
    }
    return table;
  }

  private int number(int[] table) {
    int number = 0;
    for (int place = table.length - 1; place >= 0; place--) {
      number = number * choices(place) + table[place];
    }
    return number;
  }

  private int[] renamed(int[] table, int[] one, int[] other) {
    int[] renamed = new int[table.length];
    for (int i = 0; i < ones; i++) {
      renamed[one[i]] = other[table[i]];
    }
    for (int i = 0; i < others; i++) {
      renamed[ones + other[i]] = one[table[ones + i]];
    }
    return renamed;
  }

  /** All orders of so many; what stands for none stays at the end. */
  private static List<int[]> orders(int many) {
    if (many == 0) {
      return List.of(new int[] {0});
    }
    List<int[]> orders = new ArrayList<>();
    for (int[] shorter : orders(many - 1)) {
      for (int at = 0; at < many; at++) {
        int[] order = new int[many + 1];
        System.arraycopy(shorter, 0, order, 0, many - 1);
        order[many] = many;
        // The new one takes a place, and whoever had it goes where the new one would be.
        order[many - 1] = many - 1;
        int before = order[at];
        order[at] = order[many - 1];
        order[many - 1] = before;
        orders.add(order);
      }
    }
    return orders;
  }
}
