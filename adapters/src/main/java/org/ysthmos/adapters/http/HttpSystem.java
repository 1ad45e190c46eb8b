package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.function.Function;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.SystemDescription.Call;
import org.ysthmos.adapters.system.SystemDescription.Collection;
import org.ysthmos.adapters.system.SystemDescription.Find;
import org.ysthmos.adapters.system.SystemDescription.Write;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.ChangeGateway;
import org.ysthmos.core.gateway.RecordGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.value.Value;

/** A system that speaks JSON over HTTP, as its document describes it. */
public final class HttpSystem implements RecordGateway, TaskGateway, ChangeGateway, AutoCloseable {

  private final SystemDescription system;
  private final HttpCaller caller;
  private final HttpFailures failures;

  /**
   * @param secrets gives a secret by its name, asked at each call; with an unknown one the call is
   *     not signed in
   */
  public HttpSystem(
      SystemDescription system, Function<String, Optional<String>> secrets, InstantSource clock) {
    this.system = system;
    this.caller =
        new HttpCaller(
            system.name(),
            system.timeout(),
            system.signIn().map(SystemDescription.SignIn::header),
            () -> system.signIn().flatMap(how -> secrets.apply(how.secret()).map(how::value)),
            clock);
    this.failures = new HttpFailures(system, clock);
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog calls) {
    Optional<Find> find =
        collection(collection).finds().stream()
            .filter(f -> Set.copyOf(f.by()).equals(keys.keySet()))
            .findFirst();
    if (find.isEmpty()) {
      return new Unanswered(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  system.name() + " cannot find records by " + String.join(", ", keys.keySet()))
              .withRemedy("Describe such a call in the system's document"));
    }
    Answer answer = call(find.get().call(), keys, MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered)) {
      return new Unanswered(failures.of(answer, false));
    }
    if (answered.status() == 404 || answered.status() == 410) {
      return new Found(List.of());
    }
    if (answered.status() / 100 != 2) {
      return new Unanswered(failures.of(answer, false));
    }
    return found(find.get(), answered.body());
  }

  private LookupAnswer found(Find find, JsonNode body) {
    return find.items().map(items -> items(items, body)).orElseGet(() -> new Found(List.of(body)));
  }

  private LookupAnswer items(Pointer at, JsonNode body) {
    JsonNode items = at.in(body);
    if (!items.isArray()) {
      return new Unanswered(shapeChanged("no list stands at “" + at + "”"));
    }
    List<JsonNode> records = new ArrayList<>();
    items.forEach(records::add);
    return new Found(records);
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog calls) {
    Optional<SystemDescription.Listing> list = collection(collection).list();
    if (list.isEmpty()) {
      return new Unanswered(
          Failure.of(FailureKind.SHAPE_CHANGED, system.name() + " lists no records")
              .withRemedy("Describe such a call as “list” in the system's document"));
    }
    Answer answer = call(list.get().call(), Map.of(), MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new Unanswered(failures.of(answer, false));
    }
    return switch (items(list.get().items(), answered.body())) {
      case Found found when found.records().size() > most ->
          new Found(found.records().subList(0, most));
      case LookupAnswer whole -> whole;
    };
  }

  @Override
  public Changes changes(String collection, Place place, CallLog calls) {
    return collection(collection)
        .poll()
        .<Changes>map(poll -> new HttpChanges(system, poll, caller, failures).read(place, calls))
        .orElseGet(
            () ->
                new NotRead(
                    Failure.of(
                            FailureKind.SHAPE_CHANGED, system.name() + " is not asked for changes")
                        .withRemedy("Describe such a call as “poll” in the system's document")));
  }

  private Failure shapeChanged(String what) {
    return failures.shapeChanged(what);
  }

  @Override
  public Search findByKey(String collection, String idempotencyKey, CallLog calls) {
    Optional<SystemDescription.FindByKey> find = collection(collection).findByKey();
    if (find.isEmpty()) {
      return new Searched(Optional.empty());
    }
    Answer answer =
        call(find.get().call(), Map.of("key", idempotencyKey), MissingNode.getInstance(), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return new Unsearched(failures.of(answer, false));
    }
    JsonNode items = find.get().items().in(answered.body());
    if (!items.isArray()) {
      return new Unsearched(shapeChanged("no list stands at “" + find.get().items() + "”"));
    }
    return new Searched(
        items.isEmpty()
            ? Optional.empty()
            : Optional.of(find.get().id().in(items.get(0)).asText()));
  }

  @Override
  public Outcome deliver(Effect effect, Progress progress, CallLog calls) {
    Collection collection = collection(effect.collection());
    Optional<String> record = effect.record();
    Map<String, String> stored = new LinkedHashMap<>();
    List<Write> writes = effect.creates() ? collection.create() : collection.change();
    for (int i = effect.creates() && record.isPresent() ? 1 : 0; i < writes.size(); i++) {
      Write write = writes.get(i);
      boolean makes = record.isEmpty();
      ObjectNode body = body(write, effect.fields());
      if (body.isEmpty() && !makes) {
        continue;
      }
      if (makes) {
        write.keyField().ifPresent(field -> body.put(field, effect.idempotencyKey()));
      }
      Map<String, String> slots = Map.of("id", record.orElse(""));
      Answer answer = call(write.call(), slots, body, calls);
      if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
        return new Undelivered(failures.of(answer, true));
      }
      note(write, answered.body(), stored);
      if (makes) {
        JsonNode id = collection.createdId().in(answered.body());
        if (!id.isValueNode()) {
          return new Undelivered(shapeChanged("no id stands at “" + collection.createdId() + "”"));
        }
        record = Optional.of(id.asText());
        progress.made(id.asText());
      }
    }
    return record
        .<Outcome>map(id -> new Delivered(id, stored))
        .orElseGet(
            () ->
                new Undelivered(
                    Failure.of(
                        FailureKind.NOT_ALLOWED,
                        collection.shape().name() + " takes no new records")));
  }

  @Override
  public Removal remove(String collection, String record, CallLog calls) {
    Optional<Call> remove = collection(collection).remove();
    if (remove.isEmpty()) {
      return new NotRemoved(
          Failure.of(FailureKind.NOT_ALLOWED, system.name() + " takes no records away")
              .withRemedy("Take it away there by hand, or describe such a call as “remove”"));
    }
    Answer answer = call(remove.get(), Map.of("id", record), MissingNode.getInstance(), calls);
    if (answer instanceof Answered answered
        && (answered.status() / 100 == 2 || answered.status() == 404 || answered.status() == 410)) {
      return new Removed();
    }
    return new NotRemoved(failures.of(answer, true));
  }

  private static void note(Write write, JsonNode answer, Map<String, String> stored) {
    for (String field : write.fields()) {
      JsonNode kept = answer.path(field);
      if (!kept.isMissingNode() && !kept.isNull()) {
        stored.put(field, StoredText.of(kept));
      }
    }
  }

  private static ObjectNode body(Write write, SequencedMap<String, Value> fields) {
    ObjectNode body = JsonNodeFactory.instance.objectNode();
    for (String field : write.fields()) {
      Value value = fields.get(field);
      if (value != null) {
        body.set(field, PlainJson.of(value));
      }
    }
    return body;
  }

  private Collection collection(String id) {
    return Optional.ofNullable(system.collections().get(id))
        .orElseThrow(
            () -> new IllegalArgumentException(system.name() + " has no collection " + id));
  }

  private Answer call(Call call, Map<String, String> slots, JsonNode body, CallLog calls) {
    String path = call.path();
    for (Map.Entry<String, String> slot : slots.entrySet()) {
      path = path.replace("{" + slot.getKey() + "}", encode(slot.getValue()));
    }
    return caller.call(call.method(), URI.create(system.address() + path), body, calls);
  }

  private static String encode(String value) {
    return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
  }

  @Override
  public void close() {
    caller.close();
  }
}
