package org.ysthmos.core.search;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;

/**
 * Which of some thousand texts have a word. A segment is written once and never changed: its words
 * are hashed to 64 bits, parted into pages by their first bits, and sorted, so that a word is found
 * by reading one small page. An inverted index in segments is how search engines write much and
 * read quickly; common practice, no source.
 *
 * @param members the numbers of the texts, in the order in which entries count them
 * @param pages the entries, by the first bits of their hashes
 */
public record SeenSegment(long[] members, List<byte[]> pages) {

  /** How many texts a segment may have, as an entry counts them in two bytes. */
  public static final int MOST_MEMBERS = 1 << 15;

  /** How many pages a segment has. */
  public static final int PAGES = 64;

  private static final int ENTRY = Long.BYTES + Short.BYTES;

  private record Entry(long hash, int member) {}

  /**
   * @param texts each text by its number
   * @throws IllegalArgumentException if there are none, or more than a segment can have
   */
  public static SeenSegment of(SequencedMap<Long, String> texts) {
    if (texts.isEmpty() || texts.size() > MOST_MEMBERS) {
      throw new IllegalArgumentException(
          "a segment has 1 to " + MOST_MEMBERS + " texts, found " + texts.size());
    }
    List<List<Entry>> pages = new ArrayList<>();
    for (int i = 0; i < PAGES; i++) {
      pages.add(new ArrayList<>());
    }
    long[] members = new long[texts.size()];
    int member = 0;
    for (Map.Entry<Long, String> text : texts.sequencedEntrySet()) {
      members[member] = text.getKey();
      for (String word : SeenWords.of(text.getValue())) {
        long hash = hash(word);
        pages.get(page(hash)).add(new Entry(hash, member));
      }
      member++;
    }
    return new SeenSegment(members, pages.stream().map(SeenSegment::written).toList());
  }

  private static byte[] written(List<Entry> entries) {
    entries.sort(
        (one, other) ->
            one.hash() == other.hash()
                ? Integer.compare(one.member(), other.member())
                : Long.compareUnsigned(one.hash(), other.hash()));
    ByteBuffer page = ByteBuffer.allocate(entries.size() * ENTRY);
    entries.forEach(entry -> page.putLong(entry.hash()).putShort((short) entry.member()));
    return page.array();
  }

  /** Which page has the entries of a hash. */
  public static int page(long hash) {
    return (int) (hash >>> (Long.SIZE - 6));
  }

  /**
   * The places of the texts that have a word, in the order of members.
   *
   * @param page the page of the word's hash
   */
  public static int[] find(byte[] page, long hash) {
    ByteBuffer entries = ByteBuffer.wrap(page);
    int low = 0;
    int high = page.length / ENTRY;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (Long.compareUnsigned(entries.getLong(middle * ENTRY), hash) < 0) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    int[] found = new int[16];
    int count = 0;
    for (int at = low; at < page.length / ENTRY && entries.getLong(at * ENTRY) == hash; at++) {
      if (count == found.length) {
        found = Arrays.copyOf(found, count * 2);
      }
      found[count++] = entries.getShort(at * ENTRY + Long.BYTES) & 0xffff;
    }
    return Arrays.copyOf(found, count);
  }

  /**
   * The hash of a word: FNV-1a of its characters, then mixed, so that its first bits differ too.
   * Both from memory.
   */
  public static long hash(String word) {
    long hash = 0xcbf29ce484222325L;
    for (int i = 0; i < word.length(); i++) {
      hash = (hash ^ word.charAt(i)) * 0x100000001b3L;
    }
    hash = (hash ^ (hash >>> 30)) * 0xbf58476d1ce4e5b9L;
    hash = (hash ^ (hash >>> 27)) * 0x94d049bb133111ebL;
    return hash ^ (hash >>> 31);
  }
}
