package org.ysthmos.adapters.drop;

import java.nio.charset.Charset;
import java.nio.file.FileSystems;
import java.nio.file.PathMatcher;
import java.util.List;
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
        form(node),
        Parts.pointer(node.need("id")),
        node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
  }

  private static FileForm form(DocumentNode node) {
    String separator =
        node.get("separator")
            .map(
                stated ->
                    switch (stated.text()) {
                      case "tab" -> "\t";
                      case ",", ";", "|" -> stated.text();
                      default -> throw stated.refuse("cells are parted by “,”, “;”, “|” or tab");
                    })
            .orElse(FileForm.USUAL.separator());
    Charset charset =
        node.get("charset")
            .map(
                stated ->
                    FileForm.charset(stated.text())
                        .orElseThrow(
                            () -> stated.refuse("files are in utf-8, utf-16 or windows-1252")))
            .orElse(FileForm.USUAL.charset());
    return new FileForm(separator, charset);
  }

  private static void glob(DocumentNode node) {
    try {
      PathMatcher unused = FileSystems.getDefault().getPathMatcher("glob:" + node.text());
    } catch (PatternSyntaxException e) {
      throw node.refuse("write names as a shell does, for example orders-*.csv");
    }
  }
}
