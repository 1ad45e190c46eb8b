package org.ysthmos.adapters;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;

/** Times against a yardstick in the same run, and what stays in memory. */
public final class Measured {

  private Measured() {}

  /** The median of some runs, in milliseconds. */
  public static double median(int runs, Callable<?> work) throws Exception {
    List<Double> times = new ArrayList<>();
    for (int i = 0; i < runs; i++) {
      long begin = System.nanoTime();
      work.call();
      times.add(Duration.ofNanos(System.nanoTime() - begin).toNanos() / 1e6);
    }
    times.sort(null);
    return times.get(runs / 2);
  }

  /** Prints a figure with its ratio to a yardstick. */
  public static void print(String name, double millis, double yardstick) {
    System.out.printf("%s: %.0f ms (%.2f)%n", name, millis, millis / yardstick);
  }

  /** What is held after everything that can be let go is. */
  public static long held() {
    for (int i = 0; i < 3; i++) {
      System.gc();
    }
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  /** Prints by how much more is held after more passes than after a first one. */
  public static void printGrowth(String name, int passes, Callable<?> pass) throws Exception {
    pass.call();
    long before = held();
    for (int i = 0; i < passes; i++) {
      pass.call();
    }
    System.out.printf(
        "%s: %.1f MB more held after %d passes, of %.1f MB%n",
        name, (held() - before) / 1e6, passes, before / 1e6);
  }
}
