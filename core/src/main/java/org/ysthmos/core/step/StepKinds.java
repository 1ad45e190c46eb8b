package org.ysthmos.core.step;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;

/** All kinds of step, by the key a bridge document uses. */
public final class StepKinds {

  /** In the order of the reference page. */
  public static final List<StepKind> ALL =
      List.of(
          Trim.KIND,
          ChangeCase.KIND,
          PartOf.KIND,
          Replace.KIND,
          FindPattern.KIND,
          ReplacePattern.KIND,
          Shorten.KIND,
          PlainText.KIND,
          Put.KIND,
          ReadNumber.KIND,
          WriteNumber.KIND,
          Round.KIND,
          Calculate.KIND,
          Bands.KIND,
          ReadDay.KIND,
          ReadMoment.KIND,
          WriteDate.KIND,
          Move.KIND,
          MoveBy.KIND,
          MoveWorkingDays.KIND,
          DaysUntil.KIND,
          NextWeekday.KIND,
          EdgeOfMonth.KIND,
          AtTime.KIND,
          DayIn.KIND,
          ByTable.KIND,
          KeyByTable.KIND,
          As.KIND,
          ReadFlag.KIND,
          Split.KIND,
          Join.KIND,
          Take.KIND,
          FirstWhere.KIND,
          KeepWhere.KIND,
          Count.KIND,
          Sum.KIND,
          Distinct.KIND,
          ForEach.KIND,
          InList.KIND,
          IfNothing.KIND,
          If.KIND,
          FailIf.KIND);

  private static final SequencedMap<String, StepKind> BY_NAME = new LinkedHashMap<>();

  static {
    ALL.forEach(kind -> BY_NAME.put(kind.name(), kind));
  }

  private StepKinds() {}

  /**
   * Reads a step: its bare name, or its name with options.
   *
   * @throws org.ysthmos.core.document.DocumentException if no step is called so or an option is
   *     wrong
   */
  public static Step read(DocumentNode node) {
    if (node.isText()) {
      StepKind kind = named(node.text(), node);
      return kind.read().apply(StepOptions.none(kind, node));
    }
    Map.Entry<String, DocumentNode> entry = node.single();
    StepKind kind = named(entry.getKey(), node);
    return kind.read().apply(StepOptions.of(kind, entry.getValue()));
  }

  /** Reads the steps under a rule's key {@code steps}; none if there is no such key. */
  public static List<Step> readAll(DocumentNode rule) {
    return rule.get("steps").map(steps -> steps.each(StepKinds::read)).orElse(List.of());
  }

  private static StepKind named(String name, DocumentNode at) {
    StepKind kind = BY_NAME.get(name);
    if (kind == null) {
      throw at.refuse(Nearest.unknown("step", name, BY_NAME.keySet()));
    }
    return kind;
  }
}
