package org.ysthmos.app.dispatch;

import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.dispatch.DecisionWriter.Deciding;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceCauses;
import org.ysthmos.app.trace.TracePlaces;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.guard.CeilingWords;
import org.ysthmos.core.guard.TurnGuard;

/**
 * What keeps a bridge from running away: its ceiling, and what it may do about its own doing. What
 * a person tries from the desk is no doing of the bridge's.
 */
@Component
class Bounds {

  /**
   * That something must not be done.
   *
   * @param because why, as a sentence
   * @param letThrough up to which trace the bridge was let go when that was found
   */
  record Stop(String because, long letThrough) {}

  private final Bridges bridges;
  private final Ceilings ceilings;
  private final Systems systems;
  private final TracePlaces places;
  private final AppClock clock;

  Bounds(Bridges bridges, Ceilings ceilings, Systems systems, TracePlaces places, AppClock clock) {
    this.places = places;
    this.bridges = bridges;
    this.ceilings = ceilings;
    this.systems = systems;
    this.clock = clock;
  }

  /**
   * Counts what the bridge is to do, unless that would pass a bound; inside the change that stores
   * it.
   *
   * @return why it must not be done; nothing is counted then
   */
  Optional<Stop> passedBy(Deciding deciding, List<TaskDecision> carried) {
    Map<EffectKind, Integer> more = new EnumMap<>(EffectKind.class);
    carried.stream()
        .flatMap(task -> task.delivery().stream())
        .forEach(planned -> more.merge(boundedAs(planned), 1, Integer::sum));
    Optional<Bridges.Live> live = bridges.live(deciding.trace().bridgeId());
    if (more.isEmpty() || deciding.trace().isTry() || live.isEmpty()) {
      return Optional.empty();
    }
    return turned(deciding, carried, live.get())
        .or(() -> ceiling(deciding, live.get().ceiling(), more))
        .map(because -> new Stop(because, live.get().letThrough()));
  }

  /** What takes a record away counts as what changes one. */
  private EffectKind boundedAs(PlannedDelivery planned) {
    EffectKind kind = systems.kindOf(planned);
    return kind == EffectKind.REMOVE ? EffectKind.CHANGE : kind;
  }

  private Optional<String> ceiling(
      Deciding deciding, Ceiling ceiling, Map<EffectKind, Integer> more) {
    Optional<Ceiling.Passed> passed = ceilings.take(deciding.trace().bridgeId(), ceiling, more);
    if (passed.isEmpty()) {
      places.did(deciding.trace(), more, clock.instant());
    }
    return passed.map(CeilingWords::because);
  }

  /** What was received before a person let it go is not asked what caused it. */
  private Optional<String> turned(
      Deciding deciding, List<TaskDecision> carried, Bridges.Live live) {
    if (deciding.trace().seq() <= live.letThrough()) {
      return Optional.empty();
    }
    TurnGuard guard = live.turns();
    Optional<String> chain =
        deciding
            .cause()
            .flatMap(
                cause ->
                    guard
                        .ofChain(cause.again(), cause.depth())
                        .map(passed -> CeilingWords.because(passed, way(cause, live))));
    return chain.or(() -> sameTask(deciding, carried, guard));
  }

  private Optional<String> sameTask(
      Deciding deciding, List<TaskDecision> carried, TurnGuard guard) {
    Instant now = clock.instant();
    for (TaskDecision task : carried) {
      if (task.delivery().isPresent()) {
        int before = deciding.world().seen(task.key()).often().within(guard.per(), now);
        Optional<TurnGuard.Passed> passed = guard.ofTask(before);
        if (passed.isPresent()) {
          String what = task.target().map(id -> "task " + id).orElse("the task of one record");
          return Optional.of(CeilingWords.because(passed.get(), what));
        }
      }
    }
    return Optional.empty();
  }

  private String way(TraceCauses.Cause cause, Bridges.Live live) {
    return Stream.concat(
            cause.bridges().stream().map(bridges::nameOf),
            Stream.of(live.version().definition().name()))
        .map(name -> "“" + name + "”")
        .collect(Collectors.joining(" → "));
  }
}
