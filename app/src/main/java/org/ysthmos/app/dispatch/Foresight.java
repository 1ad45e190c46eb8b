package org.ysthmos.app.dispatch;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.BridgeOfTrace;
import org.ysthmos.app.trace.CarriedBy;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.decide.WorldOver;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Value;

/**
 * What events would become if they were decided now, one after the other, each with what the ones
 * before it would have made. Lookups are asked for real; nothing is stored and nothing is sent.
 */
@Component
public class Foresight {

  /** How a field would be set, as people read it. */
  public record FieldNow(String name, String value) {}

  /**
   * What a trace's event would become.
   *
   * @param verdict what it would come to; null if its bridge cannot decide now
   * @param because why it would pass by, fail or stay as it is; may be empty
   * @param fields what would be written
   */
  public record Foreseen(
      TraceRow trace, @Nullable Verdict verdict, String because, List<FieldNow> fields) {}

  private final EventMapper events;
  private final BridgeOfTrace carriers;
  private final EngineWorld.Sources sources;
  private final AppClock clock;

  Foresight(
      EventMapper events, BridgeOfTrace carriers, EngineWorld.Sources sources, AppClock clock) {
    this.events = events;
    this.carriers = carriers;
    this.sources = sources;
    this.clock = clock;
  }

  /**
   * @param traces in the order in which they would be decided
   * @param rules by which of them
   */
  public List<Foreseen> of(List<TraceRow> traces, CarriedBy rules) {
    Map<String, World.PairState> made = new HashMap<>();
    List<Foreseen> all = new ArrayList<>();
    for (TraceRow trace : traces) {
      all.add(foresee(trace, rules, made));
    }
    return all;
  }

  private Foreseen foresee(TraceRow trace, CarriedBy rules, Map<String, World.PairState> made) {
    EventRow row = events.find(trace.eventSeq());
    if (row == null) {
      return new Foreseen(trace, null, "Its event is not kept any more", List.of());
    }
    if (row.origin() == EventMapper.Origin.ASIDE) {
      return new Foreseen(trace, null, "It is read again where it stands", List.of());
    }
    return switch (carriers.again(trace, rules)) {
      case BridgeOfTrace.NotNow not ->
          new Foreseen(trace, null, "Its bridge cannot be used just now", List.of());
      case BridgeOfTrace.Never never ->
          new Foreseen(trace, null, never.because().message(), List.of());
      case BridgeOfTrace.Usable usable -> {
        EngineWorld asked = new EngineWorld(sources, clock, row);
        Decision decision =
            Decider.decide(
                usable.version(),
                ReceivedEvents.event(row),
                new Foreseeing(asked, made),
                Mode.PLAIN);
        decision.tasks().forEach(task -> make(task, made));
        yield new Foreseen(
            trace, decision.verdict(), because(decision), fields(decision, usable.version()));
      }
    };
  }

  private static void make(TaskDecision task, Map<String, World.PairState> made) {
    if (task.delivery().isPresent()) {
      World.PairState before = made.get(id(task.key()));
      Map<String, Value> agreed = new LinkedHashMap<>(before == null ? Map.of() : before.agreed());
      agreed.putAll(task.fields());
      made.put(id(task.key()), new World.PairState(Optional.of(task.target().orElse("?")), agreed));
    }
  }

  private static String id(MatchKey key) {
    return key.bridge() + "/" + key.hash();
  }

  private static String because(Decision decision) {
    if (decision.verdict() == Verdict.FAILED) {
      Failure first = decision.failures().getFirst();
      return first.message();
    }
    return decision.because().isEmpty()
        ? decision.tasks().stream()
            .map(TaskDecision::because)
            .filter(words -> !words.isEmpty())
            .findFirst()
            .orElse("")
        : decision.because();
  }

  /** Of the first task that would be written. */
  private static List<FieldNow> fields(Decision decision, BridgeVersion bridge) {
    Map<String, FieldShape> shapes = new HashMap<>();
    for (CompiledField field : bridge.plan().allFields()) {
      shapes.put(field.target().key(), field.target());
    }
    return decision.deliveries().stream()
        .findFirst()
        .map(
            delivery ->
                delivery.fields().entrySet().stream()
                    .map(field -> now(field.getKey(), field.getValue(), shapes))
                    .toList())
        .orElse(List.of());
  }

  private static FieldNow now(String key, Value value, Map<String, FieldShape> shapes) {
    FieldShape shape = shapes.get(key);
    return shape == null
        ? new FieldNow(key, value.display())
        : new FieldNow(shape.name(), shape.shown(value));
  }

  /** The world as it is, with what would have been made by then. */
  private record Foreseeing(EngineWorld under, Map<String, World.PairState> made)
      implements WorldOver {

    @Override
    public Optional<PairState> pair(String bridge, MatchKey key) {
      PairState foreseen = made.get(id(key));
      return foreseen == null ? under.pair(bridge, key) : Optional.of(foreseen);
    }

    @Override
    public TouchAnswer touched(MatchKey key, PairState pair) {
      return made.containsKey(id(key)) ? new Touched(false) : under.touched(key, pair);
    }
  }
}
