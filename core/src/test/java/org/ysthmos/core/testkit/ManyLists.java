package org.ysthmos.core.testkit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.value.ValueType;

/**
 * A system with very many lists that are described alike, and a table that says of each what is.
 */
public final class ManyLists {

  private ManyLists() {}

  /** So many lists, of which each has a row; its tasks go to a list of another system. */
  public static ReferenceTable table(int lists) {
    StringBuilder rows = new StringBuilder();
    for (int i = 1; i <= lists; i++) {
      rows.append(
          "  - { list: bed-%d, goes-to: job-%d, crew: crew %d, priority: %d }\n"
              .formatted(i, 1 + i % 7, i % 5, i % 3));
    }
    return table(rows.toString());
  }

  public static ReferenceTable table(String rows) {
    return TableReader.read(
        DocumentNode.parse(
            """
            table: lists
            name: Lists of the beds
            keys: [list]
            values: { goes-to: text, crew: text, priority: number }
            rows:
            """
                + rows));
  }

  public static Catalog catalog(ReferenceTable table) {
    return Catalog.withRows(new Lists(), Map.of("lists", table), Map.of());
  }

  /** Any list that is asked for is there. */
  private static final class Lists implements Shapes {
    @Override
    public Optional<CollectionShape> find(String system, String collection) {
      boolean known = systems().contains(system);
      return PlaceId.parse(collection)
          .filter(place -> known && place.of().equals("lists"))
          .map(place -> list(system, collection, "List " + place.place()))
          .or(
              () ->
                  Optional.of(collection)
                      .filter(one -> known && List.of("north", "south").contains(one))
                      .map(one -> list(system, one, one)));
    }

    @Override
    public Set<String> systems() {
      return Set.of("beds", "jobs");
    }

    @Override
    public Set<String> collections(String system) {
      return Set.of("north", "south");
    }
  }

  private static CollectionShape list(String system, String collection, String name) {
    List<FieldShape> fields = new ArrayList<>();
    fields.add(FieldShape.of("title", "title", ValueType.TEXT).withRequired(true));
    fields.add(FieldShape.of("notes", "notes", ValueType.TEXT));
    fields.add(FieldShape.of("priority", "priority", ValueType.NUMBER));
    return new CollectionShape(
            system,
            system.equals("beds") ? "Beds" : "Jobs",
            collection,
            name,
            "task",
            "title",
            "",
            fields,
            List.of(
                FieldShape.of("/id", "number", ValueType.TEXT),
                FieldShape.of("/title", "title", ValueType.TEXT),
                FieldShape.of("/open", "open", ValueType.FLAG)))
        .with(
            new CollectionShape.Abilities(List.of("created", "changed"), true, true, false, true));
  }
}
