package org.ysthmos.app.uses;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.draft.Drafts;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentJson;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.impact.PlaceWords;
import org.ysthmos.core.impact.Renaming;
import org.ysthmos.core.uses.Thing;

/** Bridges written for a field that has another key, each as its draft. */
@Component
class RenameDrafts {

  /**
   * What becomes of a bridge.
   *
   * @param places where it names the field, in words
   * @param problem why it cannot be written so; empty if it can
   */
  record Renamed(String bridge, String name, List<String> places, String problem) {}

  /**
   * A bridge as it would be.
   *
   * @param document empty if it cannot be written so
   */
  private record Written(Renamed renamed, Optional<JsonNode> document) {}

  private final Bridges bridges;
  private final Drafts drafts;
  private final Catalog catalog;

  RenameDrafts(Bridges bridges, Drafts drafts, Catalog catalog) {
    this.bridges = bridges;
    this.drafts = drafts;
    this.catalog = catalog;
  }

  /** What becomes of each bridge that names a field; nothing is kept. */
  List<Renamed> of(Thing field, String to) {
    return written(field, to).stream().map(Written::renamed).toList();
  }

  private List<Written> written(Thing field, String to) {
    requireFit(field, to);
    return bridges.live().stream()
        .filter(live -> live.version().uses().stream().anyMatch(use -> use.thing().isAlike(field)))
        .map(live -> written(live, field, to))
        .toList();
  }

  private Written written(Bridges.Live live, Thing field, String to) {
    try {
      JsonNode document =
          Renaming.rewritten(
              DocumentJson.of(DocumentNode.parse(live.document())), field, to, catalog);
      String problem = draftInTheWay(live).orElse("");
      return new Written(renamed(live.version(), field, problem), Optional.of(document));
    } catch (DocumentException e) {
      String problem = e.problems().getFirst().message();
      return new Written(renamed(live.version(), field, problem), Optional.empty());
    }
  }

  private static Renamed renamed(BridgeVersion bridge, Thing field, String problem) {
    return new Renamed(
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.uses().stream()
            .filter(use -> use.thing().isAlike(field))
            .map(use -> PlaceWords.of(bridge, use.place()))
            .distinct()
            .toList(),
        problem);
  }

  /** What somebody is at work on is not written over. */
  private Optional<String> draftInTheWay(Bridges.Live live) {
    return drafts.find(live.version().definition().id()).revision() > 0
        ? Optional.of("somebody is at work on a draft of it; let it go live or drop it first")
        : Optional.empty();
  }

  /**
   * Keeps the drafts of all bridges that name a field, or none.
   *
   * @throws ApiProblem if one cannot be written so
   */
  @Transactional
  public List<Renamed> keep(Thing field, String to) {
    List<Written> all = written(field, to);
    for (Written one : all) {
      if (!one.renamed().problem().isEmpty()) {
        throw new ApiProblem(
            HttpStatus.CONFLICT,
            "Not all of them can be written so",
            "Nothing was kept. %s: %s.".formatted(one.renamed().name(), one.renamed().problem()));
      }
    }
    for (Written one : all) {
      Drafts.Draft unused =
          drafts.keep(one.renamed().bridge(), one.document().orElseThrow().toString(), 0);
    }
    return all.stream().map(Written::renamed).toList();
  }

  private static void requireFit(Thing field, String to) {
    if (!Renaming.fits(field, to)) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No such key",
          field.id().startsWith("/")
              ? "Write another address, such as /place or /answers/place, without spaces or braces."
              : "Write another key, such as place, without spaces, strokes or braces.");
    }
  }
}
