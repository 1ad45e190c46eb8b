package org.ysthmos.core.bridge;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeDefinition.ToPlace;
import org.ysthmos.core.bridge.Places.How;
import org.ysthmos.core.document.DocumentNode;

/**
 * Reads and writes which places a bridge hears, {@code from: { places: { of: lists, table: crews }
 * }}, and to which place of a table it writes, {@code to: { collection: { of: lists, take: list }
 * }}.
 */
final class PlacesDocument {

  static final String PLACES = "places";
  static final String TABLE = "table";
  static final String COLUMN = "column";

  private static final String OF = "of";
  private static final String NAMED = "named";
  private static final String ALL = "all";
  private static final String LEFT_OUT = "left-out";
  private static final String TAKE = "take";

  private PlacesDocument() {}

  static Places read(DocumentNode node) {
    node.only(OF, NAMED, ALL, TABLE, COLUMN, LEFT_OUT);
    List<String> ways =
        List.of(NAMED, ALL, TABLE).stream().filter(key -> node.get(key).isPresent()).toList();
    if (ways.size() != 1) {
      throw node.refuse(
          "say which places: named: [some], all: [all that are taken so far], or the table that names them");
    }
    How how =
        switch (ways.getFirst()) {
          case NAMED -> How.NAMED;
          case ALL -> How.ALL;
          default -> How.TABLE;
        };
    if (how == How.NAMED && node.get(LEFT_OUT).isPresent()) {
      throw node.need(LEFT_OUT).refuse("where places are named no other is offered; leave it out");
    }
    if (how != How.TABLE && node.get(COLUMN).isPresent()) {
      throw node.need(COLUMN)
          .refuse("a column is one of a table; say which table names the places");
    }
    return new Places(
        node.get(OF).map(DocumentNode::text),
        how,
        how == How.TABLE ? List.of() : ids(node.need(ways.getFirst())),
        how == How.TABLE ? node.need(TABLE).text() : "",
        node.get(COLUMN).map(DocumentNode::text).orElse(""),
        node.get(LEFT_OUT).map(PlacesDocument::ids).orElse(List.of()));
  }

  private static List<String> ids(DocumentNode node) {
    List<String> ids = node.texts();
    Set<String> once = new HashSet<>();
    for (int i = 0; i < ids.size(); i++) {
      if (!once.add(ids.get(i))) {
        throw node.list().get(i).refuse("“" + ids.get(i) + "” is named twice");
      }
    }
    if (ids.isEmpty()) {
      throw node.refuse("name at least one place");
    }
    return ids;
  }

  static ToPlace readTo(DocumentNode node) {
    node.only(OF, TAKE);
    return new ToPlace(node.get(OF).map(DocumentNode::text), node.need(TAKE).text());
  }

  static SequencedMap<String, Object> write(Places places) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    places.of().ifPresent(of -> written.put(OF, of));
    switch (places.how()) {
      case NAMED -> written.put(NAMED, places.named());
      case ALL -> written.put(ALL, places.named());
      case TABLE -> {
        written.put(TABLE, places.table());
        if (!places.column().isEmpty()) {
          written.put(COLUMN, places.column());
        }
      }
    }
    if (!places.leftOut().isEmpty()) {
      written.put(LEFT_OUT, places.leftOut());
    }
    return written;
  }

  static SequencedMap<String, Object> write(ToPlace to) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    to.of().ifPresent(of -> written.put(OF, of));
    written.put(TAKE, to.take());
    return written;
  }
}
