package org.ysthmos.app.search;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.NavigableSet;
import java.util.SequencedMap;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.search.SeenMapper.NewSegment;
import org.ysthmos.app.search.SeenMapper.SegmentRow;
import org.ysthmos.app.search.SeenMapper.WordsRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.core.search.SeenSegment;
import org.ysthmos.core.search.SeenWords;

/**
 * Finds traces by the words that were seen in them. The words of new traces stand in rows; when
 * enough traces have ended, theirs go into a segment, so that writing costs little and finding
 * reads one page of each segment.
 */
@Component
public class SeenIndex {

  /** How many traces a segment takes. */
  static final int SEGMENT = 4096;

  private static final int LONGEST_WORDS = 8000;

  private final SeenMapper mapper;
  private final Journal journal;
  private final DiskRoom room;

  SeenIndex(SeenMapper mapper, Journal journal, DiskRoom room) {
    this.mapper = mapper;
    this.journal = journal;
    this.room = room;
  }

  /** The words of a trace, as they are kept. */
  public static WordsOf words(long trace, String text) {
    String words = text.toLowerCase(java.util.Locale.ROOT);
    return new WordsOf(
        trace, words.length() <= LONGEST_WORDS ? words : words.substring(0, LONGEST_WORDS));
  }

  /** The words that were seen in a trace. */
  public record WordsOf(long trace, String words) {}

  /** Keeps the words of traces that begin; inside a change. */
  public void add(List<WordsOf> words) {
    mapper.add(words.stream().map(one -> new WordsRow(one.trace(), one.words())).toList());
  }

  /** Keeps more words of a trace, in place of those before; inside a change. */
  public void replace(WordsOf words) {
    WordsRow row = new WordsRow(words.trace(), words.words());
    if (mapper.replace(row) == 0) {
      mapper.add(List.of(row));
    }
  }

  /** Puts the words of traces that have ended into segments. */
  @Scheduled(fixedDelay = 5_000)
  public void settle() {
    if (!room.isEnough()) {
      return;
    }
    while (mapper.waiting() >= SEGMENT * 2) {
      List<WordsRow> rows = mapper.ended(SEGMENT);
      if (rows.size() < SEGMENT) {
        return;
      }
      SequencedMap<Long, String> texts = new LinkedHashMap<>();
      rows.forEach(row -> texts.put(row.traceSeq(), row.words()));
      SeenSegment segment = SeenSegment.of(texts);
      journal.runSoon(() -> keep(segment));
    }
  }

  private void keep(SeenSegment segment) {
    long[] members = segment.members();
    ByteBuffer bytes = ByteBuffer.allocate(members.length * Long.BYTES);
    bytes.asLongBuffer().put(members);
    NewSegment row = new NewSegment(members[0], members[members.length - 1], bytes.array());
    mapper.addSegment(row);
    for (int page = 0; page < SeenSegment.PAGES; page++) {
      mapper.addPage(row.id, page, segment.pages().get(page));
    }
    List<Long> gone = java.util.Arrays.stream(members).boxed().toList();
    for (int at = 0; at < gone.size(); at += 512) {
      mapper.remove(gone.subList(at, Math.min(gone.size(), at + 512)));
    }
  }

  /**
   * The newest traces that have all words of a query.
   *
   * @param from the lowest order number that counts
   * @param before an order number above those that count
   * @param counts whether a trace is wanted, given some of those that have the words
   * @param limit how many are wanted at the most
   * @return order numbers, the highest first
   */
  public List<Long> find(String query, long from, long before, Wanted counts, int limit) {
    Set<String> asked = SeenWords.asked(query);
    if (asked.isEmpty()) {
      return List.of();
    }
    NavigableSet<Long> found = new TreeSet<>(Comparator.reverseOrder());
    take(recent(asked, from, before), counts, found, limit);
    for (SegmentRow segment : mapper.segments(from, before)) {
      if (found.size() >= limit && nth(found, limit) > segment.lastSeq()) {
        break;
      }
      take(inSegment(segment, asked, from, before), counts, found, limit);
    }
    return found.stream().limit(limit).toList();
  }

  /** Which of some traces are wanted. */
  @FunctionalInterface
  public interface Wanted {
    List<Long> among(List<Long> traces);
  }

  private static long nth(NavigableSet<Long> found, int n) {
    return found.stream().skip(n - 1L).findFirst().orElseThrow();
  }

  /** Goes through those that have the words, the newest first, until enough of them are wanted. */
  private static void take(
      List<Long> newestFirst, Wanted counts, NavigableSet<Long> found, int limit) {
    int taken = 0;
    for (int at = 0; at < newestFirst.size() && taken < limit; at += 100) {
      List<Long> wanted =
          counts.among(newestFirst.subList(at, Math.min(newestFirst.size(), at + 100)));
      found.addAll(wanted);
      taken += wanted.size();
    }
  }

  private List<Long> recent(Set<String> asked, long from, long before) {
    String rarest = asked.stream().max(Comparator.comparingInt(String::length)).orElseThrow();
    Predicate<WordsRow> hasAll = row -> SeenWords.of(row.words()).containsAll(asked);
    return mapper.with(rarest, from, before).stream()
        .filter(hasAll)
        .map(WordsRow::traceSeq)
        .toList();
  }

  private List<Long> inSegment(SegmentRow segment, Set<String> asked, long from, long before) {
    Set<Integer> places = null;
    for (String word : asked) {
      long hash = SeenSegment.hash(word);
      SeenMapper.BytesRow page = mapper.page(segment.id(), SeenSegment.page(hash));
      int[] with = page == null ? new int[0] : SeenSegment.find(page.bytes(), hash);
      Set<Integer> these = new TreeSet<>(IntStream.of(with).boxed().toList());
      if (places == null) {
        places = these;
      } else {
        places.retainAll(these);
      }
      if (places.isEmpty()) {
        return List.of();
      }
    }
    ByteBuffer members = ByteBuffer.wrap(mapper.members(segment.id()).bytes());
    List<Long> traces = new ArrayList<>();
    for (int place : places == null ? Set.<Integer>of() : places) {
      long trace = members.getLong(place * Long.BYTES);
      if (trace >= from && trace < before) {
        traces.add(trace);
      }
    }
    traces.sort(Comparator.reverseOrder());
    return traces;
  }

  /** Forgets what was seen in traces that are purged; inside a change. */
  public void forgetBefore(long trace) {
    mapper.forgetPages(trace);
    mapper.forgetSegments(trace);
  }
}
