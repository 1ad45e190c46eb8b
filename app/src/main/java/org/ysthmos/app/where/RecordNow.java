package org.ysthmos.app.where;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** Records as they stand in their systems now. */
@Component
class RecordNow {

  private static final String ID = "id";

  /** So many of its fields are shown. */
  private static final int SHOWN = 12;

  /** What became of asking for it. */
  enum State {
    THERE,
    NOT_THERE,
    /** Its system finds no record by its id. */
    NOT_ASKED,
    /** It was asked and did not answer. */
    NO_ANSWER
  }

  /** A field as people read it. */
  record ShownField(String name, String text) {}

  /**
   * A record as its system has it now.
   *
   * @param problem why nothing is known; empty if something is
   * @param page where people see it; empty if nowhere
   */
  record RecordView(State state, String problem, List<ShownField> fields, String page) {}

  /** The same with the record itself, where it is there. */
  record Read(RecordView view, Optional<JsonNode> record) {}

  private final Systems systems;

  RecordNow(Systems systems) {
    this.systems = systems;
  }

  /** Whether a collection finds a record by its id. */
  boolean canAsk(String system, String collection) {
    return systems
        .collection(system, collection)
        .filter(one -> one.findsBy().contains(List.of(ID)))
        .isPresent();
  }

  Read ask(String system, String collection, String record) {
    String page = page(system, collection, record);
    Optional<SystemCollection> known = systems.collection(system, collection);
    if (known.isEmpty() || !canAsk(system, collection)) {
      return new Read(new RecordView(State.NOT_ASKED, "", List.of(), page), Optional.empty());
    }
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put(ID, record);
    World.LookupAnswer answer =
        systems.find(system).orElseThrow().gateway().find(collection, keys, call -> {});
    return switch (answer) {
      case World.Found found when found.records().isEmpty() ->
          new Read(new RecordView(State.NOT_THERE, "", List.of(), ""), Optional.empty());
      case World.Found found ->
          there(
              systems.find(system, collection).orElseGet(known.get()::able),
              found.records().getFirst(),
              page);
      case World.Unanswered unanswered ->
          new Read(
              new RecordView(
                  State.NO_ANSWER, Words.sentence(unanswered.failure()), List.of(), page),
              Optional.empty());
    };
  }

  /** Where people see it; an id that can stand in no address has no page. */
  private String page(String system, String collection, String record) {
    try {
      return systems.page(system, collection, record).map(URI::toString).orElse("");
    } catch (IllegalArgumentException noAddress) {
      return "";
    }
  }

  /**
   * @param shape with what people call its choices and people
   */
  private static Read there(CollectionShape shape, JsonNode record, String page) {
    List<ShownField> fields =
        Stream.concat(
                shape.readFields().stream(),
                shape.written().fields().stream().map(RecordNow::whereItIsRead))
            .flatMap(field -> now(field, record))
            .distinct()
            .limit(SHOWN)
            .toList();
    return new Read(new RecordView(State.THERE, "", fields, page), Optional.of(record));
  }

  /** What is written under a key stands under it in a record that is read, as far as it is read. */
  private static FieldShape whereItIsRead(FieldShape written) {
    return written.withKey(new Pointer(List.of(written.key())).toString());
  }

  private static Stream<ShownField> now(FieldShape field, JsonNode record) {
    String text =
        switch (field.read(Pointer.parse(field.key()).in(record))) {
          case Value value -> called(field, value);
          case Warned warned -> called(field, warned.value());
          default -> "";
        };
    return text.isBlank() ? Stream.empty() : Stream.of(new ShownField(field.name(), text));
  }

  private static String called(FieldShape field, Value value) {
    List<Value> all = value instanceof ListValue list ? list.items() : List.of(value);
    return all.stream()
        .map(Value::display)
        .map(key -> field.names().getOrDefault(key, key))
        .collect(Collectors.joining(", "));
  }
}
