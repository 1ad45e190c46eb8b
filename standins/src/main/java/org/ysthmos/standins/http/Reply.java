package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** An answer: status, headers and body. */
public record Reply(int status, Map<String, String> headers, byte[] body) {

  public static Reply json(int status, JsonNode body) {
    return of(status, "application/json", body.toString());
  }

  public static Reply html(String page) {
    return of(200, "text/html; charset=utf-8", page);
  }

  public static Reply text(String type, String text) {
    return of(200, type, text);
  }

  public static Reply seeOther(String address) {
    return new Reply(303, Map.of("Location", address), new byte[0]);
  }

  public static Reply empty() {
    return new Reply(204, Map.of(), new byte[0]);
  }

  public Reply with(String header, String value) {
    Map<String, String> more = new LinkedHashMap<>(headers);
    more.put(header, value);
    return new Reply(status, more, body);
  }

  static Reply of(int status, String type, String body) {
    return new Reply(status, Map.of("Content-Type", type), body.getBytes(StandardCharsets.UTF_8));
  }
}
