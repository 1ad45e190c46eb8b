package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.ysthmos.adapters.openapi.SystemDraft.Remark;
import org.ysthmos.core.json.Pointer;

/**
 * One collection as paths hint at it: a path that lists or takes records, and the path of one of
 * them below it. What is guessed from names is common practice, no source; every guess is remarked.
 */
final class CollectionDraft {

  private static final Pattern OF_ONE = Pattern.compile("(.+)/\\{([^{}]+)}");
  private static final Pattern SLOT = Pattern.compile("\\{([^{}]+)}");
  private static final Pattern OUR_KEY =
      Pattern.compile(
          "(?i)(external|client|foreign|idempotency|origin)[-_]?(id|ref|reference|key)|key");

  private final OpenApiTree api;
  private final String path;
  private final JsonNode many;
  private final String pathOfOne;
  private final String slot;
  private final JsonNode one;
  private final String id;
  private final ObjectNode record;
  private final Optional<ListDraft> list;
  private final List<ListDraft> changes = new ArrayList<>();

  private CollectionDraft(
      OpenApiTree api, String path, JsonNode many, String pathOfOne, String slot, JsonNode one) {
    this.api = api;
    this.path = path;
    this.many = many;
    this.pathOfOne = pathOfOne;
    this.slot = slot;
    this.one = one;
    String last = path.replaceAll("/\\{[^{}]+}", "").replaceAll(".*/", "");
    this.id = SystemDraft.id(FieldDraft.words(last));
    this.list = ListDraft.of(api, path, many);
    this.record =
        api.answer(one.path("get"))
            .filter(schema -> schema.has("properties"))
            .or(() -> list.map(ListDraft::items))
            .or(() -> api.answer(many.path("post")).filter(schema -> schema.has("properties")))
            .orElseGet(JsonNodeFactory.instance::objectNode);
  }

  String id() {
    return id;
  }

  /** All collections that the paths hint at. */
  static List<CollectionDraft> all(OpenApiTree api) {
    Map<String, JsonNode> paths = api.paths();
    Map<String, CollectionDraft> drafts = new LinkedHashMap<>();
    paths.forEach(
        (path, item) -> {
          Matcher ofOne = OF_ONE.matcher(path);
          if (ofOne.matches() && (item.has("get") || item.has("patch") || item.has("put"))) {
            JsonNode many = paths.getOrDefault(ofOne.group(1), MissingNode.getInstance());
            drafts.put(
                ofOne.group(1),
                new CollectionDraft(api, ofOne.group(1), many, path, ofOne.group(2), item));
          }
        });
    paths.forEach(
        (path, item) -> {
          if (!drafts.containsKey(path) && !OF_ONE.matcher(path).matches()) {
            Optional<ListDraft> list = ListDraft.of(api, path, item);
            Optional<CollectionDraft> same =
                list.flatMap(
                    found ->
                        drafts.values().stream()
                            .filter(draft -> draft.holdsSame(found))
                            .findFirst());
            if (same.isPresent()) {
              // Another list of the same records, such as one of what changed.
              same.get().changes.add(list.get());
            } else if (list.isPresent() || api.body(item.path("post")).isPresent()) {
              drafts.put(
                  path, new CollectionDraft(api, path, item, "", "", MissingNode.getInstance()));
            }
          }
        });
    return List.copyOf(drafts.values());
  }

  private boolean holdsSame(ListDraft other) {
    return record.has("properties")
        && record.path("properties").equals(other.items().path("properties"));
  }

  /**
   * Empty if nothing can be done there that a document could say.
   *
   * @param system the id of the system
   */
  Map<String, Object> document(String system, List<Remark> remarks) {
    Map<String, Object> document = new LinkedHashMap<>();
    List<FieldDraft> read = FieldDraft.of(api, record);
    Optional<ObjectNode> wish = api.body(many.path("post"));
    String change = one.has("patch") ? "patch" : one.has("put") ? "put" : "";
    if (read.isEmpty() && wish.isEmpty()) {
      return Map.of();
    }
    Optional<String> idAt = idOf(read);
    List<FieldDraft> written = written(wish, change, remarks);
    document.put("name", FieldDraft.capital(FieldDraft.words(id.replace('-', ' '))));
    document.put("record", singular(id));
    title(written).ifPresent(title -> document.put("title", title));
    Map<String, Object> fields = new LinkedHashMap<>();
    written.forEach(field -> fields.put(key(field), field.document(true)));
    read.forEach(field -> fields.put(field.pointer(), field.document(false)));
    document.put("fields", fields);
    Optional<PushDraft> push = PushDraft.of(api, singular(id), record, idAt);
    Optional<Map<String, Object>> poll =
        push.isPresent() ? Optional.empty() : poll(read, idAt, remarks);
    if (push.isPresent() || poll.isPresent()) {
      Map<String, Object> event = new LinkedHashMap<>();
      push.map(told -> told.fields(api))
          .orElse(read)
          .forEach(field -> event.put(field.pointer(), field.document(false)));
      document.put("event-fields", event);
    }
    if (one.has("get")) {
      document.put("find", List.of(Map.of("by", List.of("id"), "call", "GET " + ofOne())));
    }
    list.ifPresent(
        listed ->
            idAt.ifPresent(at -> document.put("list", entry("GET " + path, listed.pointer(), at))));
    findByKey(wish, idAt).ifPresent(find -> document.put("find-by-key", find));
    create(wish, written, idAt, remarks, document);
    if (!change.isEmpty()) {
      change(change, written, document);
    }
    if (one.has("delete")) {
      document.put("remove", "DELETE " + ofOne());
    }
    push.ifPresent(
        told -> {
          document.put("push", told.document(system));
          told.remarks(system, id).forEach(text -> remark(remarks, text));
        });
    poll.ifPresent(how -> document.put("poll", how));
    if (poll.isEmpty() && push.isEmpty()) {
      remark(
          remarks,
          "No call was found that tells what changed. If it sends webhooks, describe them as push.");
    }
    slots(remarks);
    return document;
  }

  private void remark(List<Remark> remarks, String text) {
    remarks.add(new Remark(id, text));
  }

  private void slots(List<Remark> remarks) {
    Matcher slots = SLOT.matcher(path);
    while (slots.find()) {
      remark(
          remarks,
          "Put a value in place of {%s} in its calls, once for each that is wanted."
              .formatted(slots.group(1)));
    }
  }

  private String ofOne() {
    return pathOfOne.replace("{" + slot + "}", "{id}");
  }

  /** Its name in the document: where it stands, its steps joined. */
  private static String key(FieldDraft field) {
    return String.join("-", Pointer.parse(field.pointer()).tokens());
  }

  private static Map<String, Object> entry(String call, String items, String idAt) {
    Map<String, Object> entry = new LinkedHashMap<>();
    entry.put("call", call);
    entry.put("items", items);
    entry.put("id", idAt);
    return entry;
  }

  static String singular(String words) {
    String word = words.replace('-', ' ');
    return word.endsWith("ies")
        ? word.substring(0, word.length() - 3) + "y"
        : word.endsWith("s") && !word.endsWith("ss") ? word.substring(0, word.length() - 1) : word;
  }

  private Optional<String> idOf(List<FieldDraft> read) {
    List<String> likely = new ArrayList<>();
    likely.add("/id");
    if (!slot.isEmpty()) {
      likely.add("/" + slot);
    }
    likely.addAll(List.of("/uuid", "/key", "/number", "/code"));
    return likely.stream()
        .filter(at -> read.stream().anyMatch(field -> field.pointer().equals(at)))
        .findFirst();
  }

  private static Optional<String> title(List<FieldDraft> written) {
    return List.of("title", "subject", "summary", "name", "text").stream()
        .filter(key -> written.stream().anyMatch(field -> key(field).equals(key)))
        .findFirst();
  }

  /** The fields that a record is made or changed with, those of objects within it too. */
  private List<FieldDraft> written(Optional<ObjectNode> wish, String change, List<Remark> remarks) {
    Map<String, FieldDraft> written = new LinkedHashMap<>();
    List<String> deep = new ArrayList<>();
    List<Optional<ObjectNode>> bodies = new ArrayList<>();
    bodies.add(wish);
    bodies.add(change.isEmpty() ? Optional.empty() : api.body(one.path(change)));
    for (Optional<ObjectNode> body : bodies) {
      for (FieldDraft field :
          body.map(schema -> FieldDraft.of(api, inner(schema))).orElse(List.of())) {
        if (field.type().equals("list of record")) {
          deep.add(field.pointer());
        } else if (!OUR_KEY.matcher(key(field)).matches()) {
          written.putIfAbsent(key(field), field);
        }
      }
    }
    if (!deep.isEmpty()) {
      remark(
          remarks,
          "Left out, since lists of records are read and not written: "
              + String.join(", ", new LinkedHashSet<>(deep))
              + ".");
    }
    return List.copyOf(written.values());
  }

  /** Where the fields stand in a body that holds nothing but one object around them. */
  private String at(ObjectNode body) {
    var properties = body.path("properties").properties();
    if (properties.size() == 1) {
      var only = properties.iterator().next();
      boolean part = record.path("properties").has(only.getKey());
      if (!part && api.schema(only.getValue()).has("properties")) {
        return "/" + only.getKey();
      }
    }
    return "";
  }

  private ObjectNode inner(ObjectNode body) {
    String at = at(body);
    return at.isEmpty() ? body : api.schema(body.path("properties").path(at.substring(1)));
  }

  private Optional<String> ourKey(Optional<ObjectNode> wish) {
    return wish.flatMap(
        body -> {
          List<String> names = new ArrayList<>();
          inner(body).path("properties").fieldNames().forEachRemaining(names::add);
          return names.stream().filter(name -> OUR_KEY.matcher(name).matches()).findFirst();
        });
  }

  private Optional<Map<String, Object>> findByKey(
      Optional<ObjectNode> wish, Optional<String> idAt) {
    if (idAt.isEmpty() || list.isEmpty()) {
      return Optional.empty();
    }
    Optional<String> kept = ourKey(wish);
    return list.get().query().stream()
        .filter(name -> kept.filter(name::equals).isPresent())
        .findFirst()
        .map(
            name -> entry("GET " + path + "?" + name + "={key}", list.get().pointer(), idAt.get()));
  }

  private void create(
      Optional<ObjectNode> wish,
      List<FieldDraft> written,
      Optional<String> idAt,
      List<Remark> remarks,
      Map<String, Object> document) {
    if (wish.isEmpty() || written.isEmpty()) {
      return;
    }
    String answeredAt = api.answer(many.path("post")).map(this::at).orElse("");
    document.put("created-id", answeredAt + idAt.orElse("/id"));
    Map<String, Object> call = new LinkedHashMap<>();
    call.put("call", "POST " + path);
    call.put("fields", placedIn(inner(wish.get()), written));
    Optional<String> field = ourKey(wish);
    field.ifPresent(name -> call.put("key-field", name));
    Optional<String> header = header(many, "post", "idempotency-key");
    header.ifPresent(name -> call.put("key-header", name));
    if (!at(wish.get()).isEmpty()) {
      call.put("at", at(wish.get()));
    }
    if (field.isEmpty() && header.isEmpty()) {
      remark(
          remarks,
          "Nothing was found that keeps our key, so a record whose answer is lost may be made twice."
              + " Look for such a field (key-field) or header (key-header).");
    }
    document.put("create", List.of(call));
  }

  private void change(String method, List<FieldDraft> written, Map<String, Object> document) {
    ObjectNode body = api.body(one.path(method)).orElseGet(JsonNodeFactory.instance::objectNode);
    List<Object> keys = placedIn(inner(body), written);
    if (keys.isEmpty()) {
      return;
    }
    Map<String, Object> call = new LinkedHashMap<>();
    call.put("call", method.toUpperCase(Locale.ROOT) + " " + ofOne());
    call.put("fields", keys);
    if (header(one, method, "if-match").isPresent() && one.has("get")) {
      call.put("if-match", true);
    }
    if (!at(body).isEmpty()) {
      call.put("at", at(body));
    }
    document.put("change", List.of(call));
  }

  /** The written fields that a body has, each with its place if it stands within an object. */
  private List<Object> placedIn(ObjectNode body, List<FieldDraft> written) {
    Set<String> there =
        FieldDraft.of(api, body).stream().map(FieldDraft::pointer).collect(Collectors.toSet());
    return written.stream()
        .filter(field -> there.contains(field.pointer()))
        .map(CollectionDraft::placed)
        .toList();
  }

  private static Object placed(FieldDraft field) {
    if (Pointer.parse(field.pointer()).tokens().size() == 1) {
      return key(field);
    }
    Map<String, Object> placed = new LinkedHashMap<>();
    placed.put("field", key(field));
    placed.put("at", field.pointer());
    return placed;
  }

  private Optional<String> header(JsonNode item, String method, String wanted) {
    return api.parameters(item, item.path(method)).stream()
        .filter(parameter -> parameter.path("in").asText().equals("header"))
        .map(parameter -> parameter.path("name").asText())
        .filter(wanted::equalsIgnoreCase)
        .findFirst();
  }

  private Optional<Map<String, Object>> poll(
      List<FieldDraft> read, Optional<String> idAt, List<Remark> remarks) {
    List<ListDraft> lists = new ArrayList<>(changes);
    list.ifPresent(lists::add);
    if (idAt.isEmpty()) {
      return Optional.empty();
    }
    return lists.stream()
        .map(one -> new PollDraft(id, one, read, idAt.get()))
        .map(draft -> draft.document(remarks))
        .flatMap(Optional::stream)
        .findFirst();
  }
}
