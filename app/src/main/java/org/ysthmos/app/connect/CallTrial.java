package org.ysthmos.app.connect;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.TextNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.connect.Connecting.Opened;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.DirectoryReading;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.ShapeChange;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** One call of a described collection, really made, and what it came to. */
final class CallTrial {

  private static final JsonMapper JSON = ExactJson.mapper();
  private static final Set<Call> NEED_A_RECORD = Set.of(Call.FIND, Call.CHANGE, Call.REMOVE);
  private static final int SAMPLE = 20;
  private static final int LONGEST_RECORD = 20_000;

  /** The calls that can be tried, in the order in which it makes sense. */
  enum Call {
    CHANGES,
    LIST,
    FIND,
    KEY,
    MAKE,
    CHANGE,
    REMOVE
  }

  /**
   * What a call came to.
   *
   * @param works whether it was answered as described
   * @param said what happened, in words
   * @param record a record that it gave or made, as JSON; empty if it gave none
   * @param id the id of it; empty if there is none
   * @param differences how the records differ from the described fields
   * @param calls what was sent and answered, secrets masked
   */
  record Outcome(
      boolean works,
      String said,
      String record,
      String id,
      List<String> differences,
      List<RemoteCall> calls) {}

  private static final Set<Integer> PAGE_SIZES =
      Set.of(10, 15, 20, 24, 25, 30, 50, 100, 200, 250, 500, 1000);

  private final Opened system;
  private final String collection;
  private final SystemCollection described;
  private final List<RemoteCall> calls = new ArrayList<>();

  CallTrial(Opened system, String collection) {
    this.system = system;
    this.collection =
        Optional.ofNullable(system.description().many().get(collection))
            .map(many -> firstOf(system, many))
            .orElse(collection);
    this.described =
        system
            .description()
            .find(this.collection)
            .orElseThrow(() -> ApiProblem.notFound("collection", collection));
  }

  /** Places that are described alike are tried at the first that their system names. */
  private static String firstOf(Opened system, ManyPlaces many) {
    DirectoryReading read = system.gateway().directories(call -> {}).get(many.directory());
    if (read instanceof DirectoryReading.Names names && !names.names().isEmpty()) {
      return new PlaceId(many.id(), names.names().firstEntry().getKey()).collection();
    }
    throw new ApiProblem(
        HttpStatus.CONFLICT,
        "No place to try it at",
        read instanceof DirectoryReading.Unread unread
            ? "Which %s there are could not be read: %s"
                .formatted(many.name(), Words.sentence(unread.failure()))
            : "Its system names none just now.");
  }

  /** The calls that are described for a collection. */
  static List<Call> described(SystemCollection collection) {
    List<Call> calls = new ArrayList<>();
    collection.polled().ifPresent(asked -> calls.add(Call.CHANGES));
    collection.lists().ifPresent(id -> calls.add(Call.LIST));
    if (collection.findsBy().contains(List.of("id"))) {
      calls.add(Call.FIND);
    }
    if (collection.findsByKey()) {
      calls.add(Call.KEY);
    }
    if (collection.makes()) {
      calls.add(Call.MAKE);
    }
    if (collection.changes()) {
      calls.add(Call.CHANGE);
    }
    if (collection.removes()) {
      calls.add(Call.REMOVE);
    }
    return calls;
  }

  /**
   * @param id of the record that is found, changed or taken away
   * @param fields what a record is made or changed with, as text
   */
  Outcome make(Call call, String id, Map<String, String> fields) {
    if (id.isBlank() && NEED_A_RECORD.contains(call)) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Which record?",
          "Give the id of the record that is to be found, changed or taken away.");
    }
    return switch (call) {
      case CHANGES -> changes();
      case LIST -> records(system.gateway().list(collection, SAMPLE, calls::add));
      case FIND -> records(system.gateway().find(collection, keys(id), calls::add));
      case KEY -> key();
      case MAKE -> deliver(Optional.empty(), fields);
      case CHANGE -> deliver(Optional.of(id), fields);
      case REMOVE -> remove(id);
    };
  }

  private static SequencedMap<String, String> keys(String id) {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", id);
    return keys;
  }

  private Outcome changes() {
    return switch (system.gateway().changes(collection, Cursor.BEGINNING, calls::add)) {
      case NotRead notRead -> failed(notRead.failure());
      case Page page -> {
        List<JsonNode> records = page.records().stream().map(Changed::record).toList();
        boolean more = page.next().isPresent();
        String rest = more ? ", and there are more pages" : isThatAll(records.size());
        yield answered(counted(records.size()) + " came" + rest, records);
      }
    };
  }

  /**
   * So many may be all, or a first page of which the document does not know that others follow. The
   * sizes of pages are common practice, no source.
   */
  private static String isThatAll(int records) {
    return PAGE_SIZES.contains(records)
        ? ". Is that all? If there are further pages, say under poll how one leads to the next"
        : "";
  }

  private Outcome records(LookupAnswer answer) {
    return switch (answer) {
      case Unanswered unanswered -> failed(unanswered.failure());
      case Found found -> answered(counted(found.records().size()) + " came", found.records());
    };
  }

  private String counted(int records) {
    String word = described.shape().recordWord();
    return records == 1 ? "1 " + word : records + " " + word + "s";
  }

  private Outcome answered(String said, List<JsonNode> records) {
    Optional<JsonNode> first = records.stream().findFirst();
    String id =
        first
            .flatMap(
                record ->
                    described
                        .lists()
                        .or(() -> described.polled().map(asked -> asked.id()))
                        .map(at -> at.in(record).asText("")))
            .orElse("");
    return new Outcome(
        true,
        said,
        Words.limited(first.map(JsonNode::toPrettyString).orElse(""), LONGEST_RECORD),
        id,
        differences(records),
        calls);
  }

  private List<String> differences(List<JsonNode> records) {
    return ShapeChange.between(described.readFields(), records, Set.of()).stream()
        .map(ShapeChange::words)
        .toList();
  }

  private Outcome key() {
    String nobody = "ysthmos-looks-" + UUID.randomUUID();
    return switch (system.gateway().findByKey(collection, nobody, calls::add)) {
      case TaskGateway.Unsearched unsearched -> failed(unsearched.failure());
      case TaskGateway.Unsearchable nowhere ->
          answered(
              "Nothing is found here by our key; after a lost answer a person decides", List.of());
      case TaskGateway.Searched searched ->
          searched.record().isEmpty()
              ? answered("A key that nobody has finds nothing, as it should", List.of())
              : new Outcome(
                  false,
                  "A key that nobody has finds the record “"
                      + searched.record().get()
                      + "”. The search does not look at the key.",
                  "",
                  "",
                  List.of(),
                  calls);
    };
  }

  private Outcome deliver(Optional<String> record, Map<String, String> fields) {
    SequencedMap<String, Value> values = new LinkedHashMap<>();
    fields.forEach(
        (key, text) -> {
          FieldShape field =
              described
                  .shape()
                  .written()
                  .field(key)
                  .orElseThrow(() -> ApiProblem.notFound("field", key));
          Computed read = read(text, field.type());
          if (!(read instanceof Value value)) {
            throw new ApiProblem(
                HttpStatus.UNPROCESSABLE_ENTITY,
                "The call cannot be made",
                field.name()
                    + ": "
                    + (read instanceof Problem problem ? problem.message() : "")
                    + ".");
          }
          values.put(key, value);
        });
    String key = "ysthmos-try-" + UUID.randomUUID();
    var effect =
        new TaskGateway.Effect(
            collection,
            record.isEmpty() ? EffectKind.CREATE : EffectKind.CHANGE,
            key,
            record,
            values);
    return switch (system.gateway().deliver(effect, made -> {}, calls::add)) {
      case TaskGateway.Undelivered undelivered -> failed(undelivered.failure());
      case TaskGateway.Delivered delivered ->
          new Outcome(
              true,
              (record.isEmpty() ? "Made as “" : "Changed: “") + delivered.record() + "”",
              delivered.storedTexts().toString(),
              delivered.record(),
              List.of(),
              calls);
    };
  }

  /**
   * What was typed as a value of a type: as text where that reads as one, else as JSON, so that
   * numbers, flags and lists can be given; a text alone where a list is wanted is a list of one.
   */
  private static Computed read(String text, ValueType type) {
    Computed asText = TypedReader.read(TextNode.valueOf(text), type);
    if (asText instanceof Value) {
      return asText;
    }
    for (JsonNode other : List.of(json(text), JSON.createArrayNode().add(text))) {
      if (TypedReader.read(other, type) instanceof Value value) {
        return value;
      }
    }
    return asText;
  }

  private static JsonNode json(String text) {
    try {
      return JSON.readTree(text);
    } catch (JsonProcessingException e) {
      // Whoever typed it learns why it is no value of the field.
      return JSON.missingNode();
    }
  }

  private Outcome remove(String id) {
    return switch (system.gateway().remove(collection, id, Optional.empty(), calls::add)) {
      case TaskGateway.NotRemoved notRemoved -> failed(notRemoved.failure());
      case TaskGateway.Removed removed ->
          new Outcome(true, "“" + id + "” is not there any more", "", "", List.of(), calls);
    };
  }

  private Outcome failed(Failure failure) {
    return new Outcome(false, Words.sentence(failure), "", "", List.of(), calls);
  }
}
