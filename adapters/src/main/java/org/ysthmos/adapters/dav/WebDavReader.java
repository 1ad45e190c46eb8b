package org.ysthmos.adapters.dav;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.ysthmos.adapters.system.Collected;
import org.ysthmos.adapters.system.Parts;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.ProtocolReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/** Reads the document of a system that speaks WebDAV: a collection has a {@code folder}. */
public final class WebDavReader implements ProtocolReader {

  @Override
  public List<String> keys() {
    return List.of();
  }

  @Override
  public SystemDescription.Protocol protocol(DocumentNode root) {
    return DocumentSystem::new;
  }

  @Override
  public SystemCollection collection(Collected of, DocumentNode node) {
    node.only("name", "record", "folder", "properties", "every", "shown-in");
    var zone = node.get("shown-in").map(Parts::zone);
    List<FieldShape> fields = new ArrayList<>();
    fields.add(FieldShape.of("/id", "path", ValueType.TEXT).withRequired(true));
    fields.add(FieldShape.of("/name", "name", ValueType.TEXT).withRequired(true));
    fields.add(FieldShape.of("/folder", "folder", ValueType.TEXT));
    fields.add(FieldShape.of("/link", "link", ValueType.LINK));
    fields.add(FieldShape.of("/type", "media type", ValueType.TEXT));
    fields.add(FieldShape.of("/bytes", "size in bytes", ValueType.NUMBER));
    fields.add(FieldShape.of("/tag", "tag", ValueType.TEXT));
    fields.add(FieldShape.of("/changedAt", "changed at", ValueType.MOMENT).withShownIn(zone));
    fields.add(FieldShape.of("/createdAt", "created at", ValueType.MOMENT).withShownIn(zone));
    fields.add(FieldShape.of("/was", "path before it was renamed", ValueType.TEXT));
    Map<String, String> properties = new LinkedHashMap<>();
    node.get("properties").ifPresent(group -> properties(group, fields, properties));
    String folder = Parts.folder(node.need("folder"));
    return new DocumentCollection(
        Parts.shape(of, node, "document", "/name", "", fields, fields),
        folder,
        properties,
        node.get("every").map(Parts::duration).orElse(PollSpec.USUAL_INTERVAL));
  }

  private static void properties(
      DocumentNode group, List<FieldShape> fields, Map<String, String> properties) {
    group
        .group()
        .forEach(
            (key, node) -> {
              node.only("name", "type", "property");
              DocumentNode property = node.need("property");
              if (!property.text().matches("\\{[^{}]+}[\\p{L}_][\\p{L}\\p{N}._-]*")) {
                throw property.refuse("write a property as {namespace}name, in quotes");
              }
              DocumentNode type = node.need("type");
              fields.add(
                  FieldShape.of(
                      key,
                      node.need("name").text(),
                      ValueType.parse(type.text())
                          .orElseThrow(
                              () -> type.refuse("no type is called “" + type.text() + "”"))));
              properties.put(key, property.text());
            });
  }
}
