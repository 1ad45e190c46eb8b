package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SequencedMap;
import java.util.stream.IntStream;

/**
 * The titles of tasks, and which of them are nearly equal to another. It holds so many at the most;
 * beyond that, those that came first are forgotten. Safe for several threads.
 *
 * @param <K> what a title is known by; usable as the key of a hash map
 */
public final class TitleIndex<K> {

  /**
   * A title that is nearly equal.
   *
   * @param title as it was given
   */
  public record Near<K>(K key, String title, TitleLikeness likeness) {}

  private record Entry<K>(K key, String title, PlainTitle plain) {}

  private final int most;
  private final SequencedMap<K, Integer> numbers = new LinkedHashMap<>();
  private List<Entry<K>> entries = new ArrayList<>();

  /** By the marks of their titles. */
  private final Map<List<String>, TitleGroup> groups = new HashMap<>();

  /**
   * @param most how many titles it holds, at least 1
   */
  public TitleIndex(int most) {
    this.most = most;
  }

  /** Adds a title, or puts it in place of what was known by the same key. */
  public synchronized void put(K key, String title) {
    PlainTitle plain = PlainTitle.of(title);
    Integer before = numbers.get(key);
    if (before != null && Objects.requireNonNull(entries.get(before)).title().equals(title)) {
      return;
    }
    remove(key);
    if (plain.isBlank()) {
      return;
    }
    if (numbers.size() == most) {
      remove(numbers.firstEntry().getKey());
    }
    numbers.put(key, entries.size());
    add(new Entry<>(key, title, plain));
    // What was removed leaves gaps, which are closed when they are more than what is there.
    if (entries.size() > 1000 && entries.size() > 2 * numbers.size()) {
      closeGaps();
    }
  }

  /** Adds a title, unless one of this key is there or there is no room. */
  public synchronized void putIfNew(K key, String title) {
    if (numbers.size() < most && !numbers.containsKey(key)) {
      put(key, title);
    }
  }

  private void add(Entry<K> entry) {
    groups
        .computeIfAbsent(entry.plain().marks(), any -> new TitleGroup())
        .add(entries.size(), entry.plain());
    entries.add(entry);
  }

  private void closeGaps() {
    List<Entry<K>> kept =
        IntStream.range(0, entries.size()).filter(this::isThere).mapToObj(entries::get).toList();
    entries = new ArrayList<>(kept.size());
    groups.clear();
    for (Entry<K> entry : kept) {
      numbers.put(entry.key(), entries.size());
      add(entry);
    }
  }

  private boolean isThere(int number) {
    return Integer.valueOf(number).equals(numbers.get(entries.get(number).key()));
  }

  /** Forgets a title; nothing happens if there is none of this key. */
  public synchronized void remove(K key) {
    Integer unused = numbers.remove(key);
  }

  public synchronized int size() {
    return numbers.size();
  }

  /**
   * The titles that are nearly equal to one, the most alike first.
   *
   * @param limit how many at the most
   */
  public synchronized List<Near<K>> near(String title, int limit) {
    PlainTitle plain = PlainTitle.of(title);
    TitleGroup group = groups.get(plain.marks());
    if (plain.isBlank() || group == null) {
      return List.of();
    }
    Map<K, Near<K>> near = new HashMap<>();
    TitleComparison compared = new TitleComparison(plain);
    group.candidates(plain, number -> compare(compared, number, near));
    return near.values().stream()
        .sorted(
            Comparator.comparingDouble((Near<K> one) -> one.likeness().score())
                .reversed()
                .thenComparing(one -> numbers.get(one.key()), Comparator.reverseOrder()))
        .limit(limit)
        .toList();
  }

  private void compare(TitleComparison compared, int number, Map<K, Near<K>> near) {
    Entry<K> entry = entries.get(number);
    compared
        .with(entry.plain())
        .filter(any -> isThere(number))
        .ifPresent(
            likeness -> near.put(entry.key(), new Near<>(entry.key(), entry.title(), likeness)));
  }
}
