package org.ysthmos.app.guard;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.LongSupplier;
import org.ysthmos.core.delivery.EffectKind;

/**
 * What the changes of one commit use of ceilings. What was used before them is read once: it can
 * only become less while they are made, so that nothing passes a ceiling by it.
 */
final class Uses {

  /** What is counted apart. */
  record Bounded(String bridge, EffectKind kind) {}

  /**
   * Effects of one grain.
   *
   * @param now when the newest of them was
   * @param over what was at this moment or before counted no more by then
   */
  record Use(long now, long over, int effects) {

    private Use and(Use later) {
      return new Use(Math.max(now, later.now), Math.max(over, later.over), effects + later.effects);
    }
  }

  /** Writes down the effects of a grain. */
  interface Writer {
    void write(Bounded bounded, long grain, Use use);
  }

  private record Grain(Bounded bounded, long at) {}

  private final Map<Bounded, Long> used = new HashMap<>();
  private final Map<Grain, Use> added = new LinkedHashMap<>();

  /** How much was used before and is by these changes. */
  long used(Bounded bounded, LongSupplier before) {
    return used.computeIfAbsent(bounded, first -> before.getAsLong());
  }

  void add(Bounded bounded, long grain, Use use) {
    used.merge(bounded, (long) use.effects(), Long::sum);
    added.merge(new Grain(bounded, grain), use, Use::and);
  }

  void forEach(Writer writer) {
    added.forEach((grain, use) -> writer.write(grain.bounded(), grain.at(), use));
  }
}
