package org.ysthmos.core.decide;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** The pair of the tasks b1 and l1, and what a decision writes to a side. */
public final class PairOfShores {

  private PairOfShores() {}

  static Map<String, Value> held(String title, String status) {
    Map<String, Value> held = new HashMap<>();
    held.put("title", Text.of(title));
    held.put("status", new Choice(status));
    return held;
  }

  static SyncedPair pair(Agreed agreed, Map<String, Answer> answers) {
    return new SyncedPair(
        Synced.key("shores", Side.LEFT, "b1"),
        new Both<>(Optional.of("b1"), Optional.of("l1")),
        agreed,
        answers,
        Optional.empty());
  }

  public static SyncedPair pair() {
    return pair(new Agreed(held("Mend", "doing"), held("Mend", "in-work")), Map.of());
  }

  static Optional<PlannedDelivery> to(Side side, Decision decision) {
    return decision.tasks().stream()
        .filter(task -> task.member().equals(Synced.word(side)))
        .flatMap(task -> task.delivery().stream())
        .findFirst();
  }
}
