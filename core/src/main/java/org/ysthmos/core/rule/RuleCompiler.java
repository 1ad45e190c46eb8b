package org.ysthmos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.reading.SlotText;
import org.ysthmos.core.reading.Template;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.step.Shorten;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Type-checks rules and makes them into functions. A refusal is a {@link Misfit} whose message is
 * meant for the person who writes the rule.
 */
public final class RuleCompiler {

  private RuleCompiler() {}

  /** Compiles the rule of a target field. */
  public static CompiledField field(FieldRule rule, FieldShape target, Scope scope) {
    ValueRule fitted = new ValueRule(rule.value().source(), forTarget(rule.value(), target));
    CompiledValue value = value(fitted, Optional.of(target.type()), scope);
    if (!value.gives().equals(target.type())) {
      throw new Misfit(
          "%s is a %s but the rule gives a %s%s"
              .formatted(
                  target.name(), target.type(), value.gives(), remedy(value.gives(), target)));
    }
    return CompiledField.of(target, value);
  }

  private static List<Step> forTarget(ValueRule rule, FieldShape target) {
    List<Step> steps = new ArrayList<>();
    for (int i = 0; i < rule.steps().size(); i++) {
      Step step = rule.steps().get(i);
      steps.add(
          step instanceof Shorten shorten
              ? Misfit.at("steps/" + i, () -> shorten.forTarget(target))
              : step);
    }
    return steps;
  }

  private static String remedy(ValueType type, FieldShape target) {
    ValueType wanted = target.type();
    if (type.equals(ValueType.DAY) && wanted.equals(ValueType.MOMENT)) {
      return "; say the time and the zone: at: { time: \"17:00\", zone: Europe/Lisbon }";
    }
    if (type.equals(ValueType.MOMENT) && wanted.equals(ValueType.DAY)) {
      return "; say in which zone: day-in: Europe/Lisbon";
    }
    if (wanted.isList() && !type.isList()) {
      return "; make it one: split: \",\" or in-list";
    }
    if (type.isList() && !wanted.isList()) {
      return "; join the list, or take one of it: join: \", \" or take: first";
    }
    if (type.equals(ValueType.TEXT)) {
      return switch (wanted.kind()) {
        case CHOICE, PERSON, LINK -> "; look it up (by-table) or take it as one: as: " + wanted;
        case NUMBER, DAY, MOMENT, FLAG -> "; read it: read-" + wanted;
        default -> "";
      };
    }
    return wanted.equals(ValueType.TEXT) ? "; put it into a text: put: \"{value}\"" : "";
  }

  /**
   * Compiles a rule.
   *
   * @param wanted the type that constants are read as; text where nothing is wanted
   */
  public static CompiledValue value(ValueRule rule, Optional<ValueType> wanted, Scope scope) {
    // Constants that go through steps are texts, unless there are no steps that could read them.
    Optional<ValueType> forSource = rule.steps().isEmpty() ? wanted : Optional.empty();
    return switch (rule.source()) {
      case Source.Field field -> {
        BoundField bound = Misfit.at("value", () -> scope.bind(field.address()));
        refuseRecords(bound);
        yield of(rule, new CompiledSource.OfField(bound), bound.shape().type(), scope);
      }
      case Source.SlottedText text ->
          of(
              rule,
              new CompiledSource.OfText(
                  Misfit.at("text", () -> SlotText.compile(text.template(), scope))),
              ValueType.TEXT,
              scope);
      case Source.SlottedTexts texts ->
          of(
              rule,
              new CompiledSource.OfTexts(slots(texts, scope)),
              ValueType.listOf(ValueType.TEXT),
              scope);
      case Source.Always always -> {
        Value constant = Misfit.at("always", () -> constant(always, forSource));
        yield of(rule, new CompiledSource.OfConstant(constant), constant.type(), scope);
      }
      case Source.Cases cases -> cases(rule, cases, forSource, scope);
      case Source.Each each -> each(rule, each, scope);
    };
  }

  private static CompiledValue of(
      ValueRule rule, CompiledSource source, ValueType type, Scope scope) {
    return new CompiledValue(rule, source, Chain.compile(rule.steps(), type, scope));
  }

  private static void refuseRecords(BoundField field) {
    ValueType type = field.shape().type();
    if (type.equals(ValueType.RECORD) || type.equals(ValueType.listOf(ValueType.RECORD))) {
      throw new Misfit(
          "“%s” is a %s; take something out of each: each: { in: %s, take: item/… }"
              .formatted(field.address(), type, field.address()));
    }
  }

  private static List<SlotText> slots(Source.SlottedTexts texts, Scope scope) {
    List<SlotText> slots = new ArrayList<>();
    for (int i = 0; i < texts.templates().size(); i++) {
      Template template = texts.templates().get(i);
      slots.add(Misfit.at("texts/" + i, () -> SlotText.compile(template, scope)));
    }
    return List.copyOf(slots);
  }

  private static CompiledValue cases(
      ValueRule rule, Source.Cases cases, Optional<ValueType> wanted, Scope scope) {
    List<CompiledSource.CompiledCase> compiled = new ArrayList<>();
    ValueType type = wanted.orElse(ValueType.TEXT);
    for (int i = 0; i < cases.cases().size(); i++) {
      Source.Case one = cases.cases().get(i);
      String place = "cases/" + i;
      CompiledCondition when =
          Misfit.at(place + "/when", () -> CompiledCondition.compile(one.when(), scope));
      CompiledValue then = Misfit.at(place + "/then", () -> value(one.then(), wanted, scope));
      type = oneType(i == 0 ? then.gives() : type, then, place + "/then");
      compiled.add(new CompiledSource.CompiledCase(when, then));
    }
    Optional<CompiledValue> otherwise =
        cases.otherwise().map(o -> Misfit.at("otherwise", () -> value(o, wanted, scope)));
    if (otherwise.isPresent()) {
      type =
          oneType(
              compiled.isEmpty() ? otherwise.get().gives() : type, otherwise.get(), "otherwise");
    }
    return of(rule, new CompiledSource.OfCases(List.copyOf(compiled), otherwise), type, scope);
  }

  private static ValueType oneType(ValueType type, CompiledValue value, String place) {
    if (!value.gives().equals(type)) {
      throw new Misfit(
              "this case gives a %s and the first a %s; all cases give one type"
                  .formatted(value.gives(), type))
          .under(place);
    }
    return type;
  }

  private static CompiledValue each(ValueRule rule, Source.Each each, Scope scope) {
    BoundField list = Misfit.at("each/in", () -> scope.bind(each.in()));
    Scope within = Misfit.at("each/in", () -> scope.inItemsOf(list));
    CompiledCondition where =
        Misfit.at("each/where", () -> CompiledCondition.compile(each.where(), within));
    CompiledValue item = Misfit.at("each/take", () -> value(each.item(), Optional.empty(), within));
    if (item.gives().isList()) {
      throw new Misfit("a list stands in no list; join it or take one of it").under("each/take");
    }
    return of(
        rule, new CompiledSource.OfEach(list, where, item), ValueType.listOf(item.gives()), scope);
  }

  private static Value constant(Source.Always always, Optional<ValueType> wanted) {
    ValueType type =
        wanted.orElse(always.isList() ? ValueType.listOf(ValueType.TEXT) : ValueType.TEXT);
    if (type.isList() != always.isList()) {
      throw new Misfit(
          type.isList()
              ? "several values belong here; write them as a list: [first, second]"
              : "one value belongs here, not a list");
    }
    if (type.isList()) {
      ValueType element = type.element().orElseThrow();
      return new ListValue(
          element, always.written().stream().map(text -> Constant.parse(text, element)).toList());
    }
    return Constant.parse(always.written().getFirst(), type);
  }
}
