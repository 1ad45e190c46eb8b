package org.ysthmos.core.value;

import java.util.List;
import java.util.stream.Collectors;

/** Several values of one type, in order. */
public record ListValue(ValueType element, List<Value> items) implements Value {

  /** The most items that are worked on. */
  public static final int MOST = 10_000;

  public ListValue {
    items = List.copyOf(items);
  }

  /** The list, or a problem if it has more than {@link #MOST} items. */
  public static Computed checked(ValueType element, List<Value> items) {
    return items.size() <= MOST
        ? new ListValue(element, items)
        : new Problem(
            "the list has " + items.size() + " items; at most " + MOST + " are worked on",
            items.getFirst().display(),
            "Take fewer at the source, then send again");
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
