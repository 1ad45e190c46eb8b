package org.ysthmos.core.step;

import java.util.Arrays;
import java.util.List;
import org.ysthmos.core.document.DocumentNode;

/**
 * An option of a step, as documents, the reference page and the JSON Schema know it.
 *
 * @param name the key in a document
 * @param required whether the step says nothing without it
 * @param about what it says, to follow its name
 */
public record Option(String name, Type type, boolean required, String about) {

  /** What stands under the key. */
  public sealed interface Type {}

  /** A simple text that some reader understands. */
  public enum Plain implements Type {
    TEXT,
    WHOLE_NUMBER,
    NUMBER,
    FLAG,
    TIME,
    ZONE,
    LOCALE,
    PERIOD,
    PATTERN,
    ADDRESS,
    TABLE,
    CALENDAR,
    /** A number, or a group with the address of a field and what is used otherwise. */
    AMOUNT,
    /** A text as it stands, or a group with the address of a field. */
    OPERAND,
    NOT_FOUND,
    /** One text, or a list of texts. */
    TEXTS,
    ADDRESSES,
    STEPS,
    BANDS
  }

  /** One of some words. */
  public record Words(List<String> words) implements Type {
    public Words {
      words = List.copyOf(words);
    }

    static Words of(Class<? extends Enum<?>> kind) {
      return new Words(Arrays.stream(kind.getEnumConstants()).map(DocumentNode::wordOf).toList());
    }
  }

  static Option required(String name, Type type, String about) {
    return new Option(name, type, true, about);
  }

  static Option optional(String name, Type type, String about) {
    return new Option(name, type, false, about);
  }
}
