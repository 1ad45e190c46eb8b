package org.ysthmos.adapters.system;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Value;

/** One collection of a system and what can be done there, whatever protocol it speaks. */
public interface SystemCollection {

  CollectionShape shape();

  /** The page on which a person sees a record, with the slot {@code {id}}. */
  default Optional<String> page() {
    return Optional.empty();
  }

  /** The sets of key fields by which records can be found. */
  default List<List<String>> findsBy() {
    return List.of();
  }

  /** Where a listed record holds its id; empty if records cannot be listed. */
  default Optional<Pointer> lists() {
    return Optional.empty();
  }

  /** Whether all of its records can be read, page by page. */
  default boolean listsAll() {
    return polled().isPresent();
  }

  /** How it is asked what changed; empty if it is not. */
  default Optional<PollSpec> polled() {
    return Optional.empty();
  }

  /** Where a record says when it was changed last; empty if it does not. */
  default Optional<Pointer> changedAt() {
    return Optional.empty();
  }

  /** How its webhooks are read; empty if it sends none. */
  default Optional<Push> push() {
    return Optional.empty();
  }

  /** Whether a record can be found by our idempotency key. */
  default boolean findsByKey() {
    return false;
  }

  /** How it keeps an effect from being made twice when an answer was lost. */
  default Promise promise() {
    return findsByKey() ? Promise.FOUND_BY_KEY : Promise.NONE;
  }

  /** Whether its records are said once and never changed: letters, words in a chat. */
  default boolean takesMessages() {
    return makes() && !changes();
  }

  default boolean makes() {
    return false;
  }

  default boolean changes() {
    return false;
  }

  default boolean removes() {
    return false;
  }

  /** What a task holds that is closed, by the key of the field; empty if it does not say so. */
  default SequencedMap<String, Value> closing() {
    return new TreeMap<>();
  }

  /** The kinds of event that come from here, in our words; none if nothing comes. */
  default List<String> kinds() {
    Set<String> kinds = new LinkedHashSet<>();
    push().ifPresent(told -> kinds.addAll(told.kinds().values()));
    polled().ifPresent(asked -> kinds.addAll(asked.kinds()));
    return List.copyOf(kinds);
  }

  /** Its shape, with what can be done with it. */
  default CollectionShape able() {
    List<FieldShape> all = new ArrayList<>(shape().fields());
    readFields().stream().filter(field -> !all.contains(field)).forEach(all::add);
    return shape()
        .withFields(all)
        .with(
            new CollectionShape.Abilities(
                kinds(),
                makes() || takesMessages(),
                changes(),
                page().isPresent(),
                findsBy().contains(List.of("id"))));
  }

  /** The fields that stand in its records, each under its address. */
  default List<FieldShape> readFields() {
    Map<String, FieldShape> fields = new LinkedHashMap<>();
    shape().readFields().forEach(field -> fields.put(field.key(), field));
    // What comes with the event of a record that is only asked for is the record itself.
    if (polled().isPresent() && push().isEmpty()) {
      shape().eventFields().forEach(field -> fields.putIfAbsent(field.key(), field));
    }
    return List.copyOf(fields.values());
  }

  /** Where an event of this collection holds the id of its record. */
  default Pointer recordInEvent() {
    return push()
        .map(Push::record)
        .or(() -> polled().map(PollSpec::id))
        .orElse(Pointer.parse("/id"));
  }

  /**
   * The marks in a record, or in the event of one, that tell its state from its other states; none
   * if nothing does.
   */
  default List<String> marks(JsonNode record) {
    return Stream.of(
            push().flatMap(Push::version),
            push().flatMap(Push::versionInRecord),
            polled().map(PollSpec::version))
        .flatMap(Optional::stream)
        .map(at -> at.in(record))
        .filter(mark -> mark.isValueNode() && !mark.isNull())
        .map(JsonNode::asText)
        .distinct()
        .toList();
  }

  /**
   * The marks of an event by which it is known if the state that it tells of is one that was
   * written from here; none if its kind is not one that writing makes.
   */
  default List<String> marks(Event event) {
    return PollSpec.USUAL_KINDS.contains(event.kind()) ? marks(event.data()) : List.of();
  }

  /**
   * Whether what is written to another collection of its system can come back as events of this
   * one; ids alone tell no record from one of another collection.
   */
  default boolean hearsOf(SystemCollection written) {
    return shape().collection().equals(written.shape().collection());
  }

  /** The most calls that making or changing a task can take. */
  default int mostCalls() {
    return 1;
  }

  /**
   * How many calls it takes to make or change a task.
   *
   * @param fields the fields that are delivered
   */
  default int calls(boolean creates, Set<String> fields) {
    return 1;
  }
}
