package org.ysthmos.core.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.List;

/**
 * A JSON Pointer (RFC 6901), taken apart once so that following it parses nothing.
 *
 * <p>Stricter than many readers where the RFC is: {@code ~} must be followed by 0 or 1 (section 3),
 * and an array index has no leading zero (section 4).
 */
public record Pointer(List<String> tokens) {

  /** The whole document. */
  public static final Pointer ROOT = new Pointer(List.of());

  public Pointer {
    tokens = List.copyOf(tokens);
  }

  /**
   * @throws IllegalArgumentException if the text is no JSON Pointer; the message says where
   */
  public static Pointer parse(String text) {
    if (text.isEmpty()) {
      return ROOT;
    }
    if (text.charAt(0) != '/') {
      throw new IllegalArgumentException("an address starts with /, found “" + text + "”");
    }
    List<String> tokens = new ArrayList<>();
    for (String raw : text.substring(1).split("/", -1)) {
      tokens.add(unescape(raw, text));
    }
    return new Pointer(tokens);
  }

  private static String unescape(String raw, String whole) {
    int tilde = raw.indexOf('~');
    while (tilde >= 0) {
      char next = tilde + 1 < raw.length() ? raw.charAt(tilde + 1) : ' ';
      if (next != '0' && next != '1') {
        throw new IllegalArgumentException(
            "~ in an address is written ~0 and / is written ~1; found “" + whole + "”");
      }
      tilde = raw.indexOf('~', tilde + 1);
    }
    return raw.replace("~1", "/").replace("~0", "~");
  }

  /** What stands at this address, or a missing node if nothing does. */
  public JsonNode in(JsonNode document) {
    JsonNode at = document;
    for (int i = 0; i < tokens.size(); i++) {
      String token = tokens.get(i);
      JsonNode next = at.get(token);
      if (next == null) {
        if (!at.isArray() || !isIndex(token)) {
          return MissingNode.getInstance();
        }
        next = at.path(Integer.parseInt(token));
      }
      at = next;
    }
    return at;
  }

  private static boolean isIndex(String token) {
    if (token.isEmpty() || token.length() > 9 || (token.charAt(0) == '0' && token.length() > 1)) {
      return false;
    }
    return token.chars().allMatch(c -> c >= '0' && c <= '9');
  }

  /** The last token, which names the field, or the empty text for the whole document. */
  public String lastToken() {
    return tokens.isEmpty() ? "" : tokens.getLast();
  }

  @Override
  public String toString() {
    StringBuilder text = new StringBuilder();
    tokens.forEach(t -> text.append('/').append(t.replace("~", "~0").replace("/", "~1")));
    return text.toString();
  }
}
