package org.ysthmos.core.testkit;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.ValueType;

/** Three boards alike, whose tasks can be made and changed and are told of. */
public final class Yards {

  private static final Map<String, CollectionShape> ALL =
      Map.of("north", yard("north"), "south", yard("south"), "west", yard("west"));

  public static final Catalog CATALOG =
      Catalog.of(
          new Shapes() {
            @Override
            public Optional<CollectionShape> find(String system, String collection) {
              return Optional.ofNullable(ALL.get(collection)).filter(any -> system.equals("yard"));
            }

            @Override
            public Set<String> systems() {
              return Set.of("yard");
            }

            @Override
            public Set<String> collections(String system) {
              return ALL.keySet();
            }
          });

  private Yards() {}

  /**
   * A bridge from one board to another, called {@code north to south}.
   *
   * @param more further lines of its document
   */
  public static BridgeVersion bridge(String from, String hears, String to, String more) {
    return bridge(from + "-to-" + to, from, hears, to, more);
  }

  /** The same under an id of its own. */
  public static BridgeVersion bridge(String id, String from, String hears, String to, String more) {
    return BridgeCompiler.compile(
        """
        bridge: %s
        name: %s to %s
        purpose: To go round
        from: { system: yard, collection: %s, %s }
        to: { system: yard, collection: %s }
        %s
        """
            .formatted(id, from, to, from, hears, to, more),
        1,
        CATALOG);
  }

  private static CollectionShape yard(String id) {
    return new CollectionShape(
            "yard",
            "Yard",
            id,
            Character.toUpperCase(id.charAt(0)) + id.substring(1),
            "task",
            "title",
            "",
            List.of(
                FieldShape.of("title", "title", ValueType.TEXT).withRequired(true),
                FieldShape.of("status", "status", ValueType.CHOICE),
                FieldShape.of("note", "note", ValueType.TEXT)),
            List.of(
                FieldShape.of("/id", "number", ValueType.TEXT),
                FieldShape.of("/title", "title", ValueType.TEXT),
                FieldShape.of("/status", "status", ValueType.TEXT),
                FieldShape.of("/note", "note", ValueType.TEXT)))
        .with(
            new CollectionShape.Abilities(List.of("created", "changed"), true, true, false, true));
  }
}
