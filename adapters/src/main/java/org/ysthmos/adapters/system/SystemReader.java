package org.ysthmos.adapters.system;

import java.net.URI;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZoneId;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.ysthmos.adapters.system.SystemDescription.Call;
import org.ysthmos.adapters.system.SystemDescription.Collection;
import org.ysthmos.adapters.system.SystemDescription.Find;
import org.ysthmos.adapters.system.SystemDescription.FindByKey;
import org.ysthmos.adapters.system.SystemDescription.Listing;
import org.ysthmos.adapters.system.SystemDescription.ProblemShape;
import org.ysthmos.adapters.system.SystemDescription.Push;
import org.ysthmos.adapters.system.SystemDescription.SignIn;
import org.ysthmos.adapters.system.SystemDescription.Write;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/** Reads a system document. What it does not know it refuses, with line and column. */
public final class SystemReader {

  private static final Duration USUAL_TIMEOUT = Duration.ofSeconds(10);

  private SystemReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static SystemDescription read(String yaml) {
    DocumentNode root = DocumentNode.parse(yaml);
    root.only(
        "system", "name", "address", "sign-in", "timeout", "rate-limit", "problem", "collections");
    String id = root.need("system").text();
    String name = root.need("name").text();
    Map<String, Collection> collections = new LinkedHashMap<>();
    root.need("collections")
        .group()
        .forEach((key, node) -> collections.put(key, collection(id, name, key, node)));
    return new SystemDescription(
        id,
        name,
        address(root.need("address")),
        root.get("sign-in").map(SystemReader::signIn),
        root.get("timeout").map(SystemReader::duration).orElse(USUAL_TIMEOUT),
        root.get("rate-limit").map(SystemReader::rateLimit),
        root.get("problem")
            .map(SystemReader::problem)
            .orElse(new ProblemShape(Pointer.parse("/detail"), Pointer.parse("/field"))),
        collections);
  }

  private static URI address(DocumentNode node) {
    try {
      URI address = URI.create(node.text());
      if (List.of("http", "https").contains(String.valueOf(address.getScheme()))) {
        return address;
      }
    } catch (IllegalArgumentException notAnAddress) {
      throw node.refuse("“" + node.text() + "” is no address: " + notAnAddress.getMessage());
    }
    throw node.refuse("an address starts with https:// or http://");
  }

  private static SignIn signIn(DocumentNode node) {
    node.only("bearer", "basic", "header");
    Optional<DocumentNode> basic = node.get("basic");
    if (basic.isPresent()) {
      basic.get().only("user", "secret");
      String user = basic.get().need("user").text();
      if (user.contains(":")) {
        throw basic.get().need("user").refuse("a user has no colon (RFC 7617 section 2)");
      }
      return new SignIn.Basic(user, basic.get().need("secret").text());
    }
    Optional<DocumentNode> header = node.get("header");
    if (header.isPresent()) {
      header.get().only("name", "secret");
      return new SignIn.Key(header.get().need("name").text(), header.get().need("secret").text());
    }
    return new SignIn.Bearer(node.need("bearer").only("secret").need("secret").text());
  }

  static Duration duration(DocumentNode node) {
    try {
      return Duration.parse(node.text());
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no span of time; write for example PT10S");
    }
  }

  private static RateLimit rateLimit(DocumentNode node) {
    node.only("calls", "per");
    int calls = node.need("calls").wholeNumber();
    Duration per = duration(node.need("per"));
    if (calls < 1 || per.isNegative() || per.isZero()) {
      throw node.refuse("a rate limit is at least one call in a span of time");
    }
    return new RateLimit(calls, per);
  }

  private static ProblemShape problem(DocumentNode node) {
    node.only("message", "field");
    return new ProblemShape(pointer(node.need("message")), pointer(node.need("field")));
  }

  private static Collection collection(
      String system, String systemName, String id, DocumentNode node) {
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
        "create",
        "created-id",
        "change",
        "remove",
        "push");
    List<FieldShape> fields = node.get("fields").map(SystemReader::fields).orElse(List.of());
    // The event of a record that is only asked for is the record itself.
    boolean polled = node.get("poll").isPresent() && node.get("push").isEmpty();
    CollectionShape shape =
        new CollectionShape(
            system,
            systemName,
            id,
            node.need("name").text(),
            node.need("record").text(),
            node.get("title").map(DocumentNode::text).orElse(""),
            node.get("parent").map(DocumentNode::text).orElse(""),
            fields,
            node.get("event-fields").map(SystemReader::fields).orElse(polled ? fields : List.of()));
    node.get("parent")
        .filter(parent -> shape.field(parent.text()).isEmpty())
        .ifPresent(
            parent -> {
              throw parent.refuse(shape.name() + " has no field “" + parent.text() + "”");
            });
    return new Collection(
        shape,
        node.get("page").map(DocumentNode::text),
        node.get("find").map(SystemReader::finds).orElse(List.of()),
        node.get("list").map(SystemReader::listing),
        node.get("poll").map(PollReader::read),
        node.get("find-by-key").map(SystemReader::findByKey),
        node.get("create").map(writes -> writes(writes, shape)).orElse(List.of()),
        node.get("created-id").map(SystemReader::pointer).orElse(Pointer.parse("/id")),
        node.get("change").map(writes -> writes(writes, shape)).orElse(List.of()),
        node.get("remove").map(SystemReader::call),
        node.get("push").map(SystemReader::push));
  }

  private static List<FieldShape> fields(DocumentNode node) {
    List<FieldShape> fields = new ArrayList<>();
    node.group().forEach((key, field) -> fields.add(field(key, field)));
    return fields;
  }

  private static FieldShape field(String key, DocumentNode node) {
    node.only("name", "type", "required", "longest", "counted-in", "names", "shown-in", "fields");
    DocumentNode type = node.need("type");
    ValueType parsed =
        ValueType.parse(type.text())
            .orElseThrow(() -> type.refuse("no type is called “" + type.text() + "”"));
    boolean ofRecords = parsed.equals(ValueType.listOf(ValueType.RECORD));
    if (node.get("fields").isPresent() != ofRecords) {
      throw node.refuse("a list of record says its fields, and nothing else does");
    }
    return FieldShape.of(key, node.need("name").text(), parsed)
        .withRequired(node.get("required").map(DocumentNode::flag).orElse(false))
        .withLongest(
            node.get("longest")
                .map(most -> OptionalInt.of(most.wholeNumber()))
                .orElse(OptionalInt.empty()),
            node.get("counted-in").map(SystemReader::unit).orElse(TextLength.CODE_UNITS))
        .withNames(node.get("names").map(SystemReader::names).orElse(Map.of()))
        .withShownIn(node.get("shown-in").map(SystemReader::zone))
        .withFields(node.get("fields").map(SystemReader::fields).orElse(List.of()));
  }

  private static TextLength unit(DocumentNode node) {
    return TextLength.parse(node.text())
        .orElseThrow(
            () ->
                node.refuse(
                    "a text is counted in characters, code-points, code-units or bytes, not “"
                        + node.text()
                        + "”"));
  }

  private static ZoneId zone(DocumentNode node) {
    try {
      return ZoneId.of(node.text());
    } catch (DateTimeException e) {
      throw node.refuse("“" + node.text() + "” is no IANA time zone");
    }
  }

  private static Map<String, String> names(DocumentNode node) {
    Map<String, String> names = new LinkedHashMap<>();
    node.group().forEach((key, name) -> names.put(key, name.text()));
    return names;
  }

  private static List<String> texts(DocumentNode node) {
    return node.list().stream().map(DocumentNode::text).toList();
  }

  private static List<Find> finds(DocumentNode node) {
    return node.list().stream()
        .map(
            find -> {
              find.only("by", "call", "items");
              return new Find(
                  texts(find.need("by")),
                  call(find.need("call")),
                  find.get("items").map(SystemReader::pointer));
            })
        .toList();
  }

  private static Listing listing(DocumentNode node) {
    node.only("call", "items", "id");
    return new Listing(
        call(node.need("call")), pointer(node.need("items")), pointer(node.need("id")));
  }

  private static FindByKey findByKey(DocumentNode node) {
    node.only("call", "items", "id");
    return new FindByKey(
        call(node.need("call")), pointer(node.need("items")), pointer(node.need("id")));
  }

  private static List<Write> writes(DocumentNode node, CollectionShape shape) {
    return node.list().stream()
        .map(
            write -> {
              write.only("call", "fields", "key-field");
              for (DocumentNode field : write.need("fields").list()) {
                if (shape.field(field.text()).isEmpty()) {
                  throw field.refuse(shape.name() + " has no field “" + field.text() + "”");
                }
              }
              return new Write(
                  call(write.need("call")),
                  texts(write.need("fields")),
                  write.get("key-field").map(DocumentNode::text));
            })
        .toList();
  }

  private static Push push(DocumentNode node) {
    node.only("verify", "record", "kind", "kinds", "version");
    DocumentNode verify = node.need("verify").only("standard-webhooks").need("standard-webhooks");
    Map<String, String> kinds = new LinkedHashMap<>();
    node.need("kinds").group().forEach((theirs, ours) -> kinds.put(theirs, ours.text()));
    return new Push(
        verify.only("secret").need("secret").text(),
        pointer(node.need("record")),
        pointer(node.need("kind")),
        kinds,
        node.get("version").map(SystemReader::pointer));
  }

  static Call call(DocumentNode node) {
    String[] words = node.text().split(" ", -1);
    if (words.length != 2 || !words[1].startsWith("/")) {
      throw node.refuse("write a call as a method and a path, for example GET /things/{id}");
    }
    return new Call(words[0], words[1]);
  }

  static Pointer pointer(DocumentNode node) {
    try {
      return Pointer.parse(node.text());
    } catch (IllegalArgumentException e) {
      throw node.refuse(Optional.ofNullable(e.getMessage()).orElse("this is no address"));
    }
  }
}
