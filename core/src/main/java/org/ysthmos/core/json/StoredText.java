package org.ysthmos.core.json;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;

/** What a system says it stores in a field, as text; a list's items are joined by a comma. */
public final class StoredText {

  private StoredText() {}

  public static String of(JsonNode kept) {
    if (!kept.isArray()) {
      return kept.isValueNode() ? kept.asText() : kept.toString();
    }
    List<String> items = new ArrayList<>();
    kept.forEach(item -> items.add(of(item)));
    return String.join(", ", items);
  }
}
