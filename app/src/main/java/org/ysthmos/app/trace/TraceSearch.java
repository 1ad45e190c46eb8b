package org.ysthmos.app.trace;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.trace.TraceSearchMapper.Query;
import org.ysthmos.core.decide.Verdict;

/** Finds traces by bridge, end, time and any words seen. */
@Component
public class TraceSearch {

  /** Which ends are wanted. */
  enum Wanted {
    ALL,
    UNDER_WAY,
    /** Failed, and nobody has dealt with it. */
    NEEDS_A_PERSON,
    WITH_VERDICT
  }

  /**
   * @param place the id of the collection that they came from, of a bridge that hears several
   * @param verdict which one, if those with a verdict are wanted
   * @param text words that were seen; empty for any
   * @param before the order number of the last trace of the page before; null for the first page
   */
  record Wish(
      @Nullable String bridge,
      @Nullable String place,
      Wanted wanted,
      @Nullable Verdict verdict,
      Instant since,
      Instant until,
      String text,
      @Nullable Long before) {}

  /**
   * By how much times may run against order numbers: those of two that came at once by a little,
   * those of a clock that was ahead by as much as it was.
   */
  private static final Duration DISORDER = Duration.ofDays(2);

  private final TraceSearchMapper mapper;
  private final TraceMapper traces;
  private final SeenIndex seen;

  TraceSearch(TraceSearchMapper mapper, TraceMapper traces, SeenIndex seen) {
    this.mapper = mapper;
    this.traces = traces;
    this.seen = seen;
  }

  /** The newest traces in which some words were seen, the newest first. */
  public List<TraceRow> newest(String text, Instant since, Instant until, int limit) {
    return text.isBlank()
        ? List.of()
        : byText(new Wish(null, null, Wanted.ALL, null, since, until, text, null), limit);
  }

  /** The traces of a page, the newest first. */
  List<TraceRow> page(Wish wish, int limit) {
    if (!wish.text().isBlank()) {
      return byText(wish, limit);
    }
    Query query = query(wish, limit);
    if (wish.bridge() != null && wish.place() != null) {
      return mapper.ofPlace(query, wish.place(), wish.wanted() == Wanted.NEEDS_A_PERSON);
    }
    return wish.wanted() == Wanted.NEEDS_A_PERSON ? mapper.needsAPerson(query) : mapper.page(query);
  }

  private Query query(Wish wish, int limit) {
    Long seq = wish.before();
    Instant before = seq == null ? null : traces.receivedAt(seq);
    return new Query(
        wish.bridge(),
        wish.verdict(),
        wish.wanted() == Wanted.UNDER_WAY,
        wish.since(),
        before == null ? wish.until() : before,
        before == null || seq == null ? Long.MAX_VALUE : seq,
        limit);
  }

  private List<TraceRow> byText(Wish wish, int limit) {
    Long first = traces.firstSince(wish.since().minus(DISORDER));
    if (first == null) {
      return List.of();
    }
    Map<Long, TraceRow> rows = new HashMap<>();
    Predicate<TraceRow> fits = row -> fits(row, wish);
    long before = wish.before() == null ? Long.MAX_VALUE : wish.before();
    List<Long> found =
        seen.find(
            wish.text(),
            first,
            before,
            some -> {
              List<Long> counting = new ArrayList<>();
              for (TraceRow row : traces.of(some)) {
                if (fits.test(row)) {
                  rows.put(row.seq(), row);
                  counting.add(row.seq());
                }
              }
              return counting;
            },
            limit);
    return found.stream()
        .sorted(Comparator.reverseOrder())
        .map(seq -> Objects.requireNonNull(rows.get(seq)))
        .toList();
  }

  private boolean fits(TraceRow row, Wish wish) {
    boolean inTime =
        !row.receivedAt().isBefore(wish.since()) && !row.receivedAt().isAfter(wish.until());
    boolean ofBridge = wish.bridge() == null || wish.bridge().equals(row.bridgeId());
    boolean ofPlace = wish.place() == null || row.orderKey().contains("/" + wish.place() + "/");
    return inTime
        && ofBridge
        && ofPlace
        && switch (wish.wanted()) {
          case ALL -> true;
          case UNDER_WAY -> row.verdict() == null;
          case WITH_VERDICT -> row.verdict() == wish.verdict();
          case NEEDS_A_PERSON -> mapper.needsAPersonNow(row.seq()) > 0;
        };
  }
}
