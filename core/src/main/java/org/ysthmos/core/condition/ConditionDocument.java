package org.ysthmos.core.condition;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.step.StepKinds;

/** Conditions as documents write them. */
public final class ConditionDocument {

  private ConditionDocument() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if it is no condition
   */
  public static Condition read(DocumentNode node) {
    if (node.isGroup() && node.get("value").isEmpty()) {
      Map.Entry<String, DocumentNode> only = node.single();
      return switch (only.getKey()) {
        case "all" -> new Condition.All(readAll(only.getValue()));
        case "any" -> new Condition.Any(readAll(only.getValue()));
        case "not" -> new Condition.Not(read(only.getValue()));
        default ->
            throw node.refuse(
                Nearest.unknown("condition", only.getKey(), List.of("all", "any", "not", "value")));
      };
    }
    return node.get("changed").isPresent() ? changed(node) : test(node);
  }

  private static List<Condition> readAll(DocumentNode node) {
    return node.each(ConditionDocument::read);
  }

  private static Condition test(DocumentNode node) {
    List<String> known = new ArrayList<>(List.of("value", "steps", "changed"));
    known.addAll(Operators.KEYS.keySet());
    node.only(known.toArray(String[]::new));
    return new Condition.Test(
        Address.read(node.need("value")), StepKinds.readAll(node), Operators.read(node));
  }

  private static Condition changed(DocumentNode node) {
    DocumentNode how = node.only("value", "changed").need("changed");
    if (!how.isGroup()) {
      if (!how.text().equals("true")) {
        throw how.refuse("write changed: true, or changed: { from: …, to: … }");
      }
      return new Condition.Changed(
          Address.read(node.need("value")), Optional.empty(), List.of(), List.of());
    }
    how.only("from", "to", "was");
    return new Condition.Changed(
        Address.read(node.need("value")),
        how.get("was").map(Address::read),
        how.get("from").map(DocumentNode::texts).orElse(List.of()),
        how.get("to").map(DocumentNode::texts).orElse(List.of()));
  }

  /** As documents write it. */
  public static Object written(Condition condition) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    switch (condition) {
      case Condition.All all ->
          written.put("all", all.parts().stream().map(ConditionDocument::written).toList());
      case Condition.Any any ->
          written.put("any", any.parts().stream().map(ConditionDocument::written).toList());
      case Condition.Not not -> written.put("not", written(not.part()));
      case Condition.Test test -> {
        written.put("value", test.value().toString());
        if (!test.steps().isEmpty()) {
          written.put("steps", test.steps().stream().map(Step::toDocument).toList());
        }
        Map.Entry<String, Object> operator = Operators.written(test.operator());
        written.put(operator.getKey(), operator.getValue());
      }
      case Condition.Changed changed -> {
        written.put("value", changed.value().toString());
        written.put("changed", how(changed));
      }
    }
    return written;
  }

  private static Object how(Condition.Changed changed) {
    SequencedMap<String, Object> how = new LinkedHashMap<>();
    changed.was().ifPresent(was -> how.put("was", was.toString()));
    if (!changed.from().isEmpty()) {
      how.put("from", changed.from());
    }
    if (!changed.to().isEmpty()) {
      how.put("to", changed.to());
    }
    return how.isEmpty() ? "true" : how;
  }
}
