package org.ysthmos.adapters.http;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.TreeMap;
import org.ysthmos.adapters.http.HttpCollection.Call;
import org.ysthmos.adapters.http.HttpCollection.Find;
import org.ysthmos.adapters.http.HttpCollection.FindByKey;
import org.ysthmos.adapters.http.HttpCollection.Listing;
import org.ysthmos.adapters.http.HttpCollection.Placed;
import org.ysthmos.adapters.http.HttpCollection.Write;
import org.ysthmos.adapters.http.HttpProtocol.Directory;
import org.ysthmos.adapters.http.HttpProtocol.FullMark;
import org.ysthmos.adapters.http.HttpProtocol.LimitHeaders;
import org.ysthmos.adapters.http.HttpProtocol.ProblemShape;
import org.ysthmos.adapters.http.HttpProtocol.Quota;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.PushDocument;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;

/** Reads what the document of a system says that speaks JSON over HTTP. */
public final class HttpReader implements ProtocolReader {

  private static final ProblemShape USUAL_PROBLEM =
      new ProblemShape(Pointer.parse("/detail"), Pointer.parse("/field"), Optional.empty());

  @Override
  public List<String> keys() {
    return List.of("problem", "limit-headers", "quota", "directories");
  }

  @Override
  public SystemDescription.Protocol protocol(DocumentNode root) {
    return new HttpProtocol(
        root.get("problem").map(HttpReader::problem).orElse(USUAL_PROBLEM),
        root.get("limit-headers").map(HttpReader::limitHeaders),
        root.get("quota").map(HttpReader::quota),
        root.get("directories").map(HttpReader::directories).orElse(Map.of()));
  }

  private static ProblemShape problem(DocumentNode node) {
    node.only("message", "field", "full");
    return new ProblemShape(
        Parts.pointer(node.need("message")),
        Parts.pointer(node.need("field")),
        node.get("full").map(HttpReader::full));
  }

  private static FullMark full(DocumentNode node) {
    node.only("at", "equal");
    return new FullMark(Parts.pointer(node.need("at")), node.need("equal").text());
  }

  private static Map<String, Directory> directories(DocumentNode node) {
    Map<String, Directory> directories = new LinkedHashMap<>();
    node.group()
        .forEach(
            (id, one) -> {
              one.only("call", "items", "id", "name");
              Call call = call(one.need("call"));
              if (!call.slots().isEmpty()) {
                throw one.need("call").refuse("names are read by a call without slots");
              }
              directories.put(
                  id,
                  new Directory(
                      call,
                      Parts.pointer(one.need("items")),
                      Parts.pointer(one.need("id")),
                      Parts.pointer(one.need("name"))));
            });
    return directories;
  }

  private static Quota quota(DocumentNode node) {
    node.only("of", "call", "used", "most");
    return new Quota(
        node.need("of").text(),
        call(node.need("call")),
        Parts.pointer(node.need("used")),
        Parts.pointer(node.need("most")));
  }

  private static LimitHeaders limitHeaders(DocumentNode node) {
    node.only("left", "until");
    return new LimitHeaders(node.need("left").text(), node.need("until").text());
  }

  @Override
  public HttpCollection collection(Collected of, DocumentNode node) {
    node.only(
        "name",
        "record",
        "title",
        "parent",
        "page",
        "fields",
        "event-fields",
        "find",
        "list",
        "poll",
        "find-by-key",
        "places",
        "create",
        "created-id",
        "change",
        "remove",
        "closed",
        "push");
    List<FieldShape> fields = node.get("fields").map(Parts::fields).orElse(List.of());
    // The event of a record that is only asked for is the record itself, as it is read.
    boolean polled = node.get("poll").isPresent() && node.get("push").isEmpty();
    CollectionShape shape =
        Parts.shape(
            of,
            node,
            node.need("record").text(),
            node.get("title").map(DocumentNode::text).orElse(""),
            node.get("parent").map(DocumentNode::text).orElse(""),
            fields,
            node.get("event-fields").map(Parts::fields).orElse(polled ? read(fields) : List.of()));
    node.get("parent")
        .filter(parent -> shape.field(parent.text()).isEmpty())
        .ifPresent(
            parent -> {
              throw parent.refuse(shape.name() + " has no field “" + parent.text() + "”");
            });
    node.get("change").ifPresent(writes -> needsFindById(writes, node));
    return new HttpCollection(
        shape,
        node.get("page").map(DocumentNode::text),
        node.get("find").map(HttpReader::finds).orElse(List.of()),
        node.get("list").map(HttpReader::listing),
        node.get("poll").map(PollReader::read),
        node.get("find-by-key").map(HttpReader::findByKey),
        node.get("create").map(writes -> writes(writes, shape)).orElse(List.of()),
        node.get("created-id").map(Parts::pointer).orElse(Pointer.parse("/id")),
        node.get("change").map(writes -> writes(writes, shape)).orElse(List.of()),
        node.get("remove").map(HttpReader::call),
        node.get("closed").map(closed -> closing(closed, node, shape)).orElse(new TreeMap<>()),
        node.get("push").map(PushDocument::read));
  }

  /** Of a collection that is read and written too, those that can be read. */
  private static List<FieldShape> read(List<FieldShape> fields) {
    return fields.stream().filter(field -> field.key().startsWith("/")).toList();
  }

  private static void needsFindById(DocumentNode writes, DocumentNode collection) {
    boolean found =
        collection.get("find").map(HttpReader::finds).orElse(List.of()).stream()
            .anyMatch(find -> find.by().equals(List.of("id")));
    for (DocumentNode write : writes.list()) {
      for (String reads : List.of("if-match", "whole")) {
        write
            .get(reads)
            .filter(wanted -> wanted.flag() && !found)
            .ifPresent(
                wanted -> {
                  throw wanted.refuse(
                      "the record is read first, by a find by [id] that is not described");
                });
      }
    }
  }

  private static SequencedMap<String, Value> closing(
      DocumentNode node, DocumentNode collection, CollectionShape shape) {
    if (collection.get("change").isEmpty()) {
      throw node.refuse("a task is closed by changing it, and no change is described");
    }
    SequencedMap<String, Value> values = new LinkedHashMap<>();
    node.group()
        .forEach(
            (field, value) -> {
              FieldShape of =
                  shape
                      .field(field)
                      .orElseThrow(
                          () -> value.refuse(shape.name() + " has no field “" + field + "”"));
              values.put(field, value.parsed(text -> Constant.parse(text, of.type())));
            });
    return values;
  }

  private static List<Find> finds(DocumentNode node) {
    return node.list().stream()
        .map(
            find -> {
              find.only("by", "call", "items");
              return new Find(
                  Parts.texts(find.need("by")),
                  call(find.need("call")),
                  find.get("items").map(Parts::pointer));
            })
        .toList();
  }

  private static Listing listing(DocumentNode node) {
    node.only("call", "items", "id", "next");
    return new Listing(
        call(node.need("call")),
        Parts.pointer(node.need("items")),
        Parts.pointer(node.need("id")),
        node.get("next").map(HttpReader::pagesOfList));
  }

  /** A list that says nothing of its pages gives the newest; one that gives all at once says so. */
  private static HttpCollection.Paging pagesOfList(DocumentNode node) {
    if (node.isText()) {
      if (!node.text().equals("none")) {
        throw node.refuse("write none if the list gives all at once, or how its pages follow");
      }
      return new HttpCollection.Paging.Whole();
    }
    return PollReader.paging(node);
  }

  private static FindByKey findByKey(DocumentNode node) {
    node.only("call", "items", "id");
    return new FindByKey(
        call(node.need("call")), Parts.pointer(node.need("items")), Parts.pointer(node.need("id")));
  }

  private static List<Write> writes(DocumentNode node, CollectionShape shape) {
    return node.list().stream()
        .map(
            write -> {
              write.only(
                  "call",
                  "fields",
                  "key-field",
                  "key-header",
                  "if-match",
                  "whole",
                  "at",
                  "answers-whole");
              return new Write(
                  addressed(write.need("call"), shape),
                  placed(write.need("fields"), shape),
                  write.get("key-field").map(DocumentNode::text),
                  write.get("key-header").map(DocumentNode::text),
                  write.get("if-match").map(DocumentNode::flag).orElse(false),
                  write.get("whole").map(DocumentNode::flag).orElse(false),
                  write.get("answers-whole").map(DocumentNode::flag).orElse(false),
                  write.get("at").map(Parts::pointer).orElse(Pointer.parse("")));
            })
        .toList();
  }

  /** A call whose slots are the record's id and its fields. */
  private static Call addressed(DocumentNode node, CollectionShape shape) {
    Call call = call(node);
    List<String> known = new ArrayList<>(List.of("id"));
    shape.fields().forEach(field -> known.add(field.key()));
    for (String slot : call.slots()) {
      if (!known.contains(slot)) {
        throw node.refuse(Nearest.unknown("field of " + shape.name(), slot, known));
      }
    }
    return call;
  }

  /** Fields, each with the place where it stands if that is not its own name. */
  private static List<Placed> placed(DocumentNode node, CollectionShape shape) {
    List<Placed> fields = new ArrayList<>();
    for (DocumentNode entry : node.list()) {
      boolean elsewhere = entry.isGroup();
      DocumentNode field = elsewhere ? entry.only("field", "at").need("field") : entry;
      if (shape.field(field.text()).isEmpty()) {
        throw field.refuse(shape.name() + " has no field “" + field.text() + "”");
      }
      Pointer at = elsewhere ? Parts.pointer(entry.need("at")) : new Pointer(List.of(field.text()));
      if (at.tokens().isEmpty()) {
        throw entry.refuse("a field stands at a place below, for example /owner/id");
      }
      for (Placed other : fields) {
        if (within(at, other.at()) || within(other.at(), at)) {
          throw entry.refuse(
              "“%s” and “%s” would stand at the same place".formatted(field.text(), other.field()));
        }
      }
      fields.add(new Placed(field.text(), at));
    }
    return fields;
  }

  private static boolean within(Pointer inner, Pointer outer) {
    int size = outer.tokens().size();
    return inner.tokens().size() >= size && inner.tokens().subList(0, size).equals(outer.tokens());
  }

  static Call call(DocumentNode node) {
    String[] words = node.text().split(" ", -1);
    if (words.length != 2 || !words[1].startsWith("/")) {
      throw node.refuse("write a call as a method and a path, for example GET /things/{id}");
    }
    return new Call(words[0], words[1]);
  }
}
