package org.ysthmos.core.gateway;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.TreeMap;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.value.Value;

/** Makes and changes tasks in one system. A task is one thing, however many calls it takes. */
public interface TaskGateway {

  /**
   * One effect to make.
   *
   * @param idempotencyKey kept by the system with the task where it can
   * @param record the task's id; empty while it is not made
   * @param fields what is to be written
   * @param held what the task held when it was last written, by which its address is found where
   *     fields stand in that; empty while it is not made
   * @param tag the entity tag of what was read before, which must not have changed (RFC 9110,
   *     13.1.1); empty where it is read just before, if it is asked for at all
   */
  record Effect(
      String collection,
      EffectKind kind,
      String idempotencyKey,
      Optional<String> record,
      SequencedMap<String, Value> fields,
      Map<String, Value> held,
      Optional<String> tag) {

    /** An effect on a record whose address needs nothing but its id. */
    public Effect(
        String collection,
        EffectKind kind,
        String idempotencyKey,
        Optional<String> record,
        SequencedMap<String, Value> fields) {
      this(collection, kind, idempotencyKey, record, fields, Map.of(), Optional.empty());
    }

    /** Whether the task is to be made; otherwise it is to be changed. */
    public boolean makes() {
      return kind.doublesWhenRepeated();
    }
  }

  /** Told of what must be written down between two calls. */
  @FunctionalInterface
  interface Progress {
    /** The task exists now and has this id, and further calls follow. */
    void made(String record);
  }

  /** What a delivery came to. */
  sealed interface Outcome {}

  /**
   * All calls were answered well.
   *
   * @param stored the fields as the system says it keeps them, as they stand in its answers; those
   *     it said nothing of are left out
   * @param marks what tells the states that the task was in after our calls from its others, so
   *     that events of them are known as ours: a version, an entity tag, a digest of the whole
   * @param whole the task as it would be read by itself, where the last answer was that
   */
  record Delivered(
      String record, Map<String, JsonNode> stored, List<String> marks, Optional<JsonNode> whole)
      implements Outcome {
    public Delivered(String record, Map<String, JsonNode> stored, List<String> marks) {
      this(record, stored, marks, Optional.empty());
    }

    public Delivered {
      stored = Map.copyOf(stored);
      marks = List.copyOf(marks);
    }

    /** The fields as the system says it keeps them, as text. */
    public Map<String, String> storedTexts() {
      Map<String, String> texts = new TreeMap<>();
      stored.forEach((field, kept) -> texts.put(field, StoredText.of(kept)));
      return texts;
    }
  }

  /**
   * A call failed; what was made before it stays made.
   *
   * @param unnamed whether a record was made of which the answer does not say what it is called
   */
  record Undelivered(Failure failure, boolean unnamed) implements Outcome {

    public Undelivered(Failure failure) {
      this(failure, false);
    }
  }

  /** What a search by idempotency key came to. */
  sealed interface Search {}

  /** The search was answered; empty if no task has the key. */
  record Searched(Optional<String> record) implements Search {}

  /** Nothing there is found by a key of ours, so that nothing can be said. */
  record Unsearchable() implements Search {}

  /** The search could not be answered. */
  record Unsearched(Failure failure) implements Search {}

  /** Looks for the task that an effect with an unknown answer may have made. */
  Search findByKey(String collection, String idempotencyKey, CallLog calls);

  /** Makes the effect. For a task that is made already, only the calls after the first are made. */
  Outcome deliver(Effect effect, Progress progress, CallLog calls);

  /** What taking a task away came to. */
  sealed interface Removal {}

  /** The task is not there any more, whether or not this call took it away. */
  record Removed() implements Removal {}

  /** The task may still be there. */
  record NotRemoved(Failure failure) implements Removal {}

  /**
   * Takes a task away.
   *
   * @param tag the entity tag of what was read before, which must not have changed by then (RFC
   *     9110, 13.1.1), where the system heeds it; empty if the task goes whatever it holds
   */
  Removal remove(String collection, String record, Optional<String> tag, CallLog calls);
}
