package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.function.Function;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.document.Problems;
import org.ysthmos.core.reading.Address;

/**
 * Makes a bridge that hears several places into a version that looks as it is for each of them. The
 * rules are compiled once for each place, so that what differs between places is known before any
 * event comes.
 */
final class PlacesCompiler {

  private final DocumentNode document;
  private final BridgeDefinition definition;
  private final PlaceList list;

  PlacesCompiler(
      DocumentNode document, BridgeDefinition definition, Places places, Catalog catalog) {
    this.document = document;
    this.definition = definition;
    this.list = new PlaceList(places, document.need("from").need(PlacesDocument.PLACES), catalog);
  }

  /**
   * @param problems takes all that is wrong, of all places
   * @param compile gives the version for the events of one place, and refuses what is wrong with it
   */
  BridgeVersion compile(Problems problems, Function<Place, BridgeVersion> compile) {
    List<Place> all = problems.part(list::all).orElse(List.of());
    SequencedMap<String, BridgeVersion> views = new LinkedHashMap<>();
    SequencedMap<DocumentProblem, List<String>> wrong = new LinkedHashMap<>();
    for (Place place : all) {
      try {
        views.put(place.collection(), compile.apply(place));
      } catch (DocumentException refused) {
        refused
            .problems()
            .forEach(one -> wrong.computeIfAbsent(one, any -> new ArrayList<>()).add(place.id()));
      }
    }
    wrong.forEach(
        (problem, of) -> problems.add(of.size() == all.size() ? problem : of(problem, of)));
    problems.refuse();
    return views
        .firstEntry()
        .getValue()
        .with(
            views,
            views.values().stream()
                .map(BridgeVersion::uses)
                .flatMap(List::stream)
                .distinct()
                .toList(),
            remarks(views));
  }

  /** What is wrong for the events of some places only. */
  private static DocumentProblem of(DocumentProblem problem, List<String> ids) {
    String some = String.join("”, “", ids.subList(0, Math.min(3, ids.size())));
    String more = ids.size() > 3 ? " and %d more".formatted(ids.size() - 3) : "";
    return new DocumentProblem(
        problem.path(),
        problem.line(),
        problem.column(),
        "of the place%s “%s”%s: %s"
            .formatted(ids.size() == 1 ? "" : "s", some, more, problem.message()));
  }

  private List<DocumentProblem> remarks(SequencedMap<String, BridgeVersion> views) {
    List<DocumentProblem> remarks = new ArrayList<>();
    boolean told =
        definition.match().stream().anyMatch(address -> address.root().equals(Address.PLACE));
    if (views.size() > 1 && !told) {
      remarks.add(
          document
              .need("match")
              .problem(
                  "records of different places that have these alike are one; add place/id where"
                      + " each place has its own"));
    }
    views.values().stream()
        .map(BridgeVersion::remarks)
        .flatMap(List::stream)
        .distinct()
        .forEach(remarks::add);
    return remarks;
  }

  /** Why the row of a place does not say where is written to; empty if it does. */
  static Optional<String> unnamed(Place place, BridgeDefinition.ToPlace to) {
    if (!place.row().containsKey(to.take())) {
      return Optional.of(Nearest.unknown("column", to.take(), place.row().keySet()));
    }
    return place.shown(to.take()).isBlank()
        ? Optional.of(
            "its row says nothing under “%s”, so that it is not known where its tasks go"
                .formatted(to.take()))
        : Optional.empty();
  }
}
