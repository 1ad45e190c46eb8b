package org.ysthmos.core.decide;

import java.util.Optional;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.sync.Crossing;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Text;

/** Finds the task that stands for another on the other side, by the pairs of the bridge. */
record SyncPartners(String bridge, World world) implements CompiledTwoWay.Partners {

  @Override
  public Crossing of(Side from, String task) {
    Optional<World.SyncedPair> pair =
        world.named(bridge, from, task).filter(one -> one.parted().isEmpty());
    return pair.flatMap(one -> one.records().of(from.across()))
        .<Crossing>map(other -> new Crossing.Becomes(Text.of(other)))
        .orElseGet(() -> new Crossing.Waits(task, pair.isPresent()));
  }
}
