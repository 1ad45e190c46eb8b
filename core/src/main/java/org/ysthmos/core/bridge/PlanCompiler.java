package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.value.ValueType;

/** Makes the tasks of a bridge into functions. */
final class PlanCompiler {

  private final BridgeCompiler compiler;
  private final BridgeDefinition definition;
  private final CollectionShape target;
  private final BridgeScope scope;
  private final FieldCompiler fieldCompiler;

  /** What a plan goes through: the records of a list, or the values of one. */
  private sealed interface Items {}

  private record Records(BoundField list) implements Items {}

  private record Values(CompiledValue list) implements Items {}

  PlanCompiler(
      BridgeCompiler compiler,
      BridgeDefinition definition,
      CollectionShape target,
      BridgeScope scope) {
    this.compiler = compiler;
    this.definition = definition;
    this.target = target;
    this.scope = scope;
    this.fieldCompiler = new FieldCompiler(compiler, target, compiler.document().get("fields"));
  }

  Optional<CompiledPlan> compile() {
    DocumentNode document = compiler.document();
    return switch (definition.plan()) {
      case TaskPlan.One one ->
          Optional.of(
              new CompiledPlan.One(
                  shared(scope), compiler.changed(definition.to(), document.need("to"), scope)));
      case TaskPlan.ForEach each ->
          compiler
              .attempt(document.need("for-each"), () -> listOf(each))
              .map(list -> forEach(each, list));
      case TaskPlan.TaskSet set ->
          compiler
              .attempt(
                  document.need("set").need("anchor"),
                  () -> RuleCompiler.value(set.anchor(), Optional.empty(), scope))
              .map(anchor -> set(set, anchor));
    };
  }

  private List<CompiledField> shared(BridgeScope within) {
    DocumentNode document = compiler.document();
    return fields(definition.fields(), document.get("fields").orElse(document), within);
  }

  private List<CompiledField> fields(
      List<FieldRule> rules, DocumentNode places, BridgeScope within) {
    return fieldCompiler.compile(rules, places, within, definition.to().changes());
  }

  /** The list of a plan: a list of records as it stands, or a rule that gives a list. */
  private Items listOf(TaskPlan.ForEach each) {
    if (each.list().steps().isEmpty() && each.list().source() instanceof Source.Field field) {
      BoundField bound = Misfit.at("list", () -> scope.bind(field.address()));
      if (bound.shape().type().equals(ValueType.listOf(ValueType.RECORD))) {
        if (each.key().isEmpty()) {
          throw new Misfit(
              "say which field tells one record from another, for example key: item/id");
        }
        return new Records(bound);
      }
    }
    CompiledValue value =
        Misfit.at("list", () -> RuleCompiler.value(each.list(), Optional.empty(), scope));
    if (!value.gives().isList()) {
      throw new Misfit("a list is gone through, this is a " + value.gives() + "; split it first")
          .under("list");
    }
    if (each.key().isPresent()) {
      throw new Misfit("values are their own key; leave key out").under("key");
    }
    return new Values(value);
  }

  private CompiledPlan forEach(TaskPlan.ForEach each, Items items) {
    return switch (items) {
      case Records records -> forEachRecord(each, records.list());
      case Values values -> forEachValue(values.list());
    };
  }

  private CompiledPlan forEachRecord(TaskPlan.ForEach each, BoundField list) {
    BridgeScope within = scope.inItemsOf(list);
    DocumentNode place = compiler.document().need("for-each").need("key");
    Optional<BoundField> key = compiler.attempt(place, () -> within.bind(each.key().orElseThrow()));
    List<CompiledField> fields = shared(within);
    // Without its key the plan is refused as a whole; what stands in for it is never used.
    return key.<CompiledPlan>map(k -> new CompiledPlan.EachRecord(list, k, fields))
        .orElseGet(() -> new CompiledPlan.One(fields, Optional.empty()));
  }

  private CompiledPlan forEachValue(CompiledValue list) {
    ValueType element = list.gives().element().orElseThrow();
    return new CompiledPlan.EachValue(list, shared(scope.withItem(element, "item")));
  }

  private CompiledPlan set(TaskPlan.TaskSet set, CompiledValue anchor) {
    DocumentNode place = compiler.document().need("set");
    if (!anchor.gives().equals(ValueType.DAY)) {
      compiler.problem(
          place
              .need("anchor")
              .problem("the anchor is a day, this is a " + anchor.gives() + "; read it as one"));
    }
    List<CompiledPlan.Member> members = new ArrayList<>();
    for (TaskPlan.Member member : parentsFirst(set, place.need("tasks"))) {
      DocumentNode at = place.need("tasks").need(member.name());
      if (member.offset() instanceof TaskPlan.ByWorkingDays days) {
        for (String calendar : days.calendars()) {
          compiler.attempt(at.need("offset"), () -> scope.calendar(calendar));
        }
      }
      List<FieldRule> rules = merged(member);
      members.add(
          new CompiledPlan.Member(
              member, fields(rules, at.get("fields").orElse(at), scope.inSet())));
    }
    return new CompiledPlan.Set(anchor, set.noAnchor(), members);
  }

  /** The rules of all tasks, with this task's own in their place or behind them. */
  private List<FieldRule> merged(TaskPlan.Member member) {
    SequencedMap<String, FieldRule> rules = new LinkedHashMap<>();
    definition.fields().forEach(rule -> rules.put(rule.field(), rule));
    member.fields().forEach(rule -> rules.put(rule.field(), rule));
    return List.copyOf(rules.sequencedValues());
  }

  /** The members in an order in which each comes after its parent. */
  private List<TaskPlan.Member> parentsFirst(TaskPlan.TaskSet set, DocumentNode places) {
    SequencedMap<String, TaskPlan.Member> left = new LinkedHashMap<>();
    set.members().forEach(member -> left.put(member.name(), member));
    for (TaskPlan.Member member : set.members()) {
      member.parent().ifPresent(parent -> checkParent(member, parent, left.keySet(), places));
    }
    List<TaskPlan.Member> ordered = new ArrayList<>();
    boolean moving = true;
    while (moving) {
      moving = false;
      for (TaskPlan.Member member : List.copyOf(left.sequencedValues())) {
        if (member.parent().filter(left::containsKey).isEmpty()) {
          ordered.add(member);
          left.remove(member.name());
          moving = true;
        }
      }
    }
    left.forEach(
        (name, member) ->
            compiler.problem(
                places.need(name).problem("the task stands under itself, over its parents")));
    return ordered;
  }

  private void checkParent(
      TaskPlan.Member member, String parent, Set<String> names, DocumentNode places) {
    DocumentNode at = places.need(member.name()).need("parent");
    if (!names.contains(parent)) {
      compiler.problem(at.problem(Nearest.unknown("task of this set", parent, names)));
    }
    if (target.parentField().isEmpty()) {
      compiler.problem(at.problem(target.name() + " keeps no parents; leave it out"));
    }
  }
}
