package org.ysthmos.core.event;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import org.ysthmos.core.value.Moment;

/**
 * Events in the JSON format of CloudEvents 1.0, structured mode (CloudEvents JSON Event Format
 * 1.0.2 section 3): {@code source} is {@code /system/collection}, {@code type} the kind, {@code
 * subject} the record.
 */
public final class CloudEventJson {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private CloudEventJson() {}

  public static ObjectNode write(Event event) {
    ObjectNode node = JSON.objectNode();
    node.put("specversion", "1.0")
        .put("id", event.id())
        .put("source", "/" + event.system() + "/" + event.collection())
        .put("type", event.kind())
        .put("subject", event.record())
        .put("time", event.time().toString())
        .put("datacontenttype", "application/json")
        .set("data", event.data());
    return node;
  }

  /**
   * @throws IllegalArgumentException if it is no event; the message names the attribute
   */
  public static Event read(JsonNode node) {
    if (!node.isObject()) {
      throw new IllegalArgumentException("an event is a JSON object");
    }
    if (!text(node, "specversion").equals("1.0")) {
      throw new IllegalArgumentException(
          "“specversion” is 1.0, found “" + text(node, "specversion") + "”");
    }
    String[] source = text(node, "source").split("/", -1);
    if (source.length != 3 || !source[0].isEmpty()) {
      throw new IllegalArgumentException(
          "“source” is written /system/collection, found “" + text(node, "source") + "”");
    }
    if (node.has("data_base64")) {
      throw new IllegalArgumentException("“data_base64” holds no JSON; put the JSON under “data”");
    }
    return new Event(
        text(node, "id"),
        source[1],
        source[2],
        text(node, "type"),
        text(node, "subject"),
        time(text(node, "time")),
        node.path("data"));
  }

  private static String text(JsonNode node, String attribute) {
    JsonNode found = node.path(attribute);
    if (!found.isTextual() || found.textValue().isEmpty()) {
      throw new IllegalArgumentException("the attribute “" + attribute + "” is missing");
    }
    return found.textValue();
  }

  private static Instant time(String text) {
    try {
      return Moment.parse(text).instant();
    } catch (DateTimeParseException e) {
      throw new IllegalArgumentException(
          "“time” is written as RFC 3339 says, for example 2026-11-24T13:58:07Z; found “%s”"
              .formatted(text),
          e);
    }
  }
}
