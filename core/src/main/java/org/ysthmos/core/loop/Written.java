package org.ysthmos.core.loop;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.condition.CompiledCondition.Known;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.ValueRule;

/**
 * What is known of a record before it is written, from the rules alone: the fields that are always
 * the same, and those that are copied. A field that is written is taken for the one that is read
 * whose address ends with its key.
 */
final class Written {

  /** Whether a test is met. */
  enum Says {
    YES,
    NO,
    UNKNOWN
  }

  private final Map<String, Source.Always> constants = new HashMap<>();
  private final Map<String, String> copies = new HashMap<>();

  private Written() {}

  static Written by(Arm arm) {
    Written written = new Written();
    for (CompiledField field : arm.fields()) {
      ValueRule rule = field.value().rule();
      String key = field.target().key();
      if (rule.steps().isEmpty() && rule.source() instanceof Source.Always always) {
        written.constants.put(key, always);
      } else if (rule.steps().isEmpty() && rule.source() instanceof Source.Field copied) {
        key(copied.address()).ifPresent(from -> written.copies.put(key, from));
      }
    }
    return written;
  }

  Optional<Source.Always> constant(String key) {
    return Optional.ofNullable(constants.get(key));
  }

  /** The key of the field of what was heard that a field is a copy of. */
  Optional<String> copiedFrom(String key) {
    return Optional.ofNullable(copies.get(key));
  }

  private static Optional<String> key(Address address) {
    return address.root().isEmpty() && !address.pointer().tokens().isEmpty()
        ? Optional.of(address.pointer().lastToken())
        : Optional.empty();
  }

  /** The key of the field of a record that is read; empty if it is none of what was heard of. */
  static Optional<String> key(BoundField field) {
    return field.reader() instanceof BoundField.OfEvent event && !event.pointer().tokens().isEmpty()
        ? Optional.of(event.pointer().lastToken())
        : Optional.empty();
  }

  /** The keys of all that a bridge reads of what it heard of, also by looking it up. */
  static Set<String> readBy(BridgeVersion bridge) {
    Set<String> keys = new HashSet<>();
    Stream.of(
            bridge.when().reads().stream(),
            bridge.match().stream(),
            bridge.plan().allFields().stream().flatMap(field -> field.reads().stream()),
            bridge.values().stream().flatMap(value -> value.reads().stream()),
            bridge.lookups().stream()
                .flatMap(lookup -> lookup.by().stream())
                .flatMap(value -> value.reads().stream()),
            bridge.then().stream()
                .flatMap(
                    then ->
                        Stream.concat(
                            Stream.concat(then.when().reads().stream(), then.match().stream()),
                            then.fields().stream().flatMap(field -> field.reads().stream()))))
        .flatMap(reads -> reads)
        .forEach(
            field -> {
              Pointer pointer = field.address().pointer();
              if (!pointer.tokens().isEmpty()) {
                keys.add(pointer.lastToken());
              }
            });
    return keys;
  }

  /** Whether a record that was written so meets a test of a bridge that hears of it. */
  Says says(CompiledCondition test, BridgeVersion bridge) {
    List<BoundField> reads = test.reads();
    if (reads.isEmpty()) {
      return Says.YES;
    }
    ObjectNode data = JsonNodeFactory.instance.objectNode();
    for (BoundField field : reads) {
      Optional<Pointer> at = ofTheRecord(field, bridge);
      Optional<Source.Always> value = at.map(Pointer::lastToken).flatMap(this::constant);
      if (at.isEmpty() || value.isEmpty()) {
        return Says.UNKNOWN;
      }
      put(data, at.get(), json(value.get()));
    }
    return test.ask(reading(bridge, data), null) instanceof Known known
        ? known.met() ? Says.YES : Says.NO
        : Says.UNKNOWN;
  }

  /** Where a field stands in the record that was heard of; empty if it is of another record. */
  private static Optional<Pointer> ofTheRecord(BoundField field, BridgeVersion bridge) {
    Optional<Pointer> at =
        switch (field.reader()) {
          case BoundField.OfEvent event -> Optional.of(event.pointer());
          case BoundField.OfLookup lookup ->
              isItself(bridge.lookups().get(lookup.lookup()), bridge)
                  ? Optional.of(lookup.pointer())
                  : Optional.empty();
          default -> Optional.empty();
        };
    return at.filter(pointer -> !pointer.tokens().isEmpty());
  }

  /** Whether a lookup reads the whole of the record that the event tells of. */
  private static boolean isItself(CompiledLookup lookup, BridgeVersion bridge) {
    return lookup.rule().system().equals(bridge.definition().from().system())
        && lookup.rule().collection().equals(bridge.definition().from().collection());
  }

  private static JsonNode json(Source.Always always) {
    if (!always.isList()) {
      return JsonNodeFactory.instance.textNode(always.written().getFirst());
    }
    ArrayNode list = JsonNodeFactory.instance.arrayNode();
    always.written().forEach(list::add);
    return list;
  }

  private static void put(ObjectNode data, Pointer at, JsonNode value) {
    ObjectNode here = data;
    List<String> tokens = at.tokens();
    for (String token : tokens.subList(0, tokens.size() - 1)) {
      here = here.withObjectProperty(token);
    }
    here.set(tokens.getLast(), value);
  }

  private static Reading reading(BridgeVersion bridge, JsonNode data) {
    Event event =
        new Event(
            "written",
            bridge.definition().from().system(),
            bridge.definition().from().collection(),
            "created",
            "written",
            Instant.EPOCH,
            data);
    Reading reading =
        new Reading(
            event,
            Reading.Surroundings.NONE,
            bridge.lookups().size(),
            0,
            (place, any) -> {
              throw new IllegalStateException("no test that names a value is asked");
            });
    for (int i = 0; i < bridge.lookups().size(); i++) {
      reading.found(i, data);
    }
    return reading;
  }
}
