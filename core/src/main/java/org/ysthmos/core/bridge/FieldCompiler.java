package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.BoundField.OfMade;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.uses.Use;

/** Makes the field rules of one target into functions. */
final class FieldCompiler {

  private final BridgeCompiler compiler;
  private final CollectionShape target;
  private final Optional<DocumentNode> shared;

  /**
   * @param shared the group of rules that count where a task states none of its own
   */
  FieldCompiler(BridgeCompiler compiler, CollectionShape target, Optional<DocumentNode> shared) {
    this.compiler = compiler;
    this.target = target;
    this.shared = shared.filter(DocumentNode::isGroup);
  }

  /**
   * @param places the group in which the rules stand; one that is not there stands in the shared
   * @param changes whether a record that is there is changed, which needs no more than is changed
   */
  List<CompiledField> compile(
      List<FieldRule> rules, DocumentNode places, BridgeScope within, boolean changes) {
    List<CompiledField> fields = new ArrayList<>();
    for (FieldRule rule : rules) {
      DocumentNode own = places.get(rule.field()).orElse(places);
      DocumentNode place =
          places.get(rule.field()).isPresent()
              ? own
              : shared.flatMap(all -> all.get(rule.field())).orElse(own);
      compiler
          .attempt(place, () -> one(rule, within))
          .ifPresent(
              field -> {
                compiler.remark(place, field.value());
                fields.add(field);
              });
    }
    if (!changes) {
      requireFields(rules, places);
    }
    return fields;
  }

  private CompiledField one(FieldRule rule, BridgeScope within) {
    CompiledField field = RuleCompiler.field(rule, targetField(rule), within);
    compiler.uses().field(target, rule.field(), Use.How.WRITES);
    boolean ofTheTask = field.reads().stream().anyMatch(read -> read.reader() instanceof OfMade);
    if (ofTheTask && rule.value().goesThroughSteps()) {
      throw new Misfit(
          "what is made has its id and its link only later, so that no steps can go over them; put"
              + " them into a text: text: \"Task {made/link}\"");
    }
    return field;
  }

  private FieldShape targetField(FieldRule rule) {
    return target
        .field(rule.field())
        .orElseThrow(
            () ->
                new Misfit(
                    Nearest.unknown(
                        "field of " + target.name(),
                        rule.field(),
                        target.fields().stream().map(FieldShape::key).toList())));
  }

  private void requireFields(List<FieldRule> rules, DocumentNode places) {
    for (FieldShape field : target.fields()) {
      // A rule that is there and cannot be read is told of already.
      boolean stated =
          rules.stream().anyMatch(rule -> rule.field().equals(field.key()))
              || places.get(field.key()).isPresent()
              || shared.flatMap(all -> all.get(field.key())).isPresent();
      if (field.required() && !stated) {
        compiler.problem(places.problem("“" + field.key() + "” is required by " + target.name()));
      }
    }
  }
}
