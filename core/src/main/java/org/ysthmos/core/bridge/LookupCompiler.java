package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.value.ValueType;

/** Type-checks the second reads of a bridge and makes them into functions. */
final class LookupCompiler {

  private final BridgeCompiler compiler;
  private final BridgeScope scope;

  LookupCompiler(BridgeCompiler compiler, BridgeScope scope) {
    this.compiler = compiler;
    this.scope = scope;
  }

  /** What is wrong with it is kept with the bridge; the scope has it if it can be used. */
  void compile(LookupRule rule) {
    DocumentNode place = compiler.document().need("lookups").need(rule.name());
    Optional<CollectionShape> found =
        rule.origin() == LookupRule.Origin.TASKS
            ? Optional.of(tasksOf(rule))
            : compiler.found(place.need("in"), rule.system(), rule.collection());
    if (found.isEmpty()) {
      return;
    }
    CollectionShape shape = found.get();
    if (rule.origin() == LookupRule.Origin.TASKS) {
      compiler.uses().bridge(place, rule.collection());
    } else {
      compiler.uses().collection(place, rule.system(), rule.collection(), Use.How.LOOKS_UP);
    }
    List<FieldShape> fields =
        rule.origin() == LookupRule.Origin.EVENTS ? shape.eventFields() : shape.readFields();
    List<CompiledValue> by = new ArrayList<>();
    rule.by()
        .forEach(
            (key, value) ->
                compiler.attempt(place.need("by").need(key), () -> key(value)).ifPresent(by::add));
    rule.several()
        .firstBy()
        .ifPresent(
            field -> compiler.attempt(place.need("several"), () -> ordering(field, fields, shape)));
    List<String> keys = List.copyOf(rule.by().sequencedKeySet());
    for (String key : keys) {
      compiler.attempt(
          place.need("by").need(key), () -> knownKey(key, rule.origin(), fields, shape));
    }
    if (rule.origin() == LookupRule.Origin.TASKS) {
      tasksBy(keys, place.need("by"));
    }
    if (rule.none() == LookupRule.NoneFound.MAKE) {
      canBeMade(rule, place);
    }
    scope.add(new CompiledLookup(rule, shape, fields, keys, by));
  }

  private void tasksBy(List<String> keys, DocumentNode by) {
    boolean byRecord = keys.contains(LookupRule.RECORD);
    boolean byTask = keys.contains(LookupRule.TASK);
    if (!byRecord && !byTask) {
      compiler.problem(
          by.problem("say of which record the task was made (record), or which task it is (task)"));
    } else if (byTask && keys.size() > 1) {
      compiler.problem(by.problem("the task alone says which it is; leave the other keys out"));
    }
  }

  private void canBeMade(LookupRule rule, DocumentNode place) {
    if (rule.origin() != LookupRule.Origin.TASKS) {
      compiler.problem(
          place.need("none").problem("only a task is made, where it is looked up from: tasks"));
    } else if (rule.by().containsKey(LookupRule.TASK)) {
      compiler.problem(
          place.need("none").problem("a task that is there already is not made; say another word"));
    } else if (rule.waits().isEmpty()) {
      compiler.problem(
          place.problem("say how long the task is waited for that is made then (wait)"));
    }
  }

  /** The tasks of a bridge, as rules can name them. */
  private static CollectionShape tasksOf(LookupRule rule) {
    return new CollectionShape(
        "",
        "bridge " + rule.collection(),
        rule.collection(),
        "tasks",
        "task",
        "",
        "",
        List.of(
            FieldShape.of("/id", "id of the task", ValueType.TEXT),
            FieldShape.of("/link", "link of the task", ValueType.LINK),
            FieldShape.of("/record", "record it was made of", ValueType.TEXT)),
        List.of());
  }

  /** What a system can be asked by is for the system to say; all else is known here. */
  private String knownKey(
      String key, LookupRule.Origin origin, List<FieldShape> fields, CollectionShape shape) {
    return switch (origin) {
      case SYSTEM -> key;
      case EVENTS -> eventKey(key, fields, shape).key();
      case TASKS -> {
        List<String> known = List.of(LookupRule.RECORD, LookupRule.PART, LookupRule.TASK);
        if (!known.contains(key)) {
          throw new Misfit(Nearest.unknown("key of tasks", key, known));
        }
        yield key;
      }
    };
  }

  private CompiledValue key(ValueRule rule) {
    CompiledValue value = RuleCompiler.value(rule, Optional.empty(), scope);
    if (!value.gives().isSimple()) {
      throw new Misfit("a key is one value, this is a " + value.gives());
    }
    return value;
  }

  /** Received events are found by what came with them, so a key must be one of its fields. */
  private FieldShape eventKey(String key, List<FieldShape> fields, CollectionShape shape) {
    FieldShape field = known(key, fields, "field that comes with the events of " + shape.name());
    compiler.uses().field(shape, field.key(), Use.How.READS);
    return field;
  }

  private FieldShape ordering(Pointer pointer, List<FieldShape> fields, CollectionShape shape) {
    FieldShape field = known(pointer.toString(), fields, "field of " + shape.name());
    compiler.uses().field(shape, field.key(), Use.How.READS);
    if (!field.type().isSimple()) {
      throw new Misfit("“" + pointer + "” is a " + field.type() + " and gives no order");
    }
    return field;
  }

  private static FieldShape known(String key, List<FieldShape> fields, String what) {
    return fields.stream()
        .filter(field -> field.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                new Misfit(
                    Nearest.unknown(what, key, fields.stream().map(FieldShape::key).toList())));
  }
}
