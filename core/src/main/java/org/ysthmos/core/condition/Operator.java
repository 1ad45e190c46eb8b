package org.ysthmos.core.condition;

import java.math.BigDecimal;
import java.util.List;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** What a test asks of a value. */
public sealed interface Operator {

  boolean holds(Value value);

  /** Whether the operator has a meaning for values of this type. */
  boolean takes(ValueType type);

  /** As it reads after the value's name, for example {@code is at least 2}. */
  String sentence();

  /** There is a value and it is not blank. */
  record Present() implements Operator {
    @Override
    public boolean holds(Value value) {
      return value != Nothing.NOTHING && !value.display().isBlank();
    }

    @Override
    public boolean takes(ValueType type) {
      return true;
    }

    @Override
    public String sentence() {
      return "is given";
    }
  }

  /** There is no value, or a blank one. */
  record Empty() implements Operator {
    @Override
    public boolean holds(Value value) {
      return value == Nothing.NOTHING || value.display().isBlank();
    }

    @Override
    public boolean takes(ValueType type) {
      return true;
    }

    @Override
    public String sentence() {
      return "is empty";
    }
  }

  /** The value reads as one of these. */
  record OneOf(List<String> texts) implements Operator {
    public OneOf {
      texts = List.copyOf(texts);
    }

    @Override
    public boolean holds(Value value) {
      return value != Nothing.NOTHING && texts.contains(value.display());
    }

    @Override
    public boolean takes(ValueType type) {
      return !type.isList() && !type.equals(ValueType.MOMENT);
    }

    @Override
    public String sentence() {
      return texts.size() == 1
          ? "is “" + texts.getFirst() + "”"
          : "is one of “" + String.join("”, “", texts) + "”";
    }
  }

  /** The number is this or greater. */
  record AtLeast(BigDecimal bound) implements Operator {
    @Override
    public boolean holds(Value value) {
      return value instanceof Decimal decimal && decimal.number().compareTo(bound) >= 0;
    }

    @Override
    public boolean takes(ValueType type) {
      return type.equals(ValueType.NUMBER);
    }

    @Override
    public String sentence() {
      return "is at least " + bound.toPlainString();
    }
  }
}
