package org.ysthmos.adapters.drop;

import java.nio.charset.Charset;
import java.nio.file.FileSystems;
import java.nio.file.PathMatcher;
import java.util.IllformedLocaleException;
import java.util.List;
import java.util.Locale;
import java.util.regex.PatternSyntaxException;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.FieldShape;

/**
 * Reads the document of a folder into which files are dropped; its address is {@code drop:name}.
 */
public final class DropReader implements ProtocolReader {

  @Override
  public List<String> keys() {
    return List.of();
  }

  @Override
  public SystemDescription.Protocol protocol(DocumentNode root) {
    DocumentNode address = root.need("address");
    if (!address.text().matches("drop:[a-z0-9][a-z0-9-]*")) {
      throw address.refuse("write drop: and a name of small letters, digits and hyphens");
    }
    return DropSystem::new;
  }

  @Override
  public SystemCollection collection(Collected of, DocumentNode node) {
    node.only(
        "name",
        "record",
        "title",
        "files",
        "reads",
        "separator",
        "charset",
        "written-in",
        "days",
        "zone",
        "id",
        "fields",
        "every");
    List<FieldShape> fields = Parts.fields(node.need("fields"));
    DocumentNode reads = node.need("reads");
    glob(node.need("files"));
    return new DropCollection(
        Parts.shape(
            of,
            node,
            "record",
            node.get("title").map(DocumentNode::text).orElse(""),
            "",
            fields,
            fields),
        node.need("files").text(),
        FileKind.parse(reads.text())
            .orElseThrow(() -> reads.refuse("files hold csv, ndjson or icalendar")),
        form(node, fields),
        Parts.pointer(node.need("id")),
        node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
  }

  private static FileForm form(DocumentNode node, List<FieldShape> fields) {
    return new FileForm(
        node.get("separator").map(DropReader::separator),
        node.get("charset").map(DropReader::charset),
        node.get("zone").map(Parts::zone),
        customs(node, fields));
  }

  private static String separator(DocumentNode stated) {
    return switch (stated.text()) {
      case "tab" -> "\t";
      case ",", ";", "|" -> stated.text();
      default -> throw stated.refuse("cells are parted by “,”, “;”, “|” or tab");
    };
  }

  private static Charset charset(DocumentNode stated) {
    return FileForm.charset(stated.text())
        .orElseThrow(() -> stated.refuse("files are in utf-8, utf-16 or windows-1252"));
  }

  private static CellCustoms customs(DocumentNode node, List<FieldShape> fields) {
    List<String> days = node.get("days").map(DocumentNode::texts).orElse(List.of());
    try {
      return new CellCustoms(node.get("written-in").map(DropReader::language), days, fields);
    } catch (IllegalArgumentException e) {
      throw node.need("days").refuse(String.valueOf(e.getMessage()));
    }
  }

  private static Locale language(DocumentNode stated) {
    try {
      Locale locale = new Locale.Builder().setLanguageTag(stated.text()).build();
      if (!locale.getLanguage().isEmpty()) {
        return locale;
      }
    } catch (IllformedLocaleException e) {
      throw stated.refuse("“" + stated.text() + "” is no language: " + e.getMessage());
    }
    throw stated.refuse("write a language as RFC 5646 has it, for example pt or de-CH");
  }

  private static void glob(DocumentNode node) {
    try {
      PathMatcher unused = FileSystems.getDefault().getPathMatcher("glob:" + node.text());
    } catch (PatternSyntaxException e) {
      throw node.refuse("write names as a shell does, for example orders-*.csv");
    }
  }
}
