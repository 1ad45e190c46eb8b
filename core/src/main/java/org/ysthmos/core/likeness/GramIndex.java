package org.ysthmos.core.likeness;

import java.util.ArrayList;
import java.util.Arrays;
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
 *   <li>Two sets that share at least t of their pieces share k among the {@code n - t + k} first of
 *       each, in whatever order all pieces are brought (prefix filter: Chaudhuri, Ganti, Kaushik,
 *       “A primitive operator for similarity joins in data cleaning”, 2006; with k: Wang, Li, Feng,
 *       “Can we beat the prefix filtering?”, 2012). With the rarest first, few texts share as many.
 *   <li>Those that they share stand no further apart in them than d (Gravano and others,
 *       “Approximate string joins in a database (almost) for free”, 2001), where a piece comes but
 *       once in each.
 * </ul>
 *
 * <p>Most of what shares them has little else in common. That is told by signatures: each trigram
 * sets one of 512 bits, and of two texts at a distance of d at most 3d bits of the one lack in the
 * other.
 */
final class GramIndex {

  private static final int[] NONE = {};

  /** How many of their rarest pieces two texts share that are alike; all that are share as many. */
  private static final int SHARED = 3;

  /** How many words of 64 bits a signature has. */
  private static final int SIGNATURE = 8;

  /** In what is posted, the lowest bits say where in the text the piece stands. */
  private static final int PLACE_BITS = 8;

  private static final int PLACES = (1 << PLACE_BITS) - 1;

  /** Of a piece that comes more than once in a text it is not told where it stands. */
  private static final int ANYWHERE = PLACES;

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
    System.arraycopy(signature(grams(text)), 0, signatures, SIGNATURE * number, SIGNATURE);
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
      for (Gram gram : grams(text)) {
        int unused = frequencies.merge(gram.piece(), 1, Integer::sum);
      }
    }
    for (int i = 0; i < texts.size(); i++) {
      post(i);
    }
  }

  /** The first element of what is posted says how many there are. */
  private void post(int number) {
    for (Gram gram : prefix(grams(texts.get(number)), texts.get(number).length())) {
      int[] posted = postings.getOrDefault(gram.piece(), new int[2]);
      int count = posted[0] + 1;
      if (count == posted.length) {
        posted = Arrays.copyOf(posted, posted.length * 2);
      }
      posted[0] = count;
      posted[count] = number << PLACE_BITS | gram.place();
      postings.put(gram.piece(), posted);
    }
  }

  /** Gives the numbers of the texts that may be alike, among them all that are. */
  void candidates(String text, IntConsumer found) {
    List<Gram> grams = grams(text);
    long[] signature = signature(grams);
    int apart = TitleLikeness.mostEdits(longest(text.length()));
    byte[] shared = new byte[texts.size()];
    for (Gram gram : prefix(grams, text.length())) {
      int[] posted = postings.getOrDefault(gram.piece(), NONE);
      for (int i = 1; i < posted.length && i <= posted[0]; i++) {
        int number = posted[i] >> PLACE_BITS;
        if (mayBeTheSame(gram.place(), posted[i] & PLACES, apart)
            && ++shared[number] == SHARED
            && mayBeAlike(text.length(), signature, number)) {
          found.accept(number);
        }
      }
    }
  }

  private static boolean mayBeTheSame(int place, int other, int apart) {
    return Math.abs(place - other) <= apart || place == ANYWHERE || other == ANYWHERE;
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

  private static long[] signature(List<Gram> grams) {
    long[] signature = new long[SIGNATURE];
    for (Gram gram : grams) {
      int bit = (int) ((gram.piece() * 0x9E3779B97F4A7C15L) >>> 55);
      signature[bit >> 6] |= 1L << bit;
    }
    return signature;
  }

  /** Those of a text by which it is found: its rarest. */
  private List<Gram> prefix(List<Gram> grams, int length) {
    List<Gram> rarest = new ArrayList<>(grams);
    rarest.sort(
        Comparator.comparingInt((Gram gram) -> frequencies.getOrDefault(gram.piece(), 0))
            .thenComparingLong(Gram::piece));
    return rarest.subList(0, Math.min(grams.size(), grams.size() - leastShared(length) + SHARED));
  }

  /** The length of the longest text that can be alike to one of this length. */
  private static int longest(int length) {
    int longest = length;
    while (longest + 1 - TitleLikeness.mostEdits(longest + 1) <= length) {
      longest++;
    }
    return longest;
  }

  /** How many trigrams a text shares at the least with any other that is alike. */
  private static int leastShared(int length) {
    int least = Integer.MAX_VALUE;
    for (int longer = length; longer <= longest(length); longer++) {
      least = Math.min(least, longer + 2 - 3 * TitleLikeness.mostEdits(longer));
    }
    return Math.max(SHARED, least);
  }

  /**
   * A trigram of a text.
   *
   * @param piece its characters; what comes again in a text is told apart by its count
   * @param place where it stands in the text
   */
  record Gram(long piece, int place) {}

  /** The trigrams of a text with padded ends. */
  static List<Gram> grams(String text) {
    String padded = "\0\0" + text + "\0\0";
    Map<Long, Integer> times = new HashMap<>();
    long[] pieces = new long[text.length() + 2];
    int[] counts = new int[pieces.length];
    for (int i = 0; i < pieces.length; i++) {
      pieces[i] =
          (long) padded.charAt(i) << 32 | (long) padded.charAt(i + 1) << 16 | padded.charAt(i + 2);
      counts[i] = times.merge(pieces[i], 1, Integer::sum) - 1;
    }
    List<Gram> grams = new ArrayList<>(pieces.length);
    for (int i = 0; i < pieces.length; i++) {
      boolean once = Integer.valueOf(1).equals(times.get(pieces[i]));
      grams.add(
          new Gram(pieces[i] | (long) counts[i] << 48, once ? Math.min(i, ANYWHERE) : ANYWHERE));
    }
    return grams;
  }
}
