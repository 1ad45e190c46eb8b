package org.ysthmos.app.guard;

import java.time.InstantSource;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.guard.Uses.Bounded;
import org.ysthmos.app.guard.Uses.Use;
import org.ysthmos.app.store.InCommit;
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
  private final InCommit<Uses> uses;

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
    this.uses = new InCommit<>(Uses::new, this::write);
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
    return uses.with(
        open -> {
          Map<EffectKind, Long> used = new EnumMap<>(EffectKind.class);
          for (EffectKind kind : more.keySet()) {
            used.put(
                kind,
                open.used(
                    new Bounded(bridge, kind), () -> mapper.used(bridge, kind, grains.over(now))));
          }
          Optional<Ceiling.Passed> passed = ceiling.passedBy(used, more);
          if (passed.isEmpty()) {
            more.forEach(
                (kind, effects) -> {
                  open.add(
                      new Bounded(bridge, kind),
                      grains.at(now),
                      new Use(now, grains.over(now), effects));
                  counts.add(bridge, kind, effects);
                });
          }
          return passed;
        });
  }

  private void write(Uses open) {
    open.forEach(
        (bounded, grain, use) -> {
          if (mapper.use(bounded.bridge(), bounded.kind(), grain, use.now(), use.effects()) == 0) {
            mapper.forget(bounded.bridge(), bounded.kind(), use.over());
            mapper.useFirst(bounded.bridge(), bounded.kind(), grain, use.now(), use.effects());
          }
        });
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
