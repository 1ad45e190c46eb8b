package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.InCommit;
import org.ysthmos.app.trace.PlaceMapper.PlacedRow;
import org.ysthmos.app.trace.TraceMapper.NewTrace;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;

/**
 * From which of its places what a bridge carries came, so that it can be seen by place. Of bridges
 * that hear one collection nothing is kept.
 */
@Component
public class TracePlaces {

  private record Verdicts(String bridge, String collection, long slot, Verdict verdict) {}

  private record Effects(String bridge, String collection, long slot, EffectKind kind) {}

  /**
   * What became of what came from a place.
   *
   * @param bySlot how many traces came in each half hour, in order
   * @param effects how many effects of each kind came of it, since the moment that was asked for
   * @param last when the last came; null if none did
   */
  public record Seen(
      Map<Verdict, Integer> verdicts,
      List<Integer> bySlot,
      Map<EffectKind, Long> effects,
      long underWay,
      long needAPerson,
      @Nullable Instant last) {}

  private final PlaceMapper mapper;
  private final Bridges bridges;
  private final InCommit<Map<Verdicts, Integer>> verdicts =
      new InCommit<>(LinkedHashMap::new, this::writeVerdicts);
  private final InCommit<Map<Effects, Integer>> effects =
      new InCommit<>(LinkedHashMap::new, this::writeEffects);

  TracePlaces(PlaceMapper mapper, Bridges bridges) {
    this.mapper = mapper;
    this.bridges = bridges;
  }

  /** Takes down from where traces came that begin; inside the change that begins them. */
  public void begun(List<NewTrace> traces) {
    List<PlacedRow> rows = new ArrayList<>();
    for (NewTrace trace : traces) {
      collection(trace.bridgeId(), trace.orderKey())
          .map(place -> new PlacedRow(trace.seq(), trace.bridgeId(), place, trace.now()))
          .ifPresent(rows::add);
    }
    Chunks.each(rows, mapper::add);
  }

  /** Counts a trace that ended, inside the change that ends it. */
  void ended(TraceRow trace, Verdict verdict) {
    collection(trace.bridgeId(), trace.orderKey())
        .map(
            place ->
                new Verdicts(trace.bridgeId(), place, TraceEnds.slot(trace.receivedAt()), verdict))
        .ifPresent(
            one -> {
              int unused = verdicts.with(open -> open.merge(one, 1, Integer::sum));
            });
  }

  /** Counts effects that are decided; inside the change that stores them. */
  public void did(TraceRow trace, Map<EffectKind, Integer> more, Instant now) {
    collection(trace.bridgeId(), trace.orderKey())
        .ifPresent(
            place ->
                more.forEach(
                    (kind, number) -> {
                      Effects one = new Effects(trace.bridgeId(), place, TraceEnds.slot(now), kind);
                      int unused = effects.with(open -> open.merge(one, number, Integer::sum));
                    }));
  }

  /** The collection that a trace came from, if its bridge hears several places. */
  private Optional<String> collection(String bridge, String orderKey) {
    if (!bridges.hearsPlaces(bridge)) {
      return Optional.empty();
    }
    String[] place = orderKey.split("/", 3);
    return place.length < 2 ? Optional.empty() : Optional.of(place[1]);
  }

  private void writeVerdicts(Map<Verdicts, Integer> open) {
    open.forEach(
        (one, number) -> {
          if (mapper.count(one.bridge(), one.collection(), one.slot(), one.verdict(), number)
              == 0) {
            mapper.countFirst(one.bridge(), one.collection(), one.slot(), one.verdict(), number);
          }
        });
  }

  private void writeEffects(Map<Effects, Integer> open) {
    open.forEach(
        (one, number) -> {
          if (mapper.effect(one.bridge(), one.collection(), one.slot(), one.kind(), number) == 0) {
            mapper.effectFirst(one.bridge(), one.collection(), one.slot(), one.kind(), number);
          }
        });
  }

  /**
   * What became of what came from each of some places.
   *
   * @param first the half hour from which on traces are counted, and {@code last} the last
   * @param effectsSince from when on effects are counted
   */
  public Map<String, Seen> seen(
      String bridge, List<String> collections, long first, long last, Instant effectsSince) {
    Map<String, Map<Verdict, Integer>> came = new LinkedHashMap<>();
    Map<String, int[]> slots = new LinkedHashMap<>();
    int width = (int) (last - first + 1);
    for (PlaceMapper.VerdictRow row : mapper.since(bridge, first)) {
      came.computeIfAbsent(row.collectionId(), any -> new EnumMap<>(Verdict.class))
          .merge(row.verdict(), row.traces(), Integer::sum);
      if (row.slot() <= last) {
        slots
                .computeIfAbsent(row.collectionId(), any -> new int[width])[
                (int) (row.slot() - first)] +=
            row.traces();
      }
    }
    Map<String, Map<EffectKind, Long>> did = new LinkedHashMap<>();
    mapper
        .effects(bridge, TraceEnds.slot(effectsSince))
        .forEach(
            row ->
                did.computeIfAbsent(row.collectionId(), any -> new EnumMap<>(EffectKind.class))
                    .put(row.kind(), row.effects()));
    Map<String, Long> underWay = numbers(mapper.underWay(bridge));
    Map<String, Long> needAPerson = numbers(mapper.needAPerson(bridge));
    Map<String, Seen> seen = new LinkedHashMap<>();
    for (String one : collections) {
      seen.put(
          one,
          new Seen(
              came.getOrDefault(one, Map.of()),
              Arrays.stream(slots.getOrDefault(one, new int[width])).boxed().toList(),
              did.getOrDefault(one, Map.of()),
              underWay.getOrDefault(one, 0L),
              needAPerson.getOrDefault(one, 0L),
              mapper.newest(bridge, one)));
    }
    return seen;
  }

  private static Map<String, Long> numbers(List<PlaceMapper.CountRow> rows) {
    Map<String, Long> numbers = new LinkedHashMap<>();
    rows.forEach(row -> numbers.put(row.collectionId(), row.number()));
    return numbers;
  }
}
