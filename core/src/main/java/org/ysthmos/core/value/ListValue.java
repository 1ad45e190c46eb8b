package org.ysthmos.core.value;

import java.util.List;
import java.util.stream.Collectors;

/** Several values of one type, in order. */
public record ListValue(ValueType element, List<Value> items) implements Value {

  public ListValue {
    items = List.copyOf(items);
  }

  public static ListValue ofTexts(String... items) {
    return new ListValue(ValueType.TEXT, List.of(items).stream().<Value>map(Text::of).toList());
  }

  @Override
  public ValueType type() {
    return ValueType.listOf(element);
  }

  @Override
  public String display() {
    return items.stream().map(Value::display).collect(Collectors.joining(", "));
  }
}
