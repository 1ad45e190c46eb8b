package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;

/** Makes what comes after the tasks of an event into functions. */
final class EffectCompiler {

  private final BridgeCompiler compiler;
  private final BridgeDefinition definition;
  private final CollectionShape tasks;
  private final BridgeScope scope;

  /**
   * @param tasks where the tasks stand that this comes after
   */
  EffectCompiler(
      BridgeCompiler compiler,
      BridgeDefinition definition,
      CollectionShape tasks,
      BridgeScope scope) {
    this.compiler = compiler;
    this.definition = definition;
    this.tasks = tasks;
    this.scope = scope;
  }

  /**
   * @param match the bridge's own match key
   */
  List<CompiledEffect> compile(List<BoundField> match) {
    List<CompiledEffect> effects = new ArrayList<>();
    for (BridgeDefinition.Effect effect : definition.then()) {
      one(effect, compiler.document().need("then").need(effect.name()), match)
          .ifPresent(effects::add);
    }
    return effects;
  }

  private Optional<CompiledEffect> one(
      BridgeDefinition.Effect effect, DocumentNode place, List<BoundField> match) {
    Optional<CollectionShape> target = compiler.place(place.need("to"), effect.to());
    Optional<CompiledCondition> when =
        compiler.attempt(
            place.get("when").orElse(place), () -> CompiledCondition.compile(effect.when(), scope));
    List<BoundField> own =
        effect.match().isEmpty()
            ? match
            : compiler.match(effect.match(), place.need("match"), scope);
    if (target.isEmpty() || when.isEmpty()) {
      return Optional.empty();
    }
    // Of several tasks none is the one that was made.
    BridgeScope within =
        definition.plan() instanceof TaskPlan.One && !definition.to().changes()
            ? scope.afterTask()
            : scope;
    List<CompiledField> fields =
        new FieldCompiler(compiler, target.get(), Optional.empty())
            .compile(effect.fields(), place.need("fields"), within, effect.to().changes());
    CompiledEffect compiled =
        new CompiledEffect(
            effect,
            target.get(),
            when.get(),
            compiler.changed(effect.to(), place.need("to"), scope),
            own,
            fields);
    if (compiled.namesTheLink() && tasks.abilities().filter(can -> !can.pages()).isPresent()) {
      compiler.problem(
          place
              .need("fields")
              .problem(
                  "%s of %s has no pages for its records (page), so that a task has no link"
                      .formatted(tasks.name(), tasks.systemName())));
    }
    return Optional.of(compiled);
  }
}
