package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rehearsal.Rehearsed.FieldDifference;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What was decided of an event, as much of it as is kept to be compared with what others decide.
 *
 * @param because why it was passed by or failed; empty otherwise
 * @param tasks what was made of each task, and of what comes after them
 */
public record Outcome(Verdict verdict, String because, List<Task> tasks) {

  private static final JsonFactory FACTORY = new JsonMapper().getFactory();
  private static final int SOME_BYTES = 1_500;

  public Outcome {
    tasks = List.copyOf(tasks);
  }

  /**
   * What was made of a task.
   *
   * @param member which of several; empty where there is one
   * @param key the hash of its match key
   * @param target the id of its record; empty while it was never made
   * @param kept all of its fields, written or not
   * @param keptBefore what those of them that were changed held until then
   */
  public record Task(
      String member,
      Verdict verdict,
      String key,
      Optional<String> target,
      WrittenFields kept,
      WrittenFields keptBefore) {

    /** The id of its record; a word in its place where that was never known. */
    public String record() {
      return target.orElse("made");
    }

    /** How its pair stood once this was carried out. */
    public PairState after() {
      return state(record(), kept.values());
    }

    /** How its pair stood before; empty if there was none. */
    Optional<PairState> before() {
      if (verdict == Verdict.CREATE) {
        return Optional.empty();
      }
      Map<String, Value> agreed = kept.values();
      agreed.putAll(keptBefore.values());
      return Optional.of(state(record(), agreed));
    }

    /** How the pair of a task stands that holds these fields. */
    public static PairState state(String target, WrittenFields fields) {
      return state(target, fields.values());
    }

    private static PairState state(String target, Map<String, Value> agreed) {
      agreed.values().removeIf(value -> value == Nothing.NOTHING);
      return new PairState(Optional.of(target), agreed);
    }

    /** The same once its record has an id. */
    Task made(String id) {
      return new Task(member, verdict, key, Optional.of(id), kept, keptBefore);
    }

    /** The fields that another decision of the task holds otherwise than this. */
    List<FieldDifference> differences(Task now) {
      List<FieldDifference> found = new ArrayList<>();
      for (WrittenFields.Differing one : now.kept().differing(kept)) {
        found.add(new FieldDifference(member, one.name(), one.other(), one.own()));
      }
      return found;
    }
  }

  /**
   * @param pairs how a pair stood when it was decided
   */
  public static Outcome of(Decision decision, Function<MatchKey, Optional<PairState>> pairs) {
    return new Outcome(
        decision.verdict(),
        because(decision),
        decision.tasks().stream().map(task -> task(task, pairs)).toList());
  }

  /** The same where nobody will ask how its pairs stood before. */
  static Outcome afterwards(Decision decision) {
    return new Outcome(
        decision.verdict(),
        because(decision),
        decision.tasks().stream().map(task -> task(task, WrittenFields.NONE)).toList());
  }

  /** Why an event was passed by or failed; empty otherwise. */
  private static String because(Decision decision) {
    return decision.failures().isEmpty()
        ? decision.because()
        : decision.failures().getFirst().message();
  }

  private static Task task(TaskDecision task, Function<MatchKey, Optional<PairState>> pairs) {
    Map<String, Value> before = new LinkedHashMap<>();
    if (task.verdict() == Verdict.UPDATE) {
      Map<String, Value> agreed = pairs.apply(task.key()).map(PairState::agreed).orElse(Map.of());
      task.delivery()
          .ifPresent(
              written ->
                  written
                      .fields()
                      .keySet()
                      .forEach(
                          field -> before.put(field, agreed.getOrDefault(field, Nothing.NOTHING))));
    }
    return task(task, before.isEmpty() ? WrittenFields.NONE : WrittenFields.of(before));
  }

  private static Task task(TaskDecision task, WrittenFields before) {
    return new Task(
        task.member(),
        task.verdict(),
        task.key().hash(),
        task.target(),
        WrittenFields.of(task.fields()),
        before);
  }

  /** The task of a match key. */
  public Optional<Task> task(String key) {
    for (Task task : tasks) {
      if (task.key().equals(key)) {
        return Optional.of(task);
      }
    }
    return Optional.empty();
  }

  /** As JSON in UTF-8, for keeping; see {@link #read}. */
  public byte[] write() {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(SOME_BYTES);
    try (JsonGenerator json = FACTORY.createGenerator(bytes)) {
      json.writeStartObject();
      json.writeStringField("verdict", verdict.name());
      if (!because.isEmpty()) {
        json.writeStringField("because", because);
      }
      json.writeArrayFieldStart("tasks");
      for (Task task : tasks) {
        write(task, json, bytes);
      }
      json.writeEndArray();
      json.writeEndObject();
    } catch (IOException e) {
      throw new UncheckedIOException("what was decided cannot be written as JSON", e);
    }
    return bytes.toByteArray();
  }

  private static void write(Task task, JsonGenerator json, OutputStream bytes) throws IOException {
    json.writeStartObject();
    json.writeStringField("verdict", task.verdict().name());
    json.writeStringField("key", task.key());
    if (!task.member().isEmpty()) {
      json.writeStringField("member", task.member());
    }
    if (task.target().isPresent()) {
      json.writeStringField("target", task.target().get());
    }
    json.writeFieldName("fields");
    task.kept().write(json, bytes);
    if (!task.keptBefore().isEmpty()) {
      json.writeFieldName("before");
      task.keptBefore().write(json, bytes);
    }
    json.writeEndObject();
  }

  /**
   * @throws IllegalArgumentException if it was not made by {@link #write}
   */
  public static Outcome read(byte[] kept) {
    Verdict verdict = null;
    String because = "";
    List<Task> tasks = List.of();
    try (JsonParser json = FACTORY.createParser(kept)) {
      JsonToken unused = json.nextToken();
      while (json.nextToken() == JsonToken.FIELD_NAME) {
        switch (json.currentName()) {
          case "verdict" -> verdict = Verdict.valueOf(json.nextTextValue());
          case "because" -> because = json.nextTextValue();
          case "tasks" -> tasks = tasks(kept, json);
          default -> throw new IllegalArgumentException("no outcome has " + json.currentName());
        }
      }
    } catch (IOException e) {
      throw new IllegalArgumentException("what was decided cannot be read as JSON", e);
    }
    return new Outcome(Objects.requireNonNull(verdict, "no verdict was kept"), because, tasks);
  }

  private static List<Task> tasks(byte[] kept, JsonParser json) throws IOException {
    List<Task> tasks = new ArrayList<>();
    JsonToken unused = json.nextToken();
    while (json.nextToken() == JsonToken.START_OBJECT) {
      tasks.add(task(kept, json));
    }
    return tasks;
  }

  private static Task task(byte[] kept, JsonParser json) throws IOException {
    Map<String, String> texts = new HashMap<>();
    Map<String, WrittenFields> fields = new HashMap<>();
    while (json.nextToken() == JsonToken.FIELD_NAME) {
      String name = json.currentName();
      if (json.nextToken() == JsonToken.START_OBJECT) {
        fields.put(name, WrittenFields.read(kept, json));
      } else {
        texts.put(name, json.getText());
      }
    }
    return new Task(
        texts.getOrDefault("member", ""),
        Verdict.valueOf(required("verdict", texts)),
        required("key", texts),
        Optional.ofNullable(texts.get("target")),
        fields.getOrDefault("fields", WrittenFields.NONE),
        fields.getOrDefault("before", WrittenFields.NONE));
  }

  private static String required(String name, Map<String, String> texts) {
    return Objects.requireNonNull(texts.get(name), () -> "a task was kept without its " + name);
  }
}
