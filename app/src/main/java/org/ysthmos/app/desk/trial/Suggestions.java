package org.ysthmos.app.desk.trial;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.desk.sample.SourceColumns;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.suggest.FieldPair;
import org.ysthmos.core.suggest.FieldPairs;
import org.ysthmos.core.suggest.SourceField;

/** Likely pairs of fields for a draft, offered to its writer. */
@Component
class Suggestions {

  /**
   * A rule that would likely fill a target field.
   *
   * @param rule the rule as a part of a draft, JSON
   * @param source the source field's name
   * @param steps its steps as sentences
   */
  record SuggestionView(
      String field,
      String fieldName,
      String rule,
      String source,
      List<String> steps,
      String because) {}

  private final Catalog catalog;
  private final Samples samples;
  private final DeskTrial trial;

  Suggestions(Catalog catalog, Samples samples, DeskTrial trial) {
    this.catalog = catalog;
    this.samples = samples;
    this.trial = trial;
  }

  /**
   * For the target fields that have no rule, or only the empty one that a new draft begins with.
   */
  List<SuggestionView> of(String id, String json) {
    Optional<BridgeVersion> bridge = DraftCompiler.compile(json, catalog).version();
    ObjectNode draft = DraftJson.parse(json);
    if (bridge.isEmpty()) {
      return List.of();
    }
    List<Sample> found =
        samples.of(id, DraftStart.of(draft, catalog), DeskTrial.IN_STRIP).samples();
    List<SourceField> sources =
        SourceColumns.of(bridge.get(), found, trial.decide(bridge.get(), found)).stream()
            .flatMap(group -> group.fields().stream())
            .filter(source -> !source.address().root().equals(Address.EVENT))
            .toList();
    List<FieldShape> targets =
        bridge.get().target().fields().stream()
            .filter(field -> isOpen(draft, field.key()))
            .toList();
    return FieldPairs.of(sources, targets).stream()
        .map(pair -> view(pair, bridge.get(), sources))
        .toList();
  }

  private static boolean isOpen(ObjectNode draft, String field) {
    var rule = draft.path("fields").path(field);
    return rule.isMissingNode() || (rule.size() == 1 && rule.path("text").asText("x").isEmpty());
  }

  private static SuggestionView view(
      FieldPair pair, BridgeVersion bridge, List<SourceField> sources) {
    String key = pair.rule().field();
    String source =
        pair.rule().value().source() instanceof Source.Field field
            ? sources.stream()
                .filter(one -> one.address().equals(field.address()))
                .map(one -> one.shape().name())
                .findFirst()
                .orElse(field.address().toString())
            : "";
    return new SuggestionView(
        key,
        bridge.target().field(key).map(FieldShape::name).orElse(key),
        DraftJson.written(RuleDocument.written(pair.rule().value())).toString(),
        source,
        pair.rule().value().steps().stream().map(Step::sentence).toList(),
        pair.because());
  }
}
