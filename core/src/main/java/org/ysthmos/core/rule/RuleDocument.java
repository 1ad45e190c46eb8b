package org.ysthmos.core.rule;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.ConditionDocument;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.Template;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.step.StepKinds;

/** Rules as documents write them. */
public final class RuleDocument {

  private static final List<String> SOURCES =
      List.of("value", "text", "texts", "always", "cases", "each");

  private RuleDocument() {}

  /**
   * Reads a rule: a group with one source and perhaps steps; or an address alone, for what stands
   * there.
   *
   * @throws org.ysthmos.core.document.DocumentException if it is no rule
   */
  public static ValueRule read(DocumentNode node) {
    if (node.isText()) {
      return ValueRule.of(Address.read(node));
    }
    node.only("value", "text", "texts", "always", "cases", "otherwise", "each", "steps");
    List<String> given = SOURCES.stream().filter(key -> node.get(key).isPresent()).toList();
    if (given.size() != 1) {
      throw node.refuse("a rule starts from one of: " + String.join(", ", SOURCES));
    }
    if (node.get("otherwise").isPresent() && !given.getFirst().equals("cases")) {
      throw node.need("otherwise").refuse("“otherwise” goes with cases");
    }
    return new ValueRule(
        source(given.getFirst(), node.need(given.getFirst()), node), StepKinds.readAll(node));
  }

  private static Source source(String key, DocumentNode under, DocumentNode rule) {
    return switch (key) {
      case "value" -> new Source.Field(Address.read(under));
      case "text" -> new Source.SlottedText(template(under));
      case "texts" ->
          new Source.SlottedTexts(under.list().stream().map(RuleDocument::template).toList());
      case "always" -> new Source.Always(under.texts(), under.isList());
      case "cases" ->
          new Source.Cases(
              under.list().stream().map(RuleDocument::oneCase).toList(),
              rule.get("otherwise").map(RuleDocument::read));
      default -> each(under);
    };
  }

  private static Source.Case oneCase(DocumentNode node) {
    node.only("when", "then");
    return new Source.Case(ConditionDocument.read(node.need("when")), read(node.need("then")));
  }

  private static Source each(DocumentNode node) {
    node.only("in", "where", "take");
    return new Source.Each(
        Address.read(node.need("in")),
        node.get("where").map(ConditionDocument::read).orElse(Condition.ALWAYS),
        read(node.need("take")));
  }

  private static Template template(DocumentNode node) {
    Template template = node.parsed(Template::parse);
    if (template.parts().stream().anyMatch(Template.InHand.class::isInstance)) {
      throw node.refuse(
          "{value} is the value in hand, which only the step put has; name an address here");
    }
    return template;
  }

  /** As documents write it. */
  public static Object written(ValueRule rule) {
    if (rule.steps().isEmpty() && rule.source() instanceof Source.Field field) {
      return field.address().toString();
    }
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    switch (rule.source()) {
      case Source.Field field -> written.put("value", field.address().toString());
      case Source.SlottedText text -> written.put("text", text.template().toString());
      case Source.SlottedTexts texts ->
          written.put("texts", texts.templates().stream().map(Template::toString).toList());
      case Source.Always always ->
          written.put("always", always.isList() ? always.written() : always.written().getFirst());
      case Source.Cases cases -> {
        written.put("cases", cases.cases().stream().map(RuleDocument::written).toList());
        cases.otherwise().ifPresent(other -> written.put("otherwise", written(other)));
      }
      case Source.Each each -> written.put("each", written(each));
    }
    if (!rule.steps().isEmpty()) {
      written.put("steps", rule.steps().stream().map(Step::toDocument).toList());
    }
    return written;
  }

  private static Object written(Source.Case one) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("when", ConditionDocument.written(one.when()));
    written.put("then", written(one.then()));
    return written;
  }

  private static Object written(Source.Each each) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    written.put("in", each.in().toString());
    if (!each.where().equals(Condition.ALWAYS)) {
      written.put("where", ConditionDocument.written(each.where()));
    }
    written.put("take", written(each.item()));
    return written;
  }
}
