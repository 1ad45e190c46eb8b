package org.ysthmos.adapters.system;

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
import java.util.Set;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/** Reads the parts that the documents of all systems share. */
public final class Parts {

  private Parts() {}

  /**
   * The shape of a collection that says its name and, if it likes, the word for one record.
   *
   * @param node what the document says of the collection
   * @param word for one record, where the document says none
   * @param title the key of the field by which people know a record
   * @param parent the key of the field that holds the parent's id; empty where there is none
   * @param fields of a whole record
   * @param event the fields that come with an event
   */
  public static CollectionShape shape(
      Collected of,
      DocumentNode node,
      String word,
      String title,
      String parent,
      List<FieldShape> fields,
      List<FieldShape> event) {
    return new CollectionShape(
        of.system(),
        of.systemName(),
        of.id(),
        of.name().orElseGet(node.need("name")::text),
        node.get("record").map(DocumentNode::text).orElse(word),
        title,
        parent,
        fields,
        event);
  }

  /** A path that begins and ends with a slash. */
  public static String folder(DocumentNode node) {
    if (!node.text().startsWith("/") || !node.text().endsWith("/")) {
      throw node.refuse("write a path that begins and ends with a slash");
    }
    return node.text();
  }

  /** The fields of a record, in their order. */
  public static List<FieldShape> fields(DocumentNode node) {
    List<FieldShape> fields = new ArrayList<>();
    node.group().forEach((key, field) -> fields.add(field(key, field)));
    return fields;
  }

  private static FieldShape field(String key, DocumentNode node) {
    node.only(
        "name",
        "type",
        "required",
        "longest",
        "counted-in",
        "names",
        "names-from",
        "shown-in",
        "schemes",
        "fields");
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
            node.get("counted-in").map(Parts::unit).orElse(TextLength.CODE_UNITS))
        .withNames(node.get("names").map(Parts::names).orElse(Map.of()))
        .withDirectory(node.get("names-from").map(DocumentNode::text).orElse(""))
        .withShownIn(node.get("shown-in").map(Parts::zone))
        .withSchemes(node.get("schemes").map(Parts::schemes).orElse(Set.of()))
        .withFields(node.get("fields").map(Parts::fields).orElse(List.of()));
  }

  private static Set<String> schemes(DocumentNode node) {
    return Set.copyOf(node.schemes());
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

  /** A zone of the IANA time zone database. */
  public static ZoneId zone(DocumentNode node) {
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

  /** A span of time as ISO 8601 writes it. */
  public static Duration duration(DocumentNode node) {
    try {
      return Duration.parse(node.text());
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no span of time; write for example PT10S");
    }
  }

  /** An address in a record (RFC 6901). */
  public static Pointer pointer(DocumentNode node) {
    try {
      return Pointer.parse(node.text());
    } catch (IllegalArgumentException e) {
      throw node.refuse(Optional.ofNullable(e.getMessage()).orElse("this is no address"));
    }
  }

  /** The texts of a list. */
  public static List<String> texts(DocumentNode node) {
    return node.list().stream().map(DocumentNode::text).toList();
  }
}
