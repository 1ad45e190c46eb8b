package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** Does steps to each item of a list; items that come to nothing are left out. */
public record ForEach(List<Step> steps) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "for-each",
              StepKind.Family.LIST,
              "Does steps to each item of a list; items that come to nothing are left out.")
          .bare(Option.required("steps", Option.Plain.STEPS, "what is done to each item"))
          .example(
              "for-each: [trim, case: sentence]",
              ListValue.ofTexts(" water the ferns", "sweep "),
              "Water the ferns, Sweep")
          .reads(options -> new ForEach(options.steps("steps")));

  public ForEach {
    steps = List.copyOf(steps);
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("steps", steps.stream().map(Step::toDocument).toList());
  }

  @Override
  public String sentence() {
    return "each " + String.join(", then ", steps.stream().map(Step::sentence).toList());
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    Chain chain = Chain.compile(steps, element, scope);
    Step.needs(
        !chain.gives().isList(), in, "steps that give one value", "join or take within for-each");
    return new Compiled(
        ValueType.listOf(chain.gives()),
        (value, reading) -> each((ListValue) value, chain, reading),
        chain.remarks().stream().map(Chain.Remark::message).toList());
  }

  private static Computed each(ListValue list, Chain chain, Reading reading) {
    List<Value> items = new ArrayList<>(list.items().size());
    List<String> warnings = new ArrayList<>(0);
    for (Value item : list.items()) {
      Computed computed = chain.run(item, reading, warnings::add, null);
      if (!(computed instanceof Value value)) {
        return computed;
      }
      if (value != Nothing.NOTHING) {
        items.add(value);
      }
    }
    ListValue all = new ListValue(chain.gives(), items);
    return warnings.isEmpty() ? all : new Warned(all, String.join("; ", warnings));
  }
}
