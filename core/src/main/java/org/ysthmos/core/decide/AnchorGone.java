package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.function.BiPredicate;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.bridge.TaskPlan.NoAnchor;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Decides what becomes of the tasks of a set whose anchor day was taken away. */
final class AnchorGone {

  private static final String LEFT = "its anchor day was taken away; it is left as it is";
  private static final String TOUCHED =
      "its anchor day was taken away, but someone has worked on it since; it is left as it is";

  private final TaskComparison tasks;
  private final List<Value> match;
  private final BiPredicate<MatchKey, World.PairState> touched;
  private final BridgeDefinition.To to;

  AnchorGone(
      TaskComparison tasks, List<Value> match, BiPredicate<MatchKey, World.PairState> touched) {
    this.tasks = tasks;
    this.match = match;
    this.touched = touched;
    this.to = tasks.bridge().definition().to();
  }

  /** None if nothing was made; children before their parents, as some systems want it. */
  List<TaskDecision> decide(CompiledPlan.Set plan) {
    NoAnchor wanted = plan.noAnchor().orElseThrow();
    List<TaskDecision> decided = new ArrayList<>();
    for (CompiledPlan.Member member : plan.members().reversed()) {
      String name = member.rule().name();
      MatchKey key = tasks.key(match, Text.of(name));
      Optional<World.PairState> pair = tasks.pair(key);
      Optional<String> target = pair.flatMap(World.PairState::target);
      if (pair.isPresent() && target.isPresent()) {
        decided.add(one(wanted, name, key, pair.get(), target.get()));
      }
    }
    return decided;
  }

  private TaskDecision one(
      NoAnchor wanted, String name, MatchKey key, World.PairState pair, String target) {
    Map<String, Value> closing = closing(wanted);
    boolean closed =
        wanted == NoAnchor.CLOSE && pair.agreed().entrySet().containsAll(closing.entrySet());
    if (wanted == NoAnchor.LEAVE || closed || pair.stays() != World.Stays.NO) {
      return left(name, key, pair, target, wanted == NoAnchor.LEAVE ? LEFT : pair.stays().words());
    }
    if (touched.test(key, pair)) {
      return left(name, key, pair, target, TOUCHED);
    }
    boolean removes = wanted == NoAnchor.REMOVE;
    SequencedMap<String, Value> fields = new LinkedHashMap<>(closing);
    PlannedDelivery delivery =
        new PlannedDelivery(
            key.effect((removes ? "remove:" : "change:") + tasks.eventId()),
            to.system(),
            pair.stands().filter(stands -> to.place().isPresent()).orElse(to.collection()),
            Optional.of(target),
            fields,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            removes);
    Map<String, Value> all = new LinkedHashMap<>(pair.agreed());
    all.putAll(closing);
    return new TaskDecision(
        name,
        Verdict.UPDATE,
        key,
        all,
        Optional.of(delivery),
        removes
            ? "its anchor day was taken away; it is taken away, too"
            : "its anchor day was taken away; it is closed",
        Optional.of(target),
        false);
  }

  private static TaskDecision left(
      String name, MatchKey key, World.PairState pair, String target, String because) {
    return TaskDecision.left(name, key, pair.agreed(), Optional.of(target), because);
  }

  /** What a closed task holds, where they are to be closed. */
  private Map<String, Value> closing(NoAnchor wanted) {
    if (wanted == NoAnchor.REMOVE && !tasks.world().removes(to.system(), to.collection())) {
      refuse("take tasks away", "remove");
    }
    if (wanted != NoAnchor.CLOSE) {
      return Map.of();
    }
    Map<String, Value> closing = tasks.world().closing(to.system(), to.collection());
    if (closing.isEmpty()) {
      refuse("close tasks", "closed");
    }
    return closing;
  }

  private void refuse(String what, String key) {
    tasks
        .notes()
        .fail(
            Failure.of(
                    FailureKind.MAPPING_ERROR,
                    "%s does not say how to %s"
                        .formatted(tasks.bridge().target().systemName(), what))
                .withRemedy(
                    "Describe it in the system's document (%s), or let the bridge leave them (no-anchor: leave), then send again"
                        .formatted(key)));
  }
}
