package org.ysthmos.app.guard;

import java.time.InstantSource;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.guard.CountGrains;

/**
 * Holds bridges to their ceilings. What a bridge does is counted in the very change that stores its
 * deliveries, so that neither workers side by side nor a kill come between looking and counting. It
 * is counted in steady time: in no span of that length does a bridge more than its ceiling, unless
 * a person released it meanwhile.
 */
@Component
public class Ceilings {

  private final EffectMapper mapper;
  private final EffectCounts counts;
  private final SteadyTime time;

  @Autowired
  Ceilings(EffectMapper mapper, EffectCounts counts, AppClock clock, Settings settings) {
    this(mapper, counts, clock, settings.settableClock(), System::nanoTime);
  }

  Ceilings(
      EffectMapper mapper,
      EffectCounts counts,
      InstantSource clock,
      boolean settable,
      LongSupplier nanos) {
    this.mapper = mapper;
    this.counts = counts;
    // What went by before this start is not known, so that nothing did.
    this.time = new SteadyTime(clock, settable, nanos, mapper.newest());
  }

  /**
   * Counts what a bridge is to do, unless its ceiling would be passed; inside the change that
   * stores it.
   *
   * @return what would pass; nothing is counted then. Empty if it may be done
   */
  public Optional<Ceiling.Passed> take(
      String bridge, Ceiling ceiling, Map<EffectKind, Integer> more) {
    CountGrains grains = CountGrains.of(ceiling.per());
    long now = time.now();
    Optional<Ceiling.Passed> passed = ceiling.passedBy(used(bridge, grains, now, more), more);
    if (passed.isEmpty()) {
      more.forEach(
          (kind, effects) -> {
            count(bridge, kind, grains, now, effects);
            counts.add(bridge, kind, effects);
          });
    }
    return passed;
  }

  private Map<EffectKind, Long> used(
      String bridge, CountGrains grains, long now, Map<EffectKind, Integer> kinds) {
    Map<EffectKind, Long> used = new EnumMap<>(EffectKind.class);
    for (EffectKind kind : kinds.keySet()) {
      used.put(kind, mapper.used(bridge, kind, grains.over(now)));
    }
    return used;
  }

  private void count(String bridge, EffectKind kind, CountGrains grains, long now, int effects) {
    long grain = grains.at(now);
    if (mapper.use(bridge, kind, grain, now, effects) == 0) {
      mapper.forget(bridge, kind, grains.over(now));
      mapper.useFirst(bridge, kind, grain, now, effects);
    }
  }

  /** How much a bridge did in the span that ends now, for each kind that is bounded. */
  public Map<EffectKind, Long> used(String bridge, Ceiling ceiling) {
    Map<EffectKind, Long> used = new EnumMap<>(EffectKind.class);
    CountGrains grains = CountGrains.of(ceiling.per());
    long over = grains.over(time.now());
    for (EffectKind kind : Ceiling.KINDS) {
      used.put(kind, mapper.used(bridge, kind, over));
    }
    return used;
  }

  /** A person lets a bridge go on that its ceiling held: what it did before counts no more. */
  public void clear(String bridge) {
    mapper.clear(bridge);
  }
}
