package org.ysthmos.core.copy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * How a copy of a bridge document follows its original: three documents are held against each
 * other, part by part. What the copy never changed becomes what the original has now; what it has
 * of its own stays. A part is a rule, a lookup, a condition or a place as a whole, since halves of
 * two rules make no rule.
 *
 * <p>The merge of three versions by a common ancestor is that of RCS ({@code rcsmerge}; Tichy, "RCS
 * — a system for version control", Software: Practice and Experience 15(7), 1985), on parts instead
 * of lines. The reference is from memory.
 *
 * @param parts those that are not the same in all three, in the order of the original
 * @param merged the copy as it is once it followed; its own where both were changed
 */
public record Following(List<Part> parts, ObjectNode merged) {

  /** What becomes of a part. */
  public enum Kind {
    /** The original changed it, the copy did not: it is taken over. */
    TAKEN,
    /** The copy has its own, and the original is as it was. */
    OWN,
    /** Both changed it, each in its way: the copy keeps its own unless a person says otherwise. */
    BOTH
  }

  /**
   * A part of the documents.
   *
   * @param path for example {@code fields/due}
   */
  public record Part(String path, Kind kind) {}

  /** What makes a copy a bridge of its own is never followed. */
  private static final Set<String> OWN_NAME = Set.of("bridge", "name");

  /** So many keys lead to a part; what is not named here is a part itself. */
  private static final Map<String, Integer> DEPTHS =
      Map.ofEntries(
          Map.entry("from", 2),
          Map.entry("to", 2),
          Map.entry("lookups", 2),
          Map.entry("values", 2),
          Map.entry("fields", 2),
          Map.entry("ceiling", 2),
          Map.entry("duplicates", 2),
          Map.entry("set", 3),
          Map.entry("then", 4),
          Map.entry("between", 3));

  public Following {
    parts = List.copyOf(parts);
  }

  /** Whether there is anything that the copy would take over. */
  public boolean anyTaken() {
    return parts.stream().anyMatch(part -> part.kind() == Kind.TAKEN);
  }

  /**
   * Holds three documents against each other.
   *
   * @param base the original as the copy followed it last
   * @param original as it is now
   * @param copy as it is now
   * @param taken parts that both changed, of which the original's is wanted
   */
  public static Following of(JsonNode base, JsonNode original, JsonNode copy, Set<String> taken) {
    List<Part> parts = new ArrayList<>();
    JsonNode merged = new Merge(parts, taken).merge("", 0, base, original, copy);
    ObjectNode whole =
        merged instanceof ObjectNode object ? object : JsonNodeFactory.instance.objectNode();
    return new Following(parts, whole);
  }

  private record Merge(List<Part> parts, Set<String> taken) {

    /** The part as the copy has it then; a missing node if it has none. */
    JsonNode merge(String path, int depth, JsonNode base, JsonNode original, JsonNode copy) {
      if (OWN_NAME.contains(path)) {
        return copy;
      }
      if (isGroup(path, depth) && original.isObject() && copy.isObject()) {
        return group(path, depth, base, original, copy);
      }
      if (copy.equals(original)) {
        return copy;
      }
      if (copy.equals(base)) {
        parts.add(new Part(path, Kind.TAKEN));
        return original;
      }
      if (original.equals(base)) {
        parts.add(new Part(path, Kind.OWN));
        return copy;
      }
      parts.add(new Part(path, Kind.BOTH));
      return taken.contains(path) ? original : copy;
    }

    private static boolean isGroup(String path, int depth) {
      String top = path.split("/", -1)[0];
      return depth == 0 || depth < DEPTHS.getOrDefault(top, 1);
    }

    /** In the order of the original; what the copy alone has comes last. */
    private JsonNode group(
        String path, int depth, JsonNode base, JsonNode original, JsonNode copy) {
      Set<String> keys = new LinkedHashSet<>();
      original.fieldNames().forEachRemaining(keys::add);
      copy.fieldNames().forEachRemaining(keys::add);
      ObjectNode merged = JsonNodeFactory.instance.objectNode();
      for (String key : keys) {
        String inner = path.isEmpty() ? key : path + "/" + key;
        JsonNode part = merge(inner, depth + 1, base.path(key), original.path(key), copy.path(key));
        if (!part.isMissingNode()) {
          merged.set(key, part);
        }
      }
      // A group of which nothing is left is not there.
      return merged.isEmpty() ? MissingNode.getInstance() : merged;
    }
  }
}
