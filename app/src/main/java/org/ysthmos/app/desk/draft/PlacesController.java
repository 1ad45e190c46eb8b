package org.ysthmos.app.desk.draft;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.app.places.PlaceOffers;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;

/** Which places a bridge could hear that are like one that it begins at. */
@RestController
@RequestMapping(path = "/api/desk/places-alike", produces = MediaType.APPLICATION_JSON_VALUE)
class PlacesController {

  /** A place by its id. */
  record AlikePlace(String id, String name) {}

  /** A table in which places can stand, one in each row. */
  record PlaceTable(String id, String name, List<String> columns) {}

  /**
   * Places like one.
   *
   * @param of what the system's document calls them; empty where it describes each by itself
   * @param name what people call them all
   * @param id the id of the one that was asked about
   */
  record AlikePlaces(
      String of, String name, String id, List<AlikePlace> places, List<PlaceTable> tables) {}

  private final Systems systems;
  private final PlaceOffers offers;
  private final Tables tables;

  PlacesController(Systems systems, PlaceOffers offers, Tables tables) {
    this.systems = systems;
    this.offers = offers;
    this.tables = tables;
  }

  /**
   * @param kind the kinds of event that are to come from there
   */
  @GetMapping
  AlikePlaces alike(
      @RequestParam String system,
      @RequestParam String collection,
      @RequestParam(defaultValue = "") List<String> kind) {
    Optional<ManyPlaces> many = systems.manyOf(system, collection);
    Optional<PlaceId> place = many.flatMap(all -> PlaceId.parse(collection));
    SequencedMap<String, String> known = offers.known(system, place.map(PlaceId::of), kind);
    return new AlikePlaces(
        place.map(PlaceId::of).orElse(""),
        many.map(ManyPlaces::name).orElse(""),
        place.map(PlaceId::place).orElse(collection),
        known.entrySet().stream().map(one -> new AlikePlace(one.getKey(), one.getValue())).toList(),
        tables.all().values().stream()
            .map(ReferenceTable::definition)
            .sorted(Comparator.comparing(TableDefinition::name))
            .map(table -> new PlaceTable(table.id(), table.name(), table.columns()))
            .toList());
  }
}
