package org.ysthmos.core.condition;

import java.util.List;
import org.ysthmos.core.rule.Address;
import org.ysthmos.core.step.Step;

/** A condition as it is written. */
public sealed interface Condition {

  /** Always met. */
  Condition ALWAYS = new All(List.of());

  /** Met when every part is. */
  record All(List<Condition> parts) implements Condition {
    public All {
      parts = List.copyOf(parts);
    }
  }

  /** Met when at least one part is. */
  record Any(List<Condition> parts) implements Condition {
    public Any {
      parts = List.copyOf(parts);
    }
  }

  /** Met when the part is not. */
  record Not(Condition part) implements Condition {}

  /** One test of one value, which may go through steps first. */
  record Test(Address value, List<Step> steps, Operator operator) implements Condition {
    public Test {
      steps = List.copyOf(steps);
    }
  }
}
