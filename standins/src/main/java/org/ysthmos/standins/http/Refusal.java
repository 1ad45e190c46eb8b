package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;

/** A request that is refused: the status and a message for whoever wrote the caller. */
public final class Refusal extends RuntimeException {

  private final int status;
  private final String field;
  private final String code;
  private final transient Map<String, String> headers;

  public Refusal(int status, String message) {
    this(status, message, "", "", Map.of());
  }

  private Refusal(
      int status, String message, String field, String code, Map<String, String> headers) {
    super(message);
    this.status = status;
    this.field = field;
    this.code = code;
    this.headers = headers;
  }

  /** 422: a field of the body cannot be taken. */
  public static Refusal ofField(String field, String message) {
    return new Refusal(422, message, field, "", Map.of());
  }

  /** 429 with {@code Retry-After} in seconds. */
  public static Refusal tooMany(String message, long seconds) {
    return new Refusal(429, message, "", "", Map.of("Retry-After", Long.toString(seconds)));
  }

  /** 403 with the code {@code quota-full}: there is no room for more. */
  public static Refusal quotaFull(String message) {
    return new Refusal(403, message, "", "quota-full", Map.of());
  }

  Reply reply() {
    ObjectNode body = Request.JSON.createObjectNode().put("error", getMessage());
    if (!field.isEmpty()) {
      body.put("field", field);
    }
    if (!code.isEmpty()) {
      body.put("code", code);
    }
    Reply reply = Reply.json(status, body);
    for (Map.Entry<String, String> header : headers.entrySet()) {
      reply = reply.with(header.getKey(), header.getValue());
    }
    return reply;
  }
}
