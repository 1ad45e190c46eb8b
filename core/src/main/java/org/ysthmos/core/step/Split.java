package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Splits a text into a list of texts, each without the white space around it; empty ones are left
 * out.
 */
public record Split(String at) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "split",
              StepKind.Family.LIST,
              "Splits a text into a list; what stands between is trimmed, and left out if empty.")
          .bare(Option.required("at", Option.Plain.TEXT, "what stands between two items"))
          .example("split: \",\"", "Rui, Inês, , Olive", "Rui, Inês, Olive")
          .example("split: \"\\n\"", "first line\r\nsecond line", "first line, second line")
          .reads(
              options -> {
                if (options.text("at").isEmpty()) {
                  throw options.refuse("say what stands between two items, for example \",\"");
                }
                return new Split(options.text("at"));
              });

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("at", at);
  }

  @Override
  public String sentence() {
    return at.equals("\n") ? "split into lines" : "split at “" + at + "”";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    return Compiled.of(
        ValueType.listOf(ValueType.TEXT), (value, reading) -> split(value.display()));
  }

  private Computed split(String text) {
    List<Value> items = new ArrayList<>();
    int start = 0;
    while (start <= text.length()) {
      int end = text.indexOf(at, start);
      String item = WhiteSpace.strip(text.substring(start, end < 0 ? text.length() : end));
      if (!item.isEmpty()) {
        items.add(Text.of(item));
      }
      if (end < 0) {
        break;
      }
      start = end + at.length();
    }
    return ListValue.checked(ValueType.TEXT, items);
  }
}
