package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeVersion.CompiledLookup;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.decide.Decision.Warning;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rule.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.Reading;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/**
 * The one function that decides. The live engine, a resend and every preview call it with the same
 * inputs and get the same answer. It never throws for what it finds in an event.
 */
public final class Decider {

  private final BridgeVersion bridge;
  private final Event event;
  private final World world;
  private final @Nullable List<CompiledCondition.TestResult> tests;
  private final @Nullable List<Explanation.Lineage> lineage;
  private final List<Warning> warnings = new ArrayList<>();

  private Decider(BridgeVersion bridge, Event event, World world, Mode mode) {
    this.bridge = bridge;
    this.event = event;
    this.world = world;
    this.tests = mode == Mode.EXPLAINED ? new ArrayList<>() : null;
    this.lineage = mode == Mode.EXPLAINED ? new ArrayList<>() : null;
  }

  public static Decision decide(BridgeVersion bridge, Event event, World world, Mode mode) {
    return new Decider(bridge, event, world, mode).decide();
  }

  private Decision decide() {
    List<JsonNode> records = new ArrayList<>(bridge.lookups().size());
    Reading reading = new Reading(event, records);
    for (CompiledLookup lookup : bridge.lookups()) {
      Optional<Decision> stopped = lookUp(lookup, reading, records);
      if (stopped.isPresent()) {
        return stopped.get();
      }
    }
    switch (bridge.when().ask(reading, tests)) {
      case CompiledCondition.Known known when known.met() -> {}
      case CompiledCondition.Known known -> {
        return passedBy(known.because());
      }
      case CompiledCondition.Unknown unknown -> {
        return failed(List.of(mapping(unknown.field().shape().name(), unknown.problem())));
      }
    }
    return carry(reading);
  }

  private Optional<Decision> lookUp(
      CompiledLookup lookup, Reading reading, List<JsonNode> records) {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    for (int i = 0; i < lookup.by().size(); i++) {
      BoundField by = lookup.by().get(i);
      switch (by.read(reading)) {
        case Problem problem -> {
          return Optional.of(failed(List.of(mapping(by.shape().name(), problem))));
        }
        case Warned warned -> keys.put(lookup.keys().get(i), warned.value().display());
        case Value value -> keys.put(lookup.keys().get(i), value.display());
      }
    }
    String system = lookup.rule().system();
    return switch (world.lookUp(system, lookup.rule().collection(), keys)) {
      case World.Unanswered unanswered -> Optional.of(failed(List.of(unanswered.failure())));
      case World.Found found when found.records().size() == 1 -> {
        records.add(found.records().getFirst());
        yield Optional.empty();
      }
      case World.Found found when found.records().isEmpty() -> noneFound(lookup, keys, records);
      case World.Found found ->
          Optional.of(
              failed(
                  List.of(
                      Failure.of(
                              FailureKind.LOOKUP_AMBIGUOUS,
                              "%d records of %s at %s have %s, one was expected"
                                  .formatted(
                                      found.records().size(),
                                      lookup.shape().name(),
                                      lookup.shape().systemName(),
                                      words(keys)))
                          .withRemedy("Look it up by more keys, then send again"))));
    };
  }

  private Optional<Decision> noneFound(
      CompiledLookup lookup, SequencedMap<String, String> keys, List<JsonNode> records) {
    String message =
        "%s at %s has no %s with %s"
            .formatted(
                lookup.shape().name(),
                lookup.shape().systemName(),
                lookup.shape().recordWord(),
                words(keys));
    return switch (lookup.rule().none()) {
      case FAIL ->
          Optional.of(
              failed(
                  List.of(
                      Failure.of(FailureKind.LOOKUP_EMPTY, message)
                          .withField(
                              String.join(", ", keys.sequencedKeySet()),
                              String.join(", ", keys.sequencedValues()))
                          .withRemedy(
                              "Check that the record is there and may be read, then send again"))));
      case PASS_BY -> Optional.of(passedBy(message));
      case GO_ON_EMPTY -> {
        records.add(MissingNode.getInstance());
        yield Optional.empty();
      }
    };
  }

  private static String words(SequencedMap<String, String> keys) {
    List<String> parts = new ArrayList<>();
    keys.forEach((key, value) -> parts.add(key + " “" + value + "”"));
    return String.join(" and ", parts);
  }

  private Decision carry(Reading reading) {
    List<Failure> failures = new ArrayList<>();
    Optional<MatchKey> key = matchKey(reading, failures);
    SequencedMap<String, Value> task = new LinkedHashMap<>();
    for (CompiledField field : bridge.fields()) {
      switch (compute(field, reading)) {
        case Problem problem -> failures.add(mapping(field.target().name(), problem));
        case Value value -> task.put(field.target().key(), value);
        case Warned warned -> task.put(field.target().key(), warned.value());
      }
    }
    if (!failures.isEmpty() || key.isEmpty()) {
      return decision(Verdict.FAILED, key, task, List.of(), "", failures);
    }
    return compareWithPair(key.get(), task);
  }

  private Decision compareWithPair(MatchKey key, SequencedMap<String, Value> task) {
    Optional<World.PairState> pair = world.pair(bridge.definition().id(), key);
    Optional<String> target = pair.flatMap(World.PairState::target);
    // With no task yet nothing is agreed on, so that only what has a value is wanted.
    Map<String, Value> agreed = target.isPresent() ? pair.orElseThrow().agreed() : Map.of();
    SequencedMap<String, Value> wanted = new LinkedHashMap<>();
    task.forEach(
        (field, value) -> {
          if (!value.equals(agreed.getOrDefault(field, Nothing.NOTHING))) {
            wanted.put(field, value);
          }
        });
    if (target.isEmpty()) {
      return decision(
          Verdict.CREATE,
          Optional.of(key),
          task,
          List.of(delivery(key.effect("task"), target, wanted)),
          "",
          List.of());
    }
    if (wanted.isEmpty()) {
      return decision(Verdict.UNCHANGED, Optional.of(key), task, List.of(), "", List.of());
    }
    String effect = key.effect("change:" + event.id());
    return decision(
        Verdict.UPDATE,
        Optional.of(key),
        task,
        List.of(delivery(effect, target, wanted)),
        "",
        List.of());
  }

  private PlannedDelivery delivery(
      String key, Optional<String> record, SequencedMap<String, Value> fields) {
    var to = bridge.definition().to();
    return new PlannedDelivery(key, to.system(), to.collection(), record, fields);
  }

  private Optional<MatchKey> matchKey(Reading reading, List<Failure> failures) {
    List<Value> parts = new ArrayList<>(bridge.match().size());
    for (BoundField part : bridge.match()) {
      Computed read = part.read(reading);
      if (read instanceof Value value && !value.display().isBlank()) {
        parts.add(value);
        continue;
      }
      failures.add(
          Failure.of(
                  FailureKind.MAPPING_ERROR,
                  "The match key has no value for “" + part.shape().name() + "”")
              .withField(part.shape().name(), "")
              .withRemedy("Fill the field at its source, then send again"));
    }
    return failures.isEmpty()
        ? Optional.of(MatchKey.of(bridge.definition().id(), parts))
        : Optional.empty();
  }

  private Computed compute(CompiledField field, Reading reading) {
    FieldTrail trail = new FieldTrail(field);
    Computed result = field.compute(reading, trail);
    if (lineage != null) {
      lineage.add(trail.lineage(reading, result));
    }
    return result;
  }

  private static Failure mapping(String field, Problem problem) {
    return Failure.of(FailureKind.MAPPING_ERROR, field + ": " + problem.message())
        .withField(field, problem.found())
        .withRemedy(problem.remedy());
  }

  private Decision passedBy(String because) {
    return decision(Verdict.PASSED_BY, Optional.empty(), Map.of(), List.of(), because, List.of());
  }

  private Decision failed(List<Failure> failures) {
    return decision(Verdict.FAILED, Optional.empty(), Map.of(), List.of(), "", failures);
  }

  private Decision decision(
      Verdict verdict,
      Optional<MatchKey> key,
      Map<String, Value> task,
      List<PlannedDelivery> deliveries,
      String because,
      List<Failure> failures) {
    Explanation explanation =
        tests == null || lineage == null ? Explanation.NONE : new Explanation(tests, lineage);
    return new Decision(verdict, key, task, deliveries, because, failures, warnings, explanation);
  }

  /** Collects the warnings of a field, and its way in explained mode. */
  private final class FieldTrail implements Chain.Trail {
    private final CompiledField field;
    private final @Nullable List<Reached> reached = lineage == null ? null : new ArrayList<>();

    FieldTrail(CompiledField field) {
      this.field = field;
    }

    @Override
    public void reached(int step, Computed computed) {
      if (reached != null) {
        reached.add(new Reached(step, computed));
      }
    }

    @Override
    public void warned(String warning) {
      warnings.add(new Warning(field.target().key(), warning));
    }

    Explanation.Lineage lineage(Reading reading, Computed result) {
      List<Reached> way = reached == null ? List.of() : reached;
      List<Explanation.SourceValue> sources =
          field.reads().stream()
              .map(
                  read ->
                      new Explanation.SourceValue(
                          read.address().toString(),
                          read.shape().name(),
                          read.where(),
                          read.read(reading)))
              .toList();
      // A step that was given nothing did not run and is left out.
      List<Explanation.StepValue> steps =
          way.stream()
              .skip(1)
              .map(at -> new Explanation.StepValue(field.sentences().get(at.step()), at.computed()))
              .toList();
      return new Explanation.Lineage(
          field.target(), sources, way.getFirst().computed(), steps, result);
    }
  }

  /** What stood after a step, counted from 0; -1 is the source. */
  private record Reached(int step, Computed computed) {}
}
