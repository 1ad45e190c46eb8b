package org.ysthmos.core.reference;

import static org.ysthmos.core.reference.SchemaParts.JSON;
import static org.ysthmos.core.reference.SchemaParts.arrayOf;
import static org.ysthmos.core.reference.SchemaParts.flag;
import static org.ysthmos.core.reference.SchemaParts.group;
import static org.ysthmos.core.reference.SchemaParts.ref;
import static org.ysthmos.core.reference.SchemaParts.text;
import static org.ysthmos.core.reference.SchemaParts.types;
import static org.ysthmos.core.reference.SchemaParts.whole;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.reference.SchemaParts.Group;
import org.ysthmos.core.step.Option;
import org.ysthmos.core.step.StepKind;
import org.ysthmos.core.step.StepKinds;

/** The schema of steps and of tests, made from the descriptions that read them. */
final class StepSchema {

  private StepSchema() {}

  static ObjectNode steps() {
    ArrayNode kinds = JSON.arrayNode();
    ArrayNode names = JSON.arrayNode();
    for (StepKind kind : StepKinds.ALL) {
      if (kind.bareName()) {
        names.add(kind.name());
      }
      if (!kind.options().isEmpty() || kind.testing()) {
        kinds.add(group(kind.name(), options(kind)).required(kind.name()).node());
      }
    }
    kinds.insert(0, JSON.objectNode().set("enum", names));
    ObjectNode step = JSON.objectNode();
    step.set("oneOf", kinds);
    return step;
  }

  private static ObjectNode options(StepKind kind) {
    Group group = group();
    for (Option option : kind.options()) {
      group.and(option.name(), type(option.type()).put("description", option.about()));
      if (option.required()) {
        group.required(option.name());
      }
    }
    if (kind.testing()) {
      group.with(operators());
    }
    ObjectNode options = group.node().put("description", kind.summary());
    Option first = kind.options().isEmpty() ? null : kind.options().getFirst();
    if (!kind.bare() || first == null) {
      return options;
    }
    return first.type() == Option.Plain.BANDS
        ? type(first.type())
        : JSON.objectNode().set("anyOf", JSON.arrayNode().add(type(first.type())).add(options));
  }

  private static ObjectNode type(Option.Type type) {
    return switch (type) {
      case Option.Words words -> {
        ObjectNode schema = JSON.objectNode();
        ArrayNode members = schema.putArray("enum");
        words.words().forEach(members::add);
        yield schema;
      }
      case Option.Plain plain ->
          switch (plain) {
            case TEXT -> ref("scalar");
            case WHOLE_NUMBER -> whole();
            case NUMBER -> types("number", "string");
            case FLAG -> flag();
            case TIME -> ref("time");
            case ZONE, LOCALE, PERIOD, PATTERN, TABLE, CALENDAR -> text();
            case AMOUNT -> ref("amount");
            case ADDRESS -> ref("address");
            case ADDRESSES -> arrayOf(ref("address"));
            case OPERAND -> ref("operand");
            case NOT_FOUND -> ref("notFound");
            case TEXTS -> ref("texts");
            case STEPS -> ref("steps");
            case BANDS -> ref("bands");
          };
    };
  }

  static ObjectNode operators() {
    ObjectNode operators = JSON.objectNode();
    for (String key : Operators.KEYS.sequencedKeySet()) {
      operators.set(
          key,
          switch (key) {
            case "is" -> {
              ObjectNode words = JSON.objectNode();
              words.putArray("enum").add("present").add("empty");
              yield words;
            }
            case "one-of" -> ref("texts");
            case "matches" -> text();
            case "between" ->
                group("from", ref("operand"))
                    .and("to", ref("operand"))
                    .required("from", "to")
                    .node();
            case "not" -> ref("operator");
            case "equal-ignoring-case" -> ref("texted");
            default -> ref("operand");
          });
    }
    return operators;
  }
}
