package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.ysthmos.adapters.openapi.SystemDraft.Remark;

/**
 * One collection as paths hint at it: a path that lists or takes records, and the path of one of
 * them below it. What is guessed from names is common practice, no source; every guess is remarked.
 */
final class CollectionDraft {

  private static final Pattern SLOT = Pattern.compile("\\{([^{}]+)}");

  private final OpenApiTree api;
  private final String path;
  private final String pathOfOne;
  private final String slot;
  private final JsonNode one;
  private String id;
  private final ObjectNode record;
  private final Optional<ListDraft> list;
  private final List<ListDraft> others = new ArrayList<>();
  private final WritesDraft writes;

  CollectionDraft(
      OpenApiTree api, String path, JsonNode many, String pathOfOne, String slot, JsonNode one) {
    this.api = api;
    this.path = path;
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
    this.writes = new WritesDraft(api, path, many, one, slot.isEmpty() ? "" : ofOne(), record);
  }

  String id() {
    return id;
  }

  /** Another list of the same records, such as one of what changed or of one status. */
  void add(ListDraft other) {
    others.add(other);
  }

  /** Gives it another name, where another has its own. */
  void called(String other) {
    id = other;
  }

  String path() {
    return path;
  }

  /** What can be done there, in a few words. */
  String can() {
    List<String> can = new ArrayList<>();
    if (listing().isPresent()) {
      can.add("list");
    }
    if (one.has("get")) {
      can.add("find");
    }
    if (writes.makes()) {
      can.add("make");
    }
    if (writes.changes()) {
      can.add("change");
    }
    if (one.has("delete")) {
      can.add("remove");
    }
    return String.join(", ", can);
  }

  /** The list of its records; where there is none of all, one of some, by status for example. */
  private Optional<ListDraft> listing() {
    return list.or(() -> others.stream().filter(one -> !one.asked().isEmpty()).findFirst());
  }

  boolean holdsSame(ListDraft other) {
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
    List<FieldDraft> read = FieldDraft.of(api, record, FieldDraft.Use.READ);
    if (read.isEmpty() && !writes.makes()) {
      return Map.of();
    }
    Optional<String> idAt = idOf(read);
    List<FieldDraft> written = writes.fields(text -> remark(remarks, text));
    document.put("name", FieldDraft.capital(FieldDraft.words(id.replace('-', ' '))));
    document.put("record", singular(id));
    title(written).ifPresent(title -> document.put("title", title));
    Map<String, Object> fields = new LinkedHashMap<>();
    written.forEach(field -> fields.put(WritesDraft.key(field), field.document(true)));
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
    idAt.ifPresent(at -> list(at, remarks, document));
    findByKey(idAt).ifPresent(find -> document.put("find-by-key", find));
    writes.create(written, idAt, text -> remark(remarks, text), document);
    writes.change(written, text -> remark(remarks, text), document);
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

  /** Lists all, or where there is only a list of some, those. */
  private void list(String idAt, List<Remark> remarks, Map<String, Object> document) {
    listing()
        .ifPresent(
            listed -> {
              document.put("list", entry("GET " + listed.call(), listed.pointer(), idAt));
              listed.asked().forEach((name, values) -> remark(remarks, listed.words(name)));
            });
  }

  private Optional<Map<String, Object>> findByKey(Optional<String> idAt) {
    if (idAt.isEmpty() || list.isEmpty()) {
      return Optional.empty();
    }
    Optional<String> kept = writes.ourKey();
    return list.get().query().stream()
        .filter(name -> kept.filter(name::equals).isPresent())
        .findFirst()
        .map(
            name -> entry("GET " + path + "?" + name + "={key}", list.get().pointer(), idAt.get()));
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
        .filter(key -> written.stream().anyMatch(field -> WritesDraft.key(field).equals(key)))
        .findFirst();
  }

  private Optional<Map<String, Object>> poll(
      List<FieldDraft> read, Optional<String> idAt, List<Remark> remarks) {
    // A list of some, of one status for example, does not tell of all changes.
    List<ListDraft> lists =
        Stream.concat(others.stream(), list.stream()).filter(one -> one.asked().isEmpty()).toList();
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
