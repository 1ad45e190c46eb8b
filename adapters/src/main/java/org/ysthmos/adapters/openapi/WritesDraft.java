package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.ysthmos.core.json.Pointer;

/** How the records of one collection are made and changed, as its calls describe it. */
final class WritesDraft {

  private static final Pattern OUR_KEY =
      Pattern.compile(
          "(?i)(external|client|foreign|idempotency|origin)[-_]?(id|ref|reference|key)|key");

  /**
   * A call that changes a record.
   *
   * @param item the path that it belongs to
   */
  private record Change(String method, String path, JsonNode item) {}

  private final OpenApiTree api;
  private final String path;
  private final JsonNode many;
  private final JsonNode one;
  private final ObjectNode record;
  private final Optional<ObjectNode> wish;
  private final Optional<Change> change;

  /**
   * @param pathOfOne with the slot {@code {id}}; empty if there is none
   * @param record the schema of a record that is read
   */
  WritesDraft(
      OpenApiTree api,
      String path,
      JsonNode many,
      JsonNode one,
      String pathOfOne,
      ObjectNode record) {
    this.api = api;
    this.path = path;
    this.many = many;
    this.one = one;
    this.record = record;
    this.wish = api.body(many.path("post"));
    this.change =
        Stream.of(
                new Change("patch", pathOfOne, one),
                new Change("put", pathOfOne, one),
                // A record that says itself which one it is.
                new Change("put", path, many))
            .filter(by -> api.body(by.item().path(by.method())).isPresent())
            .findFirst();
  }

  boolean makes() {
    return wish.isPresent();
  }

  boolean changes() {
    return change.isPresent();
  }

  /** The name of a field in the document: where it stands, its steps joined. */
  static String key(FieldDraft field) {
    return String.join("-", Pointer.parse(field.pointer()).tokens());
  }

  /** The fields that a record is made or changed with, those of objects within it too. */
  List<FieldDraft> fields(Consumer<String> remark) {
    Map<String, FieldDraft> written = new LinkedHashMap<>();
    Set<String> deep = new LinkedHashSet<>();
    Stream.of(wish, change.flatMap(this::body))
        .flatMap(Optional::stream)
        .flatMap(body -> written(inner(body)).stream())
        .forEach(
            field -> {
              if (field.type().equals("list of record")) {
                deep.add(field.pointer());
              } else if (!OUR_KEY.matcher(key(field)).matches()) {
                written.putIfAbsent(key(field), field);
              }
            });
    if (!deep.isEmpty()) {
      remark.accept(
          "Left out, since lists of records are read and not written: "
              + String.join(", ", deep)
              + ".");
    }
    return List.copyOf(written.values());
  }

  private List<FieldDraft> written(ObjectNode schema) {
    return FieldDraft.of(api, schema, FieldDraft.Use.WRITTEN);
  }

  private Optional<ObjectNode> body(Change by) {
    return api.body(by.item().path(by.method()));
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

  /** The field that keeps our key, as its name says. */
  Optional<String> ourKey() {
    return wish.flatMap(
        body -> {
          List<String> names = new ArrayList<>();
          inner(body).path("properties").fieldNames().forEachRemaining(names::add);
          return names.stream().filter(name -> OUR_KEY.matcher(name).matches()).findFirst();
        });
  }

  /**
   * Describes how a record is made.
   *
   * @param idAt where a record holds its id
   */
  void create(
      List<FieldDraft> written,
      Optional<String> idAt,
      Consumer<String> remark,
      Map<String, Object> document) {
    if (wish.isEmpty() || written.isEmpty()) {
      return;
    }
    String answeredAt = api.answer(many.path("post")).map(this::at).orElse("");
    document.put("created-id", answeredAt + idAt.orElse("/id"));
    Map<String, Object> call = new LinkedHashMap<>();
    call.put("call", "POST " + path);
    call.put("fields", placedIn(inner(wish.get()), written));
    Optional<String> field = ourKey();
    field.ifPresent(name -> call.put("key-field", name));
    Optional<String> header = header(many, "post", "idempotency-key");
    header.ifPresent(name -> call.put("key-header", name));
    if (!at(wish.get()).isEmpty()) {
      call.put("at", at(wish.get()));
    }
    if (field.isEmpty() && header.isEmpty()) {
      remark.accept(
          "Nothing was found that keeps our key, so a record whose answer is lost may be made twice."
              + " Look for such a field (key-field) or header (key-header).");
    }
    document.put("create", List.of(call));
  }

  /**
   * Describes how a record is changed. What takes the place of all (PUT, RFC 9110 section 9.3.4) is
   * sent whole, so that nothing is lost that no rule writes.
   */
  void change(List<FieldDraft> written, Consumer<String> remark, Map<String, Object> document) {
    if (change.isEmpty()) {
      return;
    }
    Change by = change.get();
    ObjectNode body = body(by).orElseGet(JsonNodeFactory.instance::objectNode);
    List<Object> keys = placedIn(inner(body), written);
    if (keys.isEmpty()) {
      return;
    }
    Map<String, Object> call = new LinkedHashMap<>();
    call.put("call", by.method().toUpperCase(Locale.ROOT) + " " + by.path());
    call.put("fields", keys);
    if (one.has("get")) {
      if (header(by.item(), by.method(), "if-match").isPresent()) {
        call.put("if-match", true);
      }
      if (by.method().equals("put")) {
        call.put("whole", true);
      }
    } else if (by.method().equals("put")) {
      remark.accept(
          "A change takes the place of the whole record, and no call reads it first: what no rule"
              + " writes is lost.");
    }
    if (!at(body).isEmpty()) {
      call.put("at", at(body));
    }
    document.put("change", List.of(call));
  }

  /** The written fields that a body has, each with its place if it stands within an object. */
  private List<Object> placedIn(ObjectNode body, List<FieldDraft> written) {
    Set<String> there = written(body).stream().map(FieldDraft::pointer).collect(Collectors.toSet());
    return written.stream()
        .filter(field -> there.contains(field.pointer()))
        .map(WritesDraft::placed)
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
}
