package org.ysthmos.core.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Person;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Reads a JSON node as the type its collection declares. Numbers and flags are taken as text where
 * text is declared, since nothing is lost; every other mismatch is a problem, because it means that
 * the outside system changed its shape.
 */
public final class TypedReader {

  private static final int LONGEST_SHOWN = 160;

  private TypedReader() {}

  public static Computed read(JsonNode node, ValueType type) {
    return read(node, type, Set.of());
  }

  /**
   * @param schemes schemes that links may have beside the usual ones
   */
  public static Computed read(JsonNode node, ValueType type, Set<String> schemes) {
    if (node instanceof TextNode text && type.kind() == ValueType.Kind.TEXT) {
      return Text.of(text.textValue());
    }
    if (node.isMissingNode() || node.isNull()) {
      return Nothing.NOTHING;
    }
    return switch (type.kind()) {
      case TEXT -> node.isValueNode() ? ExactJson.text(node) : mismatch(node, type);
      case NUMBER -> node.isNumber() ? number(node) : mismatch(node, type);
      case FLAG -> node.isBoolean() ? Flag.of(node.booleanValue()) : mismatch(node, type);
      case CHOICE -> node.isValueNode() ? new Choice(node.asText()) : mismatch(node, type);
      case PERSON -> node.isValueNode() ? new Person(node.asText()) : mismatch(node, type);
      case DAY -> day(node, type);
      case MOMENT -> moment(node, type);
      case LINK -> link(node, type, schemes);
      case LIST -> list(node, type, schemes);
      case RECORD -> mismatch(node, type);
      case NOTHING -> Nothing.NOTHING;
    };
  }

  private static Computed number(JsonNode node) {
    return node.isIntegralNumber() && node.canConvertToLong()
        ? Decimal.of(node.longValue())
        : Decimal.checked(node.decimalValue());
  }

  private static Computed day(JsonNode node, ValueType type) {
    try {
      return node.isTextual() ? Day.parse(node.textValue()) : mismatch(node, type);
    } catch (DateTimeParseException notADay) {
      return mismatch(node, type);
    }
  }

  private static Computed moment(JsonNode node, ValueType type) {
    try {
      return node.isTextual() ? Moment.read(node.textValue()) : mismatch(node, type);
    } catch (DateTimeParseException notAMoment) {
      return mismatch(node, type);
    }
  }

  private static Computed link(JsonNode node, ValueType type, Set<String> schemes) {
    if (!node.isTextual()) {
      return mismatch(node, type);
    }
    try {
      return Link.of(node.textValue(), schemes);
    } catch (IllegalArgumentException notALink) {
      return new Problem(
          shorten(String.valueOf(notALink.getMessage())),
          shorten(node.textValue()),
          "Correct it at its source; if links of this scheme are to be carried, state it with the"
              + " field (schemes), then send again");
    }
  }

  private static Computed list(JsonNode node, ValueType type, Set<String> schemes) {
    if (!node.isArray()) {
      return mismatch(node, type);
    }
    ValueType element = type.element().orElse(ValueType.TEXT);
    List<Value> items = new ArrayList<>(node.size());
    for (JsonNode item : node) {
      switch (read(item, element, schemes)) {
        case Value value -> items.add(value);
        case Problem problem -> {
          return problem;
        }
        case Warned warned -> items.add(warned.value());
      }
    }
    return ListValue.checked(element, items);
  }

  /** Whether a list of records stands there: nothing if none does, or a problem. */
  public static Computed list(JsonNode node) {
    return node.isArray() || node.isMissingNode() || node.isNull()
        ? Nothing.NOTHING
        : mismatch(node, ValueType.listOf(ValueType.RECORD));
  }

  private static Problem mismatch(JsonNode node, ValueType type) {
    String found = shorten(node.isTextual() ? node.textValue() : node.toString());
    String what =
        switch (node.getNodeType()) {
          case STRING -> "text";
          case NUMBER -> "number";
          case BOOLEAN -> "flag";
          case ARRAY -> "list";
          default -> "group of fields";
        };
    return new Problem(
        "“" + found + "” came as a " + what + " where a " + type + " was declared",
        found,
        "If the system now sends it so, change the declared type of the field, then send again");
  }

  private static String shorten(String text) {
    return text.length() <= LONGEST_SHOWN ? text : text.substring(0, LONGEST_SHOWN - 1) + "…";
  }
}
