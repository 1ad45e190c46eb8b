package org.ysthmos.app.rehearsal;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.Drafts;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;

/** What of a bridge can be rehearsed, and what its fields are called. */
@Component
class RehearsalPlaces {

  /**
   * @param name the bridge's
   * @param draft the draft as it is now; empty if nothing was typed since the live version
   * @param liveVersion empty for one that was never live
   * @param versions the newest first
   * @param bothWays whether it goes both ways, so that it is not rehearsed
   * @param fieldNames what people call the target's fields, by their keys
   */
  record Of(
      String name,
      Optional<String> draft,
      Optional<Integer> liveVersion,
      List<Integer> versions,
      boolean bothWays,
      Map<String, String> fieldNames) {}

  private final Bridges bridges;
  private final BridgeHistory history;
  private final Drafts drafts;
  private final Catalog catalog;

  RehearsalPlaces(Bridges bridges, BridgeHistory history, Drafts drafts, Catalog catalog) {
    this.bridges = bridges;
    this.history = history;
    this.drafts = drafts;
    this.catalog = catalog;
  }

  /**
   * @throws org.ysthmos.app.problem.ApiProblem if there is neither a live bridge nor a draft
   */
  Of of(String bridge) {
    Optional<BridgeVersion> live = bridges.live(bridge).map(Bridges.Live::version);
    Optional<String> draft = drafts.kept(bridge).map(Drafts.Draft::document);
    ObjectNode document = DraftJson.parse(draft.orElseGet(() -> drafts.find(bridge).document()));
    Map<String, String> names = new LinkedHashMap<>();
    List<CollectionShape> targets = new ArrayList<>();
    catalog
        .collection(document.at("/to/system").asText(), document.at("/to/collection").asText())
        .ifPresent(targets::add);
    live.map(BridgeVersion::target).ifPresent(targets::add);
    for (CollectionShape target : targets) {
      for (FieldShape field : target.fields()) {
        names.putIfAbsent(field.key(), field.name());
      }
    }
    return new Of(
        live.map(version -> version.definition().name())
            .orElseGet(() -> document.path("name").asText(bridge)),
        draft,
        live.map(BridgeVersion::number),
        history.versions(bridge).stream().map(BridgeHistory.Kept::number).toList(),
        document.has("between"),
        names);
  }
}
