package org.ysthmos.app.uses;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
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
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.uses.PlaceWords;
import org.ysthmos.core.uses.Renaming;
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

  private record Written(BridgeVersion bridge, JsonNode document) {}

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
    requireFit(field, to);
    return naming(field).stream().map(live -> renamed(live, field, to)).toList();
  }

  private List<Bridges.Live> naming(Thing field) {
    return bridges.live().stream().filter(live -> live.version().names(field)).toList();
  }

  private Renamed renamed(Bridges.Live live, Thing field, String to) {
    try {
      JsonNode unused = rewritten(live, field, to);
      return renamed(live.version(), field, draftInTheWay(live).orElse(""));
    } catch (DocumentException e) {
      return renamed(live.version(), field, e.problems().getFirst().message());
    }
  }

  private JsonNode rewritten(Bridges.Live live, Thing field, String to) {
    return Renaming.rewritten(DocumentNode.parse(live.document()).json(), field, to, catalog);
  }

  private static Renamed renamed(BridgeVersion bridge, Thing field, String problem) {
    return new Renamed(
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.uses().stream()
            .filter(use -> use.thing().equals(field))
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
    requireFit(field, to);
    List<Written> written = new ArrayList<>();
    for (Bridges.Live live : naming(field)) {
      Renamed renamed = renamed(live, field, to);
      if (!renamed.problem().isEmpty()) {
        throw new ApiProblem(
            HttpStatus.CONFLICT,
            "Not all of them can be written so",
            "Nothing was kept. %s: %s.".formatted(renamed.name(), renamed.problem()));
      }
      written.add(new Written(live.version(), rewritten(live, field, to)));
    }
    for (Written one : written) {
      Drafts.Draft unused =
          drafts.keep(one.bridge().definition().id(), one.document().toString(), 0);
    }
    return written.stream().map(one -> renamed(one.bridge(), field, "")).toList();
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
