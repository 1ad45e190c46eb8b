package org.ysthmos.app.courier;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.pair.Writings;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;

/** Looks whether a task is still as it was when it was last written from here. */
@Component
public class TaskLooks {

  /** What a look came to. */
  public sealed interface Look {}

  /** It holds what was written. */
  public record Same() implements Look {}

  /** Somebody changed it since. */
  public record Changed() implements Look {}

  /** It is not there any more. */
  public record Gone() implements Look {}

  /** It could not be looked at. */
  public record Unseen(Failure failure) implements Look {}

  private final Writings writings;
  private final Systems systems;

  TaskLooks(Writings writings, Systems systems) {
    this.writings = writings;
    this.systems = systems;
  }

  /** Whether records of a collection can be looked at by their id. */
  public boolean canLook(String system, String collection) {
    return systems
        .collection(system, collection)
        .filter(one -> one.findsBy().contains(List.of("id")))
        .isPresent();
  }

  /** Looks at a task. Nothing is changed; that it was looked at is for the caller to tell. */
  public Look look(String system, String collection, String record, CallLog calls) {
    Optional<Systems.Connected> connected = systems.find(system);
    if (connected.isEmpty() || !canLook(system, collection)) {
      return new Unseen(
          Failure.of(FailureKind.NOT_FOUND, "It cannot be looked at by its id where it stands"));
    }
    SequencedMap<String, String> id = new LinkedHashMap<>();
    id.put("id", record);
    return switch (connected.get().gateway().find(collection, id, calls)) {
      case World.Unanswered unanswered -> new Unseen(unanswered.failure());
      case World.Found found when found.records().isEmpty() -> new Gone();
      case World.Found found ->
          isChanged(system, collection, record, found.records().getFirst())
              ? new Changed()
              : new Same();
    };
  }

  /**
   * A record that tells its states from one another is changed if it is in none that it was brought
   * to from here; of any other only what was written is known.
   */
  private boolean isChanged(String system, String collection, String record, JsonNode task) {
    SystemCollection described = systems.collection(system, collection).orElseThrow();
    List<String> marks = described.marks(task);
    Writings.Written written = writings.written(system, collection, record);
    if (!marks.isEmpty() && !written.marks().isEmpty()) {
      return marks.stream().noneMatch(written.marks()::contains);
    }
    return written.differsFrom(task);
  }
}
