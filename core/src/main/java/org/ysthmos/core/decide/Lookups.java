package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueOrder;
import org.ysthmos.core.value.Warned;

/** Asks the lookups of one decision; the same question is asked once. */
final class Lookups {

  /** What a lookup means for the decision. */
  sealed interface Meaning {}

  /** The decision goes on with this record. */
  record GoesOn(JsonNode record) implements Meaning {}

  /** The event is passed by. */
  record PassesBy(String because) implements Meaning {}

  /** The event fails. */
  record Fails(Failure failure) implements Meaning {}

  private final World world;
  private final Map<World.Question, World.LookupAnswer> asked = new HashMap<>(4);
  private final List<Decision.Answer> answers = new ArrayList<>(0);

  Lookups(World world) {
    this.world = world;
  }

  /** What was found so far, in order. */
  List<Decision.Answer> answers() {
    return answers;
  }

  Meaning ask(CompiledLookup lookup, Reading reading) {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    for (int i = 0; i < lookup.by().size(); i++) {
      CompiledValue by = lookup.by().get(i);
      Computed computed = by.compute(reading, Chain.Warnings.NONE, null);
      String key = lookup.keys().get(i);
      if (!(computed instanceof Value value)) {
        Problem problem = (Problem) computed;
        return new Fails(
            Failure.of(FailureKind.MAPPING_ERROR, key + ": " + problem.message())
                .withField(key, problem.found())
                .withRemedy(problem.remedy()));
      }
      if (WhiteSpace.isBlank(value.display())) {
        // An empty key could find any record; what it means is what finding none means.
        return noneFound(
            lookup, key + " is empty, so that no " + recordOf(lookup) + " can be found");
      }
      keys.put(key, value.display());
    }
    LookupRule rule = lookup.rule();
    World.Question question =
        new World.Question(rule.system(), rule.collection(), rule.origin(), keys);
    World.LookupAnswer answer =
        asked.computeIfAbsent(question, one -> world.lookUp(rule.name(), one));
    return switch (answer) {
      case World.Unanswered unanswered -> new Fails(unanswered.failure());
      case World.Found found -> {
        Meaning meaning =
            found.records().isEmpty() && isAwaited(lookup, reading)
                ? notYet(lookup, keys)
                : meaning(lookup, keys, found.records());
        answers.add(new Decision.Answer(rule.name(), question, found.records()));
        yield meaning;
      }
    };
  }

  private boolean isAwaited(CompiledLookup lookup, Reading reading) {
    return lookup.rule().waits().filter(span -> world.waits(reading.event(), span)).isPresent();
  }

  private static Meaning notYet(CompiledLookup lookup, SequencedMap<String, String> keys) {
    return new Fails(
        Failure.of(
            FailureKind.NOT_YET_THERE,
            "%s of %s with %s is not there yet; it is %s"
                .formatted(
                    lookup.shape().recordWord(),
                    lookup.shape().systemName(),
                    words(keys),
                    lookup.rule().none() == LookupRule.NoneFound.MAKE
                        ? "to be made there, and waited for"
                        : "waited for")));
  }

  private static Meaning meaning(
      CompiledLookup lookup, SequencedMap<String, String> keys, List<JsonNode> records) {
    if (records.size() == 1) {
      return new GoesOn(records.getFirst());
    }
    if (records.isEmpty()) {
      return noneFound(
          lookup,
          lookup.rule().origin() == LookupRule.Origin.TASKS
              ? noTask(lookup.rule().collection(), keys)
              : "%s at %s has no %s with %s"
                  .formatted(
                      lookup.shape().name(),
                      lookup.shape().systemName(),
                      recordOf(lookup),
                      words(keys)));
    }
    return lookup.rule().several().firstBy().isPresent()
        ? first(lookup, lookup.rule().several().firstBy().get(), records)
        : new Fails(
            Failure.of(
                    FailureKind.LOOKUP_AMBIGUOUS,
                    "%d records of %s at %s have %s, one was expected"
                        .formatted(
                            records.size(),
                            lookup.shape().name(),
                            lookup.shape().systemName(),
                            words(keys)))
                .withRemedy(
                    "Look it up by more keys, or say which comes first (several), then send"
                        + " again"));
  }

  private static String noTask(String bridge, SequencedMap<String, String> keys) {
    String task = keys.get(LookupRule.TASK);
    if (task != null) {
      return "“%s” is no task that bridge %s made".formatted(task, bridge);
    }
    String part = keys.get(LookupRule.PART);
    return "bridge %s made no task%s of “%s”"
        .formatted(bridge, part == null ? "" : " “" + part + "”", keys.get(LookupRule.RECORD));
  }

  private static Meaning noneFound(CompiledLookup lookup, String message) {
    return switch (lookup.rule().none()) {
      case FAIL, MAKE ->
          new Fails(
              Failure.of(FailureKind.LOOKUP_EMPTY, message)
                  .withField(String.join(", ", lookup.keys()), "")
                  .withRemedy("Check that the record is there and may be read, then send again"));
      case PASS_BY -> new PassesBy(message);
      case EMPTY -> new GoesOn(MissingNode.getInstance());
    };
  }

  /** The first by the stated order; of equals the one found first. */
  private static Meaning first(CompiledLookup lookup, Pointer pointer, List<JsonNode> records) {
    FieldShape field =
        lookup.fields().stream()
            .filter(shape -> shape.key().equals(pointer.toString()))
            .findFirst()
            .orElseThrow();
    JsonNode first = records.getFirst();
    Value best = Nothing.NOTHING;
    for (JsonNode record : records) {
      Computed computed = field.read(pointer.in(record));
      if (computed instanceof Problem problem) {
        return new Fails(
            Failure.of(FailureKind.MAPPING_ERROR, field.name() + ": " + problem.message())
                .withField(field.name(), problem.found())
                .withRemedy(problem.remedy()));
      }
      Value value = Warned.valueOf(computed);
      int order = ValueOrder.compare(value, best);
      if (best == Nothing.NOTHING
          || (lookup.rule().several().descending() ? order > 0 : order < 0)) {
        if (value != Nothing.NOTHING) {
          best = value;
          first = record;
        }
      }
    }
    return new GoesOn(first);
  }

  private static String recordOf(CompiledLookup lookup) {
    return lookup.shape().recordWord();
  }

  private static String words(SequencedMap<String, String> keys) {
    List<String> parts = new ArrayList<>();
    keys.forEach((key, value) -> parts.add(key + " “" + value + "”"));
    return String.join(" and ", parts);
  }
}
