package org.ysthmos.core.value;

import java.util.Locale;
import java.util.Optional;

/** The type of a value: one of the simple kinds, or a list of one. */
public record ValueType(Kind kind, Optional<ValueType> element) {

  /** The simple kinds, and {@code LIST}. */
  public enum Kind {
    TEXT,
    NUMBER,
    FLAG,
    DAY,
    MOMENT,
    CHOICE,
    PERSON,
    LINK,
    LIST,
    /** A group of fields; only shapes speak of it, no value is one. */
    RECORD,
    NOTHING;

    private final String word = name().toLowerCase(Locale.ROOT);

    String word() {
      return word;
    }
  }

  public static final ValueType TEXT = simple(Kind.TEXT);
  public static final ValueType NUMBER = simple(Kind.NUMBER);
  public static final ValueType FLAG = simple(Kind.FLAG);
  public static final ValueType DAY = simple(Kind.DAY);
  public static final ValueType MOMENT = simple(Kind.MOMENT);
  public static final ValueType CHOICE = simple(Kind.CHOICE);
  public static final ValueType PERSON = simple(Kind.PERSON);
  public static final ValueType LINK = simple(Kind.LINK);
  public static final ValueType RECORD = simple(Kind.RECORD);
  public static final ValueType NOTHING = simple(Kind.NOTHING);

  private static ValueType simple(Kind kind) {
    return new ValueType(kind, Optional.empty());
  }

  public static ValueType listOf(ValueType element) {
    return new ValueType(Kind.LIST, Optional.of(element));
  }

  /**
   * Reads the word used in documents: {@code text}, {@code day}, {@code list of text} and so on.
   *
   * @return the type, or empty if the word names none
   */
  public static Optional<ValueType> parse(String word) {
    if (word.startsWith("list of ")) {
      return parse(word.substring("list of ".length())).map(ValueType::listOf);
    }
    return switch (word) {
      case "text" -> Optional.of(TEXT);
      case "number" -> Optional.of(NUMBER);
      case "flag" -> Optional.of(FLAG);
      case "day" -> Optional.of(DAY);
      case "moment" -> Optional.of(MOMENT);
      case "choice" -> Optional.of(CHOICE);
      case "person" -> Optional.of(PERSON);
      case "link" -> Optional.of(LINK);
      case "record" -> Optional.of(RECORD);
      default -> Optional.empty();
    };
  }

  public boolean isList() {
    return kind == Kind.LIST;
  }

  /** Whether the type is one of single values that people write and compare. */
  public boolean isSimple() {
    return kind != Kind.LIST && kind != Kind.RECORD && kind != Kind.NOTHING;
  }

  /** The word used in documents and messages. */
  @Override
  public String toString() {
    return element.isPresent() ? "list of " + element.get() : kind.word();
  }
}
