package org.ysthmos.app.duplicate;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.likeness.TaskLikeness;
import org.ysthmos.core.likeness.TitleLikeness;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** Reads tasks as they are now, where they stand. */
@Component
class Sides {

  /** What reading a task came to. */
  sealed interface Read {}

  /**
   * It is there.
   *
   * @param closed whether it is done, as far as its system says so
   */
  record There(JsonNode task, boolean closed) implements Read {}

  record Gone() implements Read {}

  record Unread(Failure failure) implements Read {}

  private final Systems systems;

  Sides(Systems systems) {
    this.systems = systems;
  }

  Read read(CollectionRef at, String record) {
    Optional<Systems.Connected> connected = systems.find(at.system());
    Optional<SystemCollection> collection = systems.collection(at.system(), at.collection());
    if (connected.isEmpty() || collection.isEmpty()) {
      return new Unread(Failure.of(FailureKind.NOT_FOUND, "Its collection is not connected"));
    }
    SequencedMap<String, String> id = new LinkedHashMap<>();
    id.put("id", record);
    return switch (connected.get().gateway().find(at.collection(), id, call -> {})) {
      case World.Unanswered unanswered -> new Unread(unanswered.failure());
      case World.Found found when found.records().isEmpty() -> new Gone();
      case World.Found found -> {
        JsonNode task = found.records().getFirst();
        yield new There(task, isClosed(collection.get().closing(), task));
      }
    };
  }

  /** Whether a task that a system told of is done, as far as the system says so. */
  boolean isClosed(CollectionRef at, JsonNode task) {
    return systems
        .collection(at.system(), at.collection())
        .filter(one -> isClosed(one.closing(), task))
        .isPresent();
  }

  private static boolean isClosed(Map<String, Value> closing, JsonNode task) {
    return !closing.isEmpty()
        && closing.entrySet().stream()
            .allMatch(
                one -> StoredText.of(task.path(one.getKey())).equals(one.getValue().display()));
  }

  /**
   * How alike a task of ours and another are.
   *
   * @param compare the keys of the fields that count beside the title
   * @param ours what ours holds, or is to hold
   */
  TaskLikeness likeness(
      CollectionRef at,
      TitleLikeness title,
      List<String> compare,
      Map<String, Value> ours,
      JsonNode other) {
    SequencedMap<String, Boolean> fields = new LinkedHashMap<>();
    systems.find(at.system(), at.collection()).stream()
        .flatMap(shape -> shape.fields().stream())
        .filter(field -> compare.contains(field.key()))
        .forEach(
            field ->
                fields.put(
                    field.name(),
                    text(ours.getOrDefault(field.key(), Nothing.NOTHING))
                        .equals(text(field.read(other.path(field.key()))))));
    return TaskLikeness.of(title, fields);
  }

  private static String text(Computed computed) {
    return computed instanceof Value value ? value.display() : "";
  }

  /** The field by which people know the tasks of a collection; empty if there is none. */
  String titleField(CollectionRef at) {
    return systems.find(at.system(), at.collection()).map(shape -> shape.titleField()).orElse("");
  }
}
