package org.ysthmos.app.event;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.json.ExactJson;

/**
 * What changed at a source and could not be read or kept, as it is kept in place of an event: so
 * that it holds nothing else back, and ends as a failed trace that a person sees.
 *
 * @param item by which it is known where it stands
 * @param what its name for people
 * @param failure why, and what to do
 */
public record Aside(String item, String what, Failure failure) {

  /** The kind of such an event; no bridge can ask for it, and each of the collection gets it. */
  public static final String KIND = "unreadable";

  private static final JsonMapper JSON = ExactJson.mapper();

  /** As JSON in UTF-8, with the beginning of what stands there. */
  public static byte[] write(SetAside aside) {
    ObjectNode body = JSON.createObjectNode();
    body.put("item", aside.id());
    body.put("what", aside.what());
    body.put("kind", aside.failure().kind().name());
    body.put("why", aside.failure().message());
    body.put("remedy", aside.failure().remedy().orElse(""));
    body.put("raw", aside.raw());
    try {
      return JSON.writeValueAsBytes(body);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("texts can be written as JSON", e);
    }
  }

  /**
   * @throws IllegalStateException if the event is none that was set aside
   */
  public static Aside read(EventMapper.EventRow row) {
    try {
      JsonNode body = JSON.readTree(row.body());
      return new Aside(
          body.path("item").asText(),
          body.path("what").asText(),
          Failure.of(FailureKind.valueOf(body.path("kind").asText()), body.path("why").asText())
              .withRemedy(body.path("remedy").asText()));
    } catch (IOException | IllegalArgumentException e) {
      throw new IllegalStateException("event " + row.seq() + " was not set aside by us", e);
    }
  }
}
