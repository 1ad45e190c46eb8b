package org.ysthmos.core.condition;

import java.util.List;
import java.util.Optional;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.Address;
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

  /**
   * Met when a value is not what it was before.
   *
   * @param was where the earlier value stands; empty for what came with the record's event before
   * @param from what it must have been; any if empty
   * @param to what it must be now; any if empty
   */
  record Changed(Address value, Optional<Address> was, List<String> from, List<String> to)
      implements Condition {
    public Changed {
      from = List.copyOf(from);
      to = List.copyOf(to);
    }
  }
}
