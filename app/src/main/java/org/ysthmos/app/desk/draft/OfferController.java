package org.ysthmos.app.desk.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Option;
import org.ysthmos.core.step.StepKind;
import org.ysthmos.core.step.StepKinds;

/** What a bridge can be made of: places, steps, operators, tables and calendars. */
@RestController
@RequestMapping(path = "/api/desk", produces = MediaType.APPLICATION_JSON_VALUE)
class OfferController {

  /**
   * A place that a bridge can start from or lead to.
   *
   * @param writes whether records can be made there
   * @param changes whether records can be changed there
   * @param required the names of the fields that a record needs
   * @param everySeconds how often it is asked for changes if a bridge says nothing else; 0 if it is
   *     not asked, but tells by itself
   * @param hindrance why no bridge can use it as it is, and what to do; empty if one can
   */
  record PlaceView(
      String system,
      String systemName,
      String collection,
      String name,
      String record,
      List<String> kinds,
      long everySeconds,
      boolean writes,
      boolean changes,
      List<String> required,
      String hindrance) {}

  /**
   * A place where lookups find records.
   *
   * @param by the sets of key fields that the system can be asked by
   * @param eventBy the fields by which the events received of it can be searched
   */
  record LookupPlace(
      String system,
      String systemName,
      String collection,
      String name,
      String record,
      List<List<String>> by,
      List<String> eventBy) {}

  /** Where bridges can start, where they can lead, and where lookups can look. */
  record PlacesView(List<PlaceView> sources, List<PlaceView> targets, List<LookupPlace> lookups) {}

  /** Whether a place answers us just now; {@code problem} says why not and what to do. */
  record PlaceAnswer(boolean seen, String problem) {}

  /** An option of a step; {@code type} is one of the closed set of option types. */
  record OptionView(String name, String type, List<String> words, boolean required, String about) {}

  /** A kind of step, for choosing one and filling in its options. */
  record StepKindView(
      String name,
      String family,
      String summary,
      boolean bare,
      boolean testing,
      String example,
      List<OptionView> options) {}

  /** What rules can be made of. */
  record LanguageView(
      List<StepKindView> steps,
      List<String> operators,
      List<String> tables,
      List<String> calendars) {}

  private final Systems systems;
  private final Tables tables;
  private final PlaceCheck check;

  OfferController(Systems systems, Tables tables, PlaceCheck check) {
    this.systems = systems;
    this.tables = tables;
    this.check = check;
  }

  @GetMapping("/places")
  PlacesView places() {
    List<PlaceView> sources = new ArrayList<>();
    List<PlaceView> targets = new ArrayList<>();
    List<LookupPlace> lookups = new ArrayList<>();
    for (Systems.Connected system : systems.all()) {
      for (SystemCollection collection : systems.collectionsOf(system.description()).values()) {
        sources.add(place(collection, check.asSource(system, collection)));
        targets.add(place(collection, check.asTarget(system, collection)));
        if (!collection.findsBy().isEmpty() || !collection.shape().eventFields().isEmpty()) {
          lookups.add(lookup(collection));
        }
      }
    }
    return new PlacesView(usableFirst(sources), usableFirst(targets), lookups);
  }

  private static List<PlaceView> usableFirst(List<PlaceView> places) {
    return places.stream().sorted(Comparator.comparing(p -> !p.hindrance().isEmpty())).toList();
  }

  private static PlaceView place(SystemCollection collection, String hindrance) {
    CollectionShape shape = collection.shape();
    return new PlaceView(
        shape.system(),
        shape.systemName(),
        shape.collection(),
        shape.name(),
        shape.recordWord(),
        collection.kinds(),
        collection.polled().map(asked -> asked.every().toSeconds()).orElse(0L),
        collection.makes(),
        collection.changes(),
        shape.written().fields().stream()
            .filter(FieldShape::required)
            .map(FieldShape::name)
            .toList(),
        hindrance);
  }

  private static LookupPlace lookup(SystemCollection collection) {
    CollectionShape shape = collection.shape();
    return new LookupPlace(
        shape.system(),
        shape.systemName(),
        shape.collection(),
        shape.name(),
        shape.recordWord(),
        collection.findsBy(),
        shape.eventFields().stream().map(FieldShape::key).toList());
  }

  /** Asks a place whether it answers us; nothing is changed there. */
  @GetMapping("/places/{system}/{collection}")
  PlaceAnswer ask(@PathVariable String system, @PathVariable String collection) {
    String problem = check.ask(system, collection);
    return new PlaceAnswer(problem.isEmpty(), problem);
  }

  @GetMapping("/language")
  LanguageView language() {
    return new LanguageView(
        StepKinds.ALL.stream().map(OfferController::stepKind).toList(),
        List.copyOf(Operators.KEYS.sequencedKeySet()),
        tables.all().keySet().stream().sorted().toList(),
        tables.calendars().keySet().stream().sorted().toList());
  }

  private static StepKindView stepKind(StepKind kind) {
    return new StepKindView(
        kind.name(),
        kind.family().title(),
        kind.summary(),
        kind.bare(),
        kind.testing(),
        kind.examples().getFirst().written(),
        kind.options().stream().map(OfferController::option).toList());
  }

  private static OptionView option(Option option) {
    return switch (option.type()) {
      case Option.Words words ->
          new OptionView(option.name(), "words", words.words(), option.required(), option.about());
      case Option.Plain plain ->
          new OptionView(
              option.name(),
              DocumentNode.wordOf(plain),
              List.of(),
              option.required(),
              option.about());
    };
  }
}
