package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.step.Step;

/** How a value comes about: a source and the steps it goes through. */
public record ValueRule(Source source, List<Step> steps) {

  public ValueRule {
    steps = List.copyOf(steps);
  }

  /** What stands at an address, as it is. */
  public static ValueRule of(Address address) {
    return new ValueRule(new Source.Field(address), List.of());
  }

  /** Whether any value on its way goes through steps. */
  public boolean goesThroughSteps() {
    return !steps.isEmpty()
        || switch (source) {
          case Source.Cases cases ->
              cases.cases().stream().anyMatch(one -> one.then().goesThroughSteps())
                  || cases.otherwise().filter(ValueRule::goesThroughSteps).isPresent();
          case Source.Each each -> each.item().goesThroughSteps();
          default -> false;
        };
  }
}
