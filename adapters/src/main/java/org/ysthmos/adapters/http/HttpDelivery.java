package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpCollection.Find;
import org.ysthmos.adapters.http.HttpCollection.Placed;
import org.ysthmos.adapters.http.HttpCollection.Write;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.gateway.TaskGateway.Effect;
import org.ysthmos.core.gateway.TaskGateway.Outcome;
import org.ysthmos.core.gateway.TaskGateway.Progress;
import org.ysthmos.core.gateway.TaskGateway.Undelivered;
import org.ysthmos.core.json.PlainJson;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** Makes one effect, call by call, as its collection describes it. */
final class HttpDelivery {

  /** What a path goes by, one place or one up, instead of naming anything (RFC 3986, 5.2.4). */
  private static final Set<String> STEPS = Set.of(".", "..");

  private final HttpSystem system;
  private final HttpFailures failures;
  private final HttpCollection collection;
  private final Effect effect;
  private final CallLog calls;
  private final Map<String, JsonNode> stored = new LinkedHashMap<>();
  private final List<String> marks = new ArrayList<>();
  private Optional<JsonNode> whole = Optional.empty();
  private Optional<String> record;

  /** Whether a call of ours changed the record, so that its tag is another by now. */
  private boolean wrote;

  private boolean unnamed;

  HttpDelivery(
      HttpSystem system,
      HttpFailures failures,
      HttpCollection collection,
      Effect effect,
      CallLog calls) {
    this.system = system;
    this.failures = failures;
    this.collection = collection;
    this.effect = effect;
    this.calls = calls;
    this.record = effect.record();
  }

  Outcome make(Progress progress) {
    List<Write> writes = effect.makes() ? collection.create() : collection.change();
    Optional<Failure> elsewhere = effect.makes() ? Optional.empty() : elsewhere();
    if (elsewhere.isPresent()) {
      return new Undelivered(elsewhere.get());
    }
    for (int i = effect.makes() && record.isPresent() ? 1 : 0; i < writes.size(); i++) {
      boolean more = writes.stream().skip(i + 1L).anyMatch(this::writesAny);
      Optional<Failure> failure = write(writes.get(i), more ? progress : made -> {});
      if (failure.isPresent()) {
        return new Undelivered(failure.get(), unnamed);
      }
    }
    return record
        .<Outcome>map(id -> new Delivered(id, stored, marks, whole))
        .orElseGet(
            () ->
                new Undelivered(
                    Failure.of(
                        FailureKind.NOT_ALLOWED,
                        collection.shape().name() + " takes no new records")));
  }

  /**
   * A task that is to stand elsewhere than where it was made: no call says so, as where it stands
   * is in addresses alone.
   */
  private Optional<Failure> elsewhere() {
    for (Write write : collection.create()) {
      for (String field : write.addressed()) {
        Value wanted = effect.fields().getOrDefault(field, Nothing.NOTHING);
        Value held = effect.held().getOrDefault(field, Nothing.NOTHING);
        boolean written =
            collection.change().stream()
                .flatMap(one -> one.fields().stream())
                .anyMatch(placed -> placed.field().equals(field));
        boolean apart =
            held != Nothing.NOTHING && wanted != Nothing.NOTHING && !wanted.equals(held);
        if (!written && apart) {
          String name = collection.shape().field(field).map(FieldShape::name).orElse(field);
          return Optional.of(moved(name, held, wanted));
        }
      }
    }
    return Optional.empty();
  }

  /** Makes one call; gives why it failed. */
  private Optional<Failure> write(Write write, Progress progress) {
    boolean makes = record.isEmpty();
    ObjectNode changed = placed(write, JsonNodeFactory.instance.objectNode());
    if (changed.isEmpty() && !makes) {
      return Optional.empty();
    }
    Map<String, String> headers = new LinkedHashMap<>();
    ObjectNode fields;
    try {
      fields = makes ? changed : current(write, headers).orElse(changed);
    } catch (Unread e) {
      return Optional.of(e.failure);
    }
    if (makes) {
      write.keyField().ifPresent(field -> changed.put(field, effect.idempotencyKey()));
      write.keyHeader().ifPresent(header -> headers.put(header, effect.idempotencyKey()));
    }
    Map<String, String> slots = new HashMap<>(Map.of("id", record.orElse("")));
    Optional<Failure> unaddressed = address(write, slots);
    if (unaddressed.isPresent()) {
      return unaddressed;
    }
    Purpose completes = effect.makes() ? Purpose.COMPLETE : Purpose.CHANGE;
    Purpose purpose = makes ? Purpose.CREATE : completes;
    Answer answer = system.call(purpose, write.call(), slots, headers, body(write, fields), calls);
    if (!(answer instanceof Answered answered) || answered.status() / 100 != 2) {
      return Optional.of(failures.of(answer, true));
    }
    wrote = true;
    note(write, answered.body());
    if (makes) {
      JsonNode id = collection.createdId().in(answered.body());
      if (!id.isValueNode()) {
        unnamed = true;
        return Optional.of(
            failures.shapeChanged("no id stands at “" + collection.createdId() + "”"));
      }
      record = Optional.of(id.asText());
      progress.made(id.asText());
    }
    return Optional.empty();
  }

  /**
   * Fills the slots of an address by the fields that stand in it: where the task stands, which is
   * where it stood when it was last written.
   *
   * @return why there is no such address; empty if there is one
   */
  private Optional<Failure> address(Write write, Map<String, String> slots) {
    for (String field : write.addressed()) {
      Value wanted = effect.fields().getOrDefault(field, Nothing.NOTHING);
      Value held = effect.held().getOrDefault(field, Nothing.NOTHING);
      Value stands = held == Nothing.NOTHING ? wanted : held;
      String name = collection.shape().field(field).map(FieldShape::name).orElse(field);
      if (held != Nothing.NOTHING && wanted != Nothing.NOTHING && !held.equals(wanted)) {
        return Optional.of(moved(name, held, wanted));
      }
      if (stands == Nothing.NOTHING || STEPS.contains(stands.display())) {
        return Optional.of(noAddress(name, stands));
      }
      slots.put(field, stands.display());
    }
    return Optional.empty();
  }

  private Failure moved(String name, Value held, Value wanted) {
    return Failure.of(
            FailureKind.NOT_ALLOWED,
            "%s stands in the address of its %s, so that it cannot be changed from “%s” to “%s”"
                .formatted(name, collection.shape().recordWord(), held.display(), wanted.display()))
        .withField(name, wanted.display())
        .withRemedy("Move it there by hand, or let another task be made by its match key");
  }

  private static Failure noAddress(String name, Value stands) {
    return Failure.of(
            FailureKind.MAPPING_ERROR,
            stands == Nothing.NOTHING
                ? "%s stands in the address of the call and has no value".formatted(name)
                : "%s stands in the address of the call, where “%s” would lead elsewhere"
                    .formatted(name, stands.display()))
        .withField(name, stands.display())
        .withRemedy("Let the bridge's rule for the field give its name or id, then send again");
  }

  /** The record could not be read, which must come before it is written. */
  private static final class Unread extends Exception {
    private final transient Failure failure;

    Unread(Failure failure) {
      super(failure.message());
      this.failure = failure;
    }
  }

  /**
   * The record as it is, with what changes in it, where it is sent whole; notes its tag where that
   * must not have changed.
   */
  private Optional<ObjectNode> current(Write write, Map<String, String> headers) throws Unread {
    if (!write.ifMatch() && !write.whole()) {
      return Optional.empty();
    }
    if (!write.whole() && effect.tag().isPresent() && !wrote) {
      headers.put("If-Match", effect.tag().get());
      return Optional.empty();
    }
    Answer now = read();
    if (!(now instanceof Answered answered) || answered.status() / 100 != 2) {
      throw new Unread(failures.of(now, false));
    }
    if (write.ifMatch()) {
      headers.put(
          "If-Match",
          answered
              .tag()
              .orElseThrow(() -> new Unread(failures.shapeChanged("no ETag comes with a record"))));
    }
    if (!write.whole()) {
      return Optional.empty();
    }
    JsonNode inner = write.at().in(answered.body());
    if ((inner.isObject() ? inner : answered.body()) instanceof ObjectNode whole) {
      return Optional.of(placed(write, whole.deepCopy()));
    }
    throw new Unread(failures.shapeChanged("a record is no JSON object"));
  }

  /** Reads the record, for its entity tag or to send it whole. */
  private Answer read() {
    Find byId =
        collection.finds().stream()
            .filter(find -> find.by().equals(List.of("id")))
            .findFirst()
            .orElseThrow(
                () ->
                    new IllegalStateException(
                        collection.shape().name() + " is changed if-match but not found by id"));
    return system.call(
        Purpose.READ_VERSION,
        byId.call(),
        Map.of("id", record.orElse("")),
        Map.of(),
        MissingNode.getInstance(),
        calls);
  }

  private boolean writesAny(Write write) {
    return write.fields().stream().anyMatch(one -> effect.fields().containsKey(one.field()));
  }

  /** Puts what is written into an object. */
  private ObjectNode placed(Write write, ObjectNode into) {
    for (Placed placed : write.fields()) {
      Value value = effect.fields().get(placed.field());
      if (value != null) {
        PlainJson.set(into, placed.at(), PlainJson.of(value));
      }
    }
    return into;
  }

  private static ObjectNode body(Write write, ObjectNode fields) {
    Pointer at = write.at();
    ObjectNode body = fields;
    for (String token : at.tokens().reversed()) {
      ObjectNode outer = JsonNodeFactory.instance.objectNode();
      outer.set(token, body);
      body = outer;
    }
    return body;
  }

  /** What the system says it keeps, of the fields that this call wrote, or the whole. */
  private void note(Write write, JsonNode answer) {
    JsonNode inner = write.at().in(answer);
    JsonNode task = inner.isObject() ? inner : answer;
    marks.addAll(collection.marks(task));
    whole = Optional.of(task).filter(any -> write.answersWhole());
    for (Placed placed : write.fields()) {
      JsonNode kept = placed.at().in(task);
      if (!kept.isMissingNode() && !kept.isNull()) {
        stored.put(placed.field(), kept);
      }
    }
  }
}
