package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.step.Step;

/**
 * How one target field gets its value.
 *
 * @param field the key of the target field
 */
public record FieldRule(String field, Source source, List<Step> steps) {

  public FieldRule {
    steps = List.copyOf(steps);
  }
}
