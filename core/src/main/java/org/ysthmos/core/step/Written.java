package org.ysthmos.core.step;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.document.DocumentNode;

/** Options as documents write them, in order; what is as it is without saying is left out. */
final class Written {

  private Written() {}

  static SequencedMap<String, Object> nothing() {
    return new LinkedHashMap<>();
  }

  static SequencedMap<String, Object> of(String name, Object value) {
    SequencedMap<String, Object> options = nothing();
    options.put(name, value);
    return options;
  }

  /** The options with one more, unless it is what would be meant without it. */
  static SequencedMap<String, Object> and(
      SequencedMap<String, Object> options, String name, Object value, Object otherwise) {
    if (!value.equals(otherwise)) {
      options.put(name, value instanceof Enum<?> word ? DocumentNode.wordOf(word) : value);
    }
    return options;
  }

  /** The options with an operator among them. */
  static SequencedMap<String, Object> testing(Operator operator) {
    Map.Entry<String, Object> written = Operators.written(operator);
    return of(written.getKey(), written.getValue());
  }
}
