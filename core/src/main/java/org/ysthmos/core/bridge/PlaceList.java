package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.ValueType;

/** Which places a bridge hears, as its document says it, or the rows of a table. */
public final class PlaceList {

  /** So that a table that grew by mistake does not make thousands of bridges of one. */
  private static final int MOST = 1000;

  /** As long as the id of a collection can be kept. */
  private static final int LONGEST_COLLECTION = 64;

  private final Places places;
  private final DocumentNode at;
  private final Catalog catalog;

  /**
   * @param at where the document says which they are
   */
  PlaceList(Places places, DocumentNode at, Catalog catalog) {
    this.places = places;
    this.at = at;
    this.catalog = catalog;
  }

  /**
   * The ids of the collections that a bridge hears which begins at several places.
   *
   * @param from what its document says under {@code from}
   * @throws DocumentException if it cannot be said which they are
   */
  public static List<String> collections(DocumentNode from, Catalog catalog) {
    DocumentNode at = from.need(PlacesDocument.PLACES);
    return new PlaceList(PlacesDocument.read(at), at, catalog)
        .all().stream().map(Place::collection).toList();
  }

  /**
   * The places, in order.
   *
   * @throws DocumentException if it cannot be said which they are
   */
  List<Place> all() {
    List<Place> all =
        places.how() == Places.How.TABLE
            ? ofTable()
            : places.named().stream()
                .map(id -> new Place(id, places.collection(id), new LinkedHashMap<>()))
                .toList();
    if (all.isEmpty()) {
      throw at.refuse("the table %s names no place so far".formatted(places.table()));
    }
    if (all.size() > MOST) {
      throw at.refuse("at most %,d places are heard by one bridge".formatted(MOST));
    }
    for (Place place : all) {
      if (place.collection().length() > LONGEST_COLLECTION) {
        throw at.refuse(
            "the id of the place “%s” is too long: with what it is one of it may have %d characters"
                .formatted(place.id(), LONGEST_COLLECTION));
      }
    }
    return all;
  }

  private List<Place> ofTable() {
    TableDefinition table =
        catalog
            .table(places.table())
            .orElseThrow(
                () ->
                    at.need(PlacesDocument.TABLE)
                        .refuse(Nearest.unknown("table", places.table(), catalog.tables())));
    ReferenceTable rows =
        catalog
            .rows(places.table())
            .orElseThrow(
                () -> at.need(PlacesDocument.TABLE).refuse("the rows of this table are not known"));
    String column = column(table);
    List<Place> all = new ArrayList<>();
    Map<String, Integer> named = new HashMap<>();
    int number = 0;
    for (ReferenceTable.Row row : rows.rows()) {
      number++;
      Place place = place(table, row, column);
      if (place.id().isBlank()) {
        continue;
      }
      Integer before = named.put(place.id(), number);
      if (before != null) {
        throw at.need(PlacesDocument.TABLE)
            .refuse(
                "the rows %d and %d of the table name the same place “%s”"
                    .formatted(before, number, place.id()));
      }
      all.add(place);
    }
    return all;
  }

  private String column(TableDefinition table) {
    if (!places.column().isEmpty() && !table.columns().contains(places.column())) {
      throw at.need(PlacesDocument.COLUMN)
          .refuse(Nearest.unknown("column of " + table.name(), places.column(), table.columns()));
    }
    if (places.column().isEmpty() && table.keys().size() > 1) {
      throw at.refuse(
          "say in which column the places stand, as column: " + table.keys().getFirst());
    }
    return places.columnOf(table);
  }

  private Place place(TableDefinition table, ReferenceTable.Row row, String column) {
    SequencedMap<String, Place.Said> said = new LinkedHashMap<>();
    for (int i = 0; i < table.keys().size(); i++) {
      said.put(table.keys().get(i), Place.Said.of(row.keys().get(i)));
    }
    int place = 0;
    for (Map.Entry<String, ValueType> value : table.values().entrySet()) {
      said.put(value.getKey(), new Place.Said(value.getValue(), row.values().get(place++)));
    }
    String id = Place.shown(said, column);
    return new Place(id, places.collection(id), said);
  }
}
