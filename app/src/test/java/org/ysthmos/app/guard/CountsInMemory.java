package org.ysthmos.app.guard;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.ysthmos.core.delivery.EffectKind;

/** The counts of a database that commits when it is told to, and forgets the rest in a crash. */
final class CountsInMemory implements EffectMapper {

  private record Key(String bridge, EffectKind kind, long grain) {}

  private record Use(long newest, long effects) {}

  private Map<Key, Use> committed = new HashMap<>();
  private Map<Key, Use> uses = new HashMap<>();

  void commit() {
    committed = new HashMap<>(uses);
  }

  void crash() {
    uses = new HashMap<>(committed);
  }

  @Override
  public long newest() {
    return uses.values().stream().mapToLong(Use::newest).max().orElse(0);
  }

  @Override
  public long used(String bridge, EffectKind kind, long over) {
    return uses.entrySet().stream()
        .filter(one -> one.getKey().bridge().equals(bridge) && one.getKey().kind() == kind)
        .filter(one -> one.getValue().newest() > over)
        .mapToLong(one -> one.getValue().effects())
        .sum();
  }

  @Override
  public int use(String bridge, EffectKind kind, long grain, long now, int effects) {
    Use kept =
        uses.computeIfPresent(
            new Key(bridge, kind, grain), (key, use) -> new Use(now, use.effects() + effects));
    return kept == null ? 0 : 1;
  }

  @Override
  public void useFirst(String bridge, EffectKind kind, long grain, long now, int effects) {
    uses.put(new Key(bridge, kind, grain), new Use(now, effects));
  }

  @Override
  public void forget(String bridge, EffectKind kind, long over) {
    uses.entrySet()
        .removeIf(
            one ->
                one.getKey().bridge().equals(bridge)
                    && one.getKey().kind() == kind
                    && one.getValue().newest() <= over);
  }

  @Override
  public void clear(String bridge) {
    uses.keySet().removeIf(key -> key.bridge().equals(bridge));
  }

  @Override
  public int count(String bridge, EffectKind kind, long slot, int effects) {
    return 1;
  }

  @Override
  public void countFirst(String bridge, EffectKind kind, long slot, int effects) {
    throw new IllegalStateException("every slot is there");
  }

  @Override
  public List<CountRow> past(String bridge, EffectKind kind, long since) {
    return List.of();
  }
}
