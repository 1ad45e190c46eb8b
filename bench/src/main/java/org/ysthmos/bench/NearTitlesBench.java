package org.ysthmos.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;
import org.ysthmos.core.likeness.TitleIndex;
import org.ysthmos.core.likeness.TitleLikeness;

/**
 * The titles that are nearly equal to one among 100,000. The yardstick compares with each. At the
 * end it says how many of those the index found, and what it holds in memory.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 3)
@Fork(1)
public class NearTitlesBench {

  private static final int TITLES = 100_000;
  private static final int COMPARED = 20;
  private static final String[] SYLLABLES = {
    "al", "der", "fen", "ro", "mar", "li", "than", "cor", "ves", "ne", "ti", "um", "ga", "sel",
    "bra"
  };

  private final Random random = new Random(7);
  private final List<String> words = new ArrayList<>();
  private final List<String> titles = new ArrayList<>();
  private final TitleIndex<Integer> index = new TitleIndex<>(TITLES);
  private int next;

  @Setup
  public void fill() {
    for (int i = 0; i < 3_000; i++) {
      StringBuilder word = new StringBuilder();
      for (int s = 1 + random.nextInt(3); s >= 0; s--) {
        word.append(SYLLABLES[random.nextInt(SYLLABLES.length)]);
      }
      words.add(word.toString());
    }
    long before = used();
    for (int i = 0; i < TITLES; i++) {
      titles.add(i > 100 && i % 10 == 0 ? slipped(titles.get(random.nextInt(i))) : title());
      index.put(i, titles.get(i));
    }
    System.out.printf("index held: %d MB%n", (used() - before) >> 20);
  }

  private static long used() {
    System.gc();
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  /** Four to eight words, the frequent ones far more often than the rare ones. */
  private String title() {
    StringBuilder title = new StringBuilder();
    for (int i = 4 + random.nextInt(5); i > 0; i--) {
      double rank = Math.pow(words.size(), random.nextDouble()) - 1;
      title.append(title.isEmpty() ? "" : " ").append(words.get((int) rank));
    }
    return title.toString();
  }

  private String slipped(String title) {
    StringBuilder slipped = new StringBuilder(title);
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      int at = random.nextInt(slipped.length());
      slipped.setCharAt(at, (char) ('a' + random.nextInt(26)));
    }
    return slipped.toString();
  }

  private String asked() {
    next = (next + 7_919) % TITLES;
    return titles.get(next);
  }

  @Benchmark
  public int index() {
    return index.near(asked(), Integer.MAX_VALUE).size();
  }

  @Benchmark
  public int yardstick() {
    return compared(asked());
  }

  private int compared(String title) {
    int found = 0;
    for (String other : titles) {
      if (TitleLikeness.of(title, other).isPresent()) {
        found++;
      }
    }
    return found;
  }

  /** What of all that comparing with each finds was found. */
  @TearDown
  public void recall() {
    long expected = 0;
    long found = 0;
    for (int i = 0; i < COMPARED; i++) {
      String title = asked();
      expected += compared(title);
      found += index.near(title, Integer.MAX_VALUE).size();
    }
    System.out.printf(
        "near titles found: %d of %d (%.4f)%n", found, expected, (double) found / expected);
  }
}
