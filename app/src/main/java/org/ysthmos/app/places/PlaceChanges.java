package org.ysthmos.app.places;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.table.TableUsers;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Places;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableCsv;
import org.ysthmos.core.table.TableDefinition;

/**
 * Takes places that are offered to a bridge, and leaves others out. What the document names makes a
 * new version of it; what a table names becomes rows of the table.
 */
@Component
class PlaceChanges {

  /**
   * A place that is taken.
   *
   * @param cells what its row says, by column; none where no table names the places
   */
  record TakenPlace(String id, Map<String, String> cells) {}

  private final Bridges bridges;
  private final Loops loops;
  private final PlaceOffers offers;
  private final Tables tables;
  private final TableUsers users;

  PlaceChanges(Bridges bridges, Loops loops, PlaceOffers offers, Tables tables, TableUsers users) {
    this.bridges = bridges;
    this.loops = loops;
    this.offers = offers;
    this.tables = tables;
    this.users = users;
  }

  /**
   * @param seen the version that the person saw
   */
  synchronized void take(String bridge, int seen, List<TakenPlace> taken) {
    BridgeVersion now = live(bridge, seen);
    Places places = places(now);
    Set<String> offered = offers.offered(now).keySet();
    List<String> ids = taken.stream().map(TakenPlace::id).toList();
    ids.stream()
        .filter(id -> !offered.contains(id))
        .findFirst()
        .ifPresent(
            id -> {
              throw new ApiProblem(
                  HttpStatus.CONFLICT,
                  "Not offered",
                  "The place “%s” is not offered any more. Open the page again to see which are."
                      .formatted(id));
            });
    if (places.how() == Places.How.TABLE) {
      addRows(places, taken);
    } else {
      List<String> named = new ArrayList<>(places.named());
      named.addAll(ids);
      put(now, places.with(named, places.leftOut()));
    }
  }

  /** Those that are left out are not offered again. */
  synchronized void leaveOut(String bridge, int seen, List<String> ids) {
    BridgeVersion now = live(bridge, seen);
    Places places = places(now);
    if (!places.offers()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Nothing is offered",
          "Its document names the places that it hears.");
    }
    if (places.how() == Places.How.TABLE && !offers.offered(now).keySet().containsAll(ids)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Not offered",
          "A place that a row of the table names is heard; take the row out of the table instead.");
    }
    List<String> leftOut = new ArrayList<>(places.leftOut());
    ids.stream().filter(id -> !leftOut.contains(id)).forEach(leftOut::add);
    List<String> named = places.named().stream().filter(id -> !ids.contains(id)).toList();
    if (places.how() != Places.How.TABLE && named.isEmpty()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "None would be left",
          "A bridge hears at least one place. Retire it if it is not needed any more.");
    }
    put(now, places.with(named, leftOut));
  }

  /** Those that were left out are offered again. */
  synchronized void offerAgain(String bridge, int seen, List<String> ids) {
    BridgeVersion now = live(bridge, seen);
    Places places = places(now);
    put(
        now,
        places.with(
            places.named(), places.leftOut().stream().filter(id -> !ids.contains(id)).toList()));
  }

  private BridgeVersion live(String bridge, int seen) {
    BridgeVersion now =
        bridges
            .live(bridge)
            .map(Bridges.Live::version)
            .orElseThrow(() -> ApiProblem.notFound("live bridge", bridge));
    if (now.number() != seen) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          "Version %d is live by now. Open the page again to see what it hears."
              .formatted(now.number()));
    }
    return now;
  }

  private static Places places(BridgeVersion bridge) {
    return bridge
        .definition()
        .from()
        .places()
        .orElseThrow(
            () ->
                new ApiProblem(
                    HttpStatus.CONFLICT, "One place", "The bridge hears one collection alone."));
  }

  private void put(BridgeVersion now, Places places) {
    BridgeDefinition changed = now.definition().with(places);
    BridgeVersion unused = loops.putToWork(BridgeWriter.write(changed), false, By.PERSON);
  }

  private void addRows(Places places, List<TakenPlace> taken) {
    // Somebody else may be at the same table.
    tables.together(() -> put(places, taken));
    users.refresh();
  }

  private void put(Places places, List<TakenPlace> taken) {
    ReferenceTable table = tables.table(places.table()).orElseThrow();
    TableDefinition definition = table.definition();
    String column = places.columnOf(definition);
    StringBuilder csv = new StringBuilder(TableCsv.write(table));
    for (TakenPlace one : taken) {
      Map<String, String> cells = new LinkedHashMap<>(one.cells());
      cells.put(column, one.id());
      csv.append(
          TableCsv.line(
              definition.columns().stream().map(c -> cells.getOrDefault(c, "")).toList()));
    }
    ReferenceTable wanted = TableCsv.read(csv.toString(), definition);
    users.requireUsable(wanted);
    ReferenceTable unused = tables.put(wanted, By.PERSON);
  }
}
