package org.ysthmos.app.guard;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.InCommit;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.BusyPast;
import org.ysthmos.core.guard.Ceiling;

/** How many effects bridges had, half hour by half hour. */
@Component
public class EffectCounts {

  /** How far back a bridge's busiest time is looked for. */
  private static final Duration PAST = Duration.ofDays(30);

  private static final Duration DAY = Duration.ofDays(1);
  private static final Duration BEFORE_TODAY = DAY.multipliedBy(29);

  private final EffectMapper mapper;
  private final InstantSource clock;
  private final InCommit<Map<Counted, Integer>> sums =
      new InCommit<>(LinkedHashMap::new, this::write);

  private record Counted(String bridge, EffectKind kind, long slot) {}

  EffectCounts(EffectMapper mapper, InstantSource clock) {
    this.mapper = mapper;
    this.clock = clock;
  }

  /** Counts effects that are decided; inside a change. */
  void add(String bridge, EffectKind kind, int effects) {
    Counted counted = new Counted(bridge, kind, slot(clock.instant()));
    int unused = sums.with(open -> open.merge(counted, effects, Integer::sum));
  }

  private void write(Map<Counted, Integer> open) {
    open.forEach(
        (one, effects) -> {
          if (mapper.count(one.bridge(), one.kind(), one.slot(), effects) == 0) {
            mapper.countFirst(one.bridge(), one.kind(), one.slot(), effects);
          }
        });
  }

  /**
   * The busiest span of a bridge's last thirty days, for each kind of effect.
   *
   * @param span how long
   */
  public Map<EffectKind, BusyPast> busiest(String bridge, Duration span) {
    long since = slot(clock.instant().minus(PAST));
    Map<EffectKind, BusyPast> busiest = new EnumMap<>(EffectKind.class);
    for (EffectKind kind : Ceiling.KINDS) {
      List<BusyPast.Slot> slots =
          mapper.past(bridge, kind, since).stream()
              .map(row -> new BusyPast.Slot(start(row.at()), row.effects()))
              .toList();
      busiest.put(kind, BusyPast.of(slots, span));
    }
    return busiest;
  }

  /**
   * How much of a kind a bridge did of late.
   *
   * @param lastDay in the 24 hours until now
   * @param usual in a day of the four weeks before those, on average from the first that it had
   *     any; empty if that is not two days earlier
   */
  public record Lately(long lastDay, Optional<Double> usual) {}

  /** How much of a kind a bridge did of late, against what is usual. */
  public Lately lately(String bridge, EffectKind kind) {
    Instant now = clock.instant();
    long today = slot(now.minus(DAY)) + 1;
    long last = 0;
    long before = 0;
    long first = today;
    for (EffectMapper.CountRow row : mapper.past(bridge, kind, slot(now.minus(BEFORE_TODAY)))) {
      first = Math.min(first, row.at());
      if (row.at() >= today) {
        last += row.effects();
      } else {
        before += row.effects();
      }
    }
    double days = (double) (today - first) / DAY.dividedBy(BusyPast.SLOT);
    return new Lately(last, days < 2 ? Optional.empty() : Optional.of(before / days));
  }

  /** How much of a kind a bridge did since a moment, to the half hour. */
  public long since(String bridge, EffectKind kind, Instant since) {
    return mapper.past(bridge, kind, slot(since)).stream()
        .mapToLong(EffectMapper.CountRow::effects)
        .sum();
  }

  private static long slot(Instant at) {
    return Math.floorDiv(at.getEpochSecond(), BusyPast.SLOT.toSeconds());
  }

  private static Instant start(long slot) {
    return Instant.ofEpochSecond(slot * BusyPast.SLOT.toSeconds());
  }
}
