package org.ysthmos.adapters.hook;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.time.Instant;
import java.util.Map;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.shape.PlaceId;

/** Reads which event a webhook tells of. */
public final class PushReader {

  private static final String REMOVED = "removed";

  private static final int DEEPEST = 100;

  private static final JsonMapper JSON =
      ExactJson.exact(
              JsonMapper.builder(
                  JsonFactory.builder()
                      .streamReadConstraints(
                          StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
                      // RFC 7493 section 2.3: which of two names of an object counts nobody can
                      // say.
                      .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                      .build()))
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .build();

  /** What was taken was looked at when it came. */
  private static final JsonMapper KEPT =
      ExactJson.exact(
              JsonMapper.builder(
                  JsonFactory.builder()
                      .streamReadConstraints(
                          StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
                      .build()))
          .build();

  private PushReader() {}

  /** The webhook cannot be read; the message is for whoever keeps the sender. */
  public static final class Unreadable extends Exception {
    Unreadable(String message) {
      super(message);
    }
  }

  /**
   * @param address the collection, or the places described alike, at whose address it came
   * @param id the sender's id of the event; where the body tells the record's version, the change
   *     to that version is the event instead
   * @param now when it arrived, which stands for when it happened since the webhook does not say
   * @throws Unreadable if the body is no JSON or lacks the id of the record
   */
  public static Event read(
      Push push, String system, String address, String id, byte[] body, Instant now)
      throws Unreadable {
    JsonNode data = parse(body);
    String collection = collection(push, address, data);
    JsonNode record = push.record().in(data);
    if (!record.isValueNode() || record.isNull() || record.asText().isBlank()) {
      throw new Unreadable("the body has no id at “" + push.record() + "”");
    }
    JsonNode kind = push.kind().in(data);
    if (!kind.isTextual()) {
      throw new Unreadable("the body has no kind of event at “" + push.kind() + "”");
    }
    String ours = push.kinds().getOrDefault(kind.textValue(), kind.textValue());
    String version = push.version().map(at -> at.in(data).asText("")).orElse("");
    // A record that is removed bears the version of its last change, and is another event.
    boolean byVersion = !version.isEmpty() && !ours.equals(REMOVED);
    String known = byVersion ? PolledEvent.id(collection, record.asText(), version) : id;
    return new Event(known, system, collection, ours, record.asText(), now, data);
  }

  /** The collection that is told of, where many places tell at one address. */
  private static String collection(Push push, String address, JsonNode data) throws Unreadable {
    if (push.place().isEmpty() || PlaceId.parse(address).isPresent()) {
      return address;
    }
    JsonNode place = push.place().get().in(data);
    if (!place.isValueNode() || place.isNull() || place.asText().isBlank()) {
      throw new Unreadable("the body has no place at “" + push.place().get() + "”");
    }
    return new PlaceId(address, place.asText()).collection();
  }

  /**
   * Reads a body as it came.
   *
   * @throws Unreadable if the body is no JSON object
   */
  static JsonNode parse(byte[] body) throws Unreadable {
    return object(json(body));
  }

  /**
   * Reads a body that was taken before, and was looked at then.
   *
   * @throws Unreadable if the body is no JSON object
   */
  public static JsonNode kept(byte[] body) throws Unreadable {
    return object(read(KEPT, body));
  }

  private static JsonNode object(JsonNode data) throws Unreadable {
    if (!data.isObject()) {
      throw new Unreadable("the body is no JSON object");
    }
    return data;
  }

  /**
   * Reads any JSON within the bounds that bodies have.
   *
   * @throws Unreadable if it is none
   */
  public static JsonNode json(byte[] body) throws Unreadable {
    JsonNode read = read(JSON, body);
    if (!isUsable(read)) {
      refuseUnusableText(read, "");
    }
    return read;
  }

  private static JsonNode read(JsonMapper mapper, byte[] body) throws Unreadable {
    try {
      return mapper.readTree(body);
    } catch (JsonProcessingException e) {
      var at = e.getLocation();
      throw new Unreadable(
          "the body is no JSON: "
              + e.getOriginalMessage()
              + (at == null
                  ? ""
                  : " (line " + at.getLineNr() + ", column " + at.getColumnNr() + ")"));
    } catch (IOException e) {
      throw new Unreadable("the body cannot be read");
    }
  }

  /**
   * RFC 7493 section 2.1: texts are of Unicode characters, so without surrogates that stand alone.
   * No system that we know keeps U+0000; what cannot be delivered is refused where it comes in.
   *
   * @param at where the value stands, as a pointer (RFC 6901)
   */
  private static void refuseUnusableText(JsonNode node, String at) throws Unreadable {
    if (node.isTextual()) {
      refuse(node.textValue(), at);
    }
    for (Map.Entry<String, JsonNode> member : node.properties()) {
      refuse(member.getKey(), at);
      refuseUnusableText(member.getValue(), at + "/" + member.getKey());
    }
    for (int i = 0; node.isArray() && i < node.size(); i++) {
      refuseUnusableText(node.get(i), at + "/" + i);
    }
  }

  /** The same without saying where, for the many that are. */
  private static boolean isUsable(JsonNode node) {
    if (node.isTextual()) {
      return isUsable(node.textValue());
    }
    for (Map.Entry<String, JsonNode> member : node.properties()) {
      if (!isUsable(member.getKey()) || !isUsable(member.getValue())) {
        return false;
      }
    }
    for (int i = 0; node.isArray() && i < node.size(); i++) {
      if (!isUsable(node.get(i))) {
        return false;
      }
    }
    return true;
  }

  private static void refuse(String text, String at) throws Unreadable {
    if (!isUsable(text)) {
      throw new Unreadable(
          "the text at “%s” has %s in it"
              .formatted(
                  at, text.indexOf(0) >= 0 ? "the character U+0000" : "half of a character"));
    }
  }

  private static boolean isUsable(String text) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      boolean pair =
          Character.isHighSurrogate(c)
              && i + 1 < text.length()
              && Character.isLowSurrogate(text.charAt(i + 1));
      if (c == 0 || (Character.isSurrogate(c) && !pair)) {
        return false;
      }
      i += pair ? 1 : 0;
    }
    return true;
  }
}
