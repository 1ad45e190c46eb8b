package org.ysthmos.standins.http;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A request as a handler sees it.
 *
 * @param path the values of the route's slots, for example {@code board}
 */
public record Request(
    String method,
    Map<String, String> path,
    Map<String, String> query,
    Map<String, List<String>> headers,
    byte[] body) {

  static final JsonMapper JSON = JsonMapper.builder().build();

  public String slot(String name) {
    return Optional.ofNullable(path.get(name))
        .orElseThrow(() -> new IllegalArgumentException("the route has no slot " + name));
  }

  public Optional<String> query(String name) {
    return Optional.ofNullable(query.get(name));
  }

  public Optional<String> header(String name) {
    return headers.entrySet().stream()
        .filter(entry -> entry.getKey().equalsIgnoreCase(name))
        .flatMap(entry -> entry.getValue().stream())
        .findFirst();
  }

  /**
   * @throws Refusal with 400 if the body is no JSON
   */
  public JsonNode json() {
    try {
      return JSON.readTree(body);
    } catch (JsonProcessingException e) {
      throw new Refusal(400, "the body is no JSON: " + e.getOriginalMessage());
    } catch (java.io.IOException e) {
      throw new Refusal(400, "the body cannot be read");
    }
  }

  /** The fields of a form as a browser sends them. */
  public Map<String, String> form() {
    return parameters(new String(body, StandardCharsets.UTF_8));
  }

  static Map<String, String> parameters(String encoded) {
    Map<String, String> found = new LinkedHashMap<>();
    for (String pair : encoded.split("&", -1)) {
      int equals = pair.indexOf('=');
      if (equals > 0) {
        found.put(decode(pair.substring(0, equals)), decode(pair.substring(equals + 1)));
      }
    }
    return found;
  }

  private static String decode(String text) {
    return URLDecoder.decode(text, StandardCharsets.UTF_8);
  }
}
