package org.ysthmos.core.compare;

import java.util.Map;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** What a value is compared with, or replaced by: something written down, or another field. */
public sealed interface Operand {

  /** A value as it is written in the rule. */
  record Fixed(String written) implements Operand {}

  /** What stands at an address. */
  record Field(Address address) implements Operand {}

  /** An operand made into a function. */
  @FunctionalInterface
  interface Compiled {
    Computed read(Reading reading);
  }

  /**
   * @throws Misfit if it is no value of the type
   */
  default Compiled compile(ValueType type, Scope scope) {
    return switch (this) {
      case Fixed fixed -> {
        Value value = parse(fixed.written(), type);
        yield reading -> value;
      }
      case Field field -> {
        BoundField bound = scope.bind(field.address());
        if (!bound.shape().type().equals(type)) {
          throw new Misfit(
              "“%s” is a %s where a %s is needed"
                  .formatted(field.address(), bound.shape().type(), type));
        }
        yield bound::read;
      }
    };
  }

  /**
   * @throws Misfit if the text is no value of the type
   */
  static Value parse(String written, ValueType type) {
    try {
      return Constant.parse(written, type);
    } catch (IllegalArgumentException e) {
      throw new Misfit(String.valueOf(e.getMessage()));
    }
  }

  /** As it reads in a sentence. */
  default String sentence() {
    return switch (this) {
      case Fixed fixed -> "“" + fixed.written() + "”";
      case Field field -> field.address().toString();
    };
  }

  /** Reads a text as it stands, or a group {@code { value: address }}. */
  static Operand read(DocumentNode node) {
    return node.isGroup()
        ? new Field(Address.read(node.only("value").need("value")))
        : new Fixed(node.text());
  }

  /** As documents write it. */
  default Object toDocument() {
    return switch (this) {
      case Fixed fixed -> fixed.written();
      case Field field -> Map.of("value", field.address().toString());
    };
  }
}
