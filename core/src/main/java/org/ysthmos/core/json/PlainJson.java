package org.ysthmos.core.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Person;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Values as a JSON system takes them: a moment as RFC 3339 in UTC, nothing as null. */
public final class PlainJson {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private PlainJson() {}

  /** Sets a value where a pointer leads, in objects that are made as they are needed. */
  public static void set(ObjectNode record, Pointer at, JsonNode value) {
    ObjectNode outer = record;
    for (String token : at.tokens().subList(0, at.tokens().size() - 1)) {
      outer = outer.withObjectProperty(token);
    }
    outer.set(at.lastToken(), value);
  }

  public static JsonNode of(Value value) {
    return switch (value) {
      case Decimal decimal -> JSON.numberNode(decimal.number());
      case Flag flag -> JSON.booleanNode(flag.yes());
      case Nothing nothing -> JSON.nullNode();
      case ListValue list -> {
        ArrayNode items = JSON.arrayNode();
        list.items().forEach(item -> items.add(of(item)));
        yield items;
      }
      case Text v -> JSON.textNode(v.display());
      case Day v -> JSON.textNode(v.display());
      case Moment v -> JSON.textNode(v.display());
      case Choice v -> JSON.textNode(v.display());
      case Person v -> JSON.textNode(v.display());
      case Link v -> JSON.textNode(v.display());
    };
  }
}
