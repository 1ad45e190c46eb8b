package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntConsumer;

/**
 * Finds the texts that can be nearly equal to one, by the pieces of three characters (trigrams)
 * that they share. No text that is alike is missed:
 *
 * <ul>
 *   <li>Two texts at an edit distance of d share at least {@code max(n, m) + 2 - 3d} of their
 *       trigrams, counted with their ends padded (Ukkonen, “Approximate string-matching with
 *       q-grams and maximal matches”, 1992).
 *   <li>Two sets that share at least t of their pieces share one among the {@code n - t + 1} first
 *       of each, in whatever order all pieces are brought (prefix filter: Chaudhuri, Ganti,
 *       Kaushik, “A primitive operator for similarity joins in data cleaning”, 2006). With the
 *       rarest first, few texts share one.
 * </ul>
 *
 * <p>Most of what shares one has little else in common. That is told by signatures: each trigram
 * sets one of 256 bits, and of two texts at a distance of d at most 3d bits of the one lack in the
 * other.
 */
final class GramIndex {

  private static final int[] NONE = {};

  /** How many words of 64 bits a signature has. */
  private static final int SIGNATURE = 4;

  /** The order of the pieces is reckoned anew whenever there are so many times as many texts. */
  private static final int GROWTH = 4;

  private final Map<Long, int[]> postings = new HashMap<>();
  private final Map<Long, Integer> frequencies = new HashMap<>();
  private final List<String> texts = new ArrayList<>();

  /** Of each text, its signature and its length: what most candidates are refused by. */
  private long[] signatures = new long[SIGNATURE * 64];

  private int[] lengths = new int[64];
  private int ordered = 250;

  /** Adds a text; they are numbered from 0 as they come. */
  void add(String text) {
    texts.add(text);
    int number = texts.size() - 1;
    if (number == lengths.length) {
      lengths = Arrays.copyOf(lengths, 2 * number);
      signatures = Arrays.copyOf(signatures, 2 * SIGNATURE * number);
    }
    lengths[number] = text.length();
    System.arraycopy(signature(text), 0, signatures, SIGNATURE * number, SIGNATURE);
    if (texts.size() > GROWTH * ordered) {
      order();
    } else {
      post(texts.size() - 1);
    }
  }

  private void order() {
    ordered = texts.size();
    frequencies.clear();
    postings.clear();
    for (String text : texts) {
      for (long gram : grams(text)) {
        int unused = frequencies.merge(gram, 1, Integer::sum);
      }
    }
    for (int i = 0; i < texts.size(); i++) {
      post(i);
    }
  }

  /** The first element of what is posted says how many there are. */
  private void post(int number) {
    for (long gram : prefix(texts.get(number))) {
      int[] posted = postings.getOrDefault(gram, new int[2]);
      int count = posted[0] + 1;
      if (count == posted.length) {
        posted = Arrays.copyOf(posted, posted.length * 2);
      }
      posted[0] = count;
      posted[count] = number;
      postings.put(gram, posted);
    }
  }

  /** Gives the numbers of the texts that may be alike, among them all that are. */
  void candidates(String text, IntConsumer found) {
    long[] signature = signature(text);
    BitSet seen = new BitSet(texts.size());
    for (long gram : prefix(text)) {
      int[] posted = postings.getOrDefault(gram, NONE);
      for (int i = 1; i < posted.length && i <= posted[0]; i++) {
        int number = posted[i];
        if (!seen.get(number)) {
          seen.set(number);
          if (mayBeAlike(text.length(), signature, number)) {
            found.accept(number);
          }
        }
      }
    }
  }

  private boolean mayBeAlike(int length, long[] signature, int number) {
    int edits = TitleLikeness.mostEdits(Math.max(length, lengths[number]));
    if (Math.abs(length - lengths[number]) > edits) {
      return false;
    }
    int lacks = 0;
    int more = 0;
    for (int i = 0; i < SIGNATURE; i++) {
      long other = signatures[SIGNATURE * number + i];
      lacks += Long.bitCount(signature[i] & ~other);
      more += Long.bitCount(other & ~signature[i]);
    }
    return lacks <= 3 * edits && more <= 3 * edits;
  }

  private static long[] signature(String text) {
    long[] signature = new long[SIGNATURE];
    for (long gram : grams(text)) {
      int bit = (int) ((gram * 0x9E3779B97F4A7C15L) >>> 56);
      signature[bit >> 6] |= 1L << bit;
    }
    return signature;
  }

  private long[] prefix(String text) {
    Long[] grams = Arrays.stream(grams(text)).boxed().toArray(Long[]::new);
    Arrays.sort(
        grams,
        Comparator.<Long>comparingInt(gram -> frequencies.getOrDefault(gram, 0))
            .thenComparing(Comparator.naturalOrder()));
    int length = Math.min(grams.length, grams.length - leastShared(text.length()) + 1);
    long[] prefix = new long[Math.max(0, length)];
    for (int i = 0; i < prefix.length; i++) {
      prefix[i] = grams[i];
    }
    return prefix;
  }

  /** How many trigrams a text shares at the least with any other that is alike. */
  private static int leastShared(int length) {
    int least = Integer.MAX_VALUE;
    for (int longer = length; longer - TitleLikeness.mostEdits(longer) <= length; longer++) {
      least = Math.min(least, longer + 2 - 3 * TitleLikeness.mostEdits(longer));
    }
    return Math.max(1, least);
  }

  /** The trigrams of a text with padded ends; what comes again is told apart by its count. */
  static long[] grams(String text) {
    String padded = "\0\0" + text + "\0\0";
    long[] grams = new long[text.length() + 2];
    Map<Long, Integer> times = new HashMap<>();
    for (int i = 0; i < grams.length; i++) {
      long gram =
          (long) padded.charAt(i) << 32 | (long) padded.charAt(i + 1) << 16 | padded.charAt(i + 2);
      grams[i] = gram | (long) (times.merge(gram, 1, Integer::sum) - 1) << 48;
    }
    return grams;
  }
}
