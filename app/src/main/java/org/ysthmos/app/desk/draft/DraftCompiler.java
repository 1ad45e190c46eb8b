package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.CatalogOver;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/**
 * Compiles a draft as far as it goes: what is wrong is told with its place, and the rest is
 * compiled without it, so that one rule that is being typed does not blank the others.
 */
public final class DraftCompiler {

  /** The types that a field is tried with, so that the values up to its mismatch are seen. */
  private static final List<ValueType> TYPES = allTypes();

  /** How often a part is taken out before the draft is given up. */
  private static final int MOST_PARTS_OUT = 60;

  /**
   * What a draft comes to.
   *
   * @param problems everything that keeps it from going live
   * @param version what could be compiled; empty if not even the rest could
   */
  public record Compiled(List<DocumentProblem> problems, Optional<BridgeVersion> version) {}

  private DraftCompiler() {}

  public static Compiled compile(String json, Catalog catalog) {
    try {
      return new Compiled(List.of(), Optional.of(BridgeCompiler.compile(json, 1, catalog)));
    } catch (DocumentException whole) {
      return new Compiled(whole.problems(), without(whole, json, catalog));
    }
  }

  private static Optional<BridgeVersion> without(
      DocumentException whole, String json, Catalog catalog) {
    ObjectNode rest = DraftJson.parse(json);
    Map<String, Integer> tried = new HashMap<>();
    List<DocumentProblem> problems = whole.problems();
    for (int i = 0; i < MOST_PARTS_OUT; i++) {
      boolean less = false;
      for (DocumentProblem problem : problems) {
        less |= takeOut(rest, problem.path().split("/", -1), tried);
      }
      if (!less) {
        return Optional.empty();
      }
      try {
        return Optional.of(
            BridgeCompiler.compile(rest.toString(), 1, new Lenient(catalog, types(tried))));
      } catch (DocumentException more) {
        problems = more.problems();
      }
    }
    return Optional.empty();
  }

  /**
   * Takes as little out as the place of a problem allows: the steps from the wrong one on; else it
   * lets the field hold whatever the rule gives; else the rule, the value or the condition.
   *
   * @param tried how many types a field was tried with
   * @return false if there is nothing to take out
   */
  private static boolean takeOut(ObjectNode draft, String[] path, Map<String, Integer> tried) {
    if (path[0].equals("when")) {
      return draft.remove("when") != null;
    }
    if (path.length > 1 && path[0].equals("from") && path[1].equals("event")) {
      // The lenient catalog takes events of any kind.
      return true;
    }
    if (path.length > 1
        && path[0].equals("then")
        && draft.get("then") instanceof ObjectNode effects) {
      return effects.remove(path[1]) != null;
    }
    boolean named = path[0].equals("fields") || path[0].equals("values");
    if (!named || !(draft.get(path[0]) instanceof ObjectNode group)) {
      return false;
    }
    if (path.length == 1) {
      // A required field that has no rule yet: the lenient catalog does not ask for it.
      return true;
    }
    if (path.length > 3 && path[2].equals("steps") && cut(group.get(path[1]), path[3])) {
      return true;
    }
    if (path.length == 2 && path[0].equals("fields") && group.has(path[1])) {
      int next = tried.merge(path[1], 1, Integer::sum);
      if (next <= TYPES.size()) {
        return true;
      }
    }
    return group.remove(path[1]) != null;
  }

  private static boolean cut(@Nullable JsonNode rule, String from) {
    if (rule == null || !(rule.get("steps") instanceof ArrayNode steps)) {
      return false;
    }
    int place = Integer.parseInt(from);
    if (place >= steps.size()) {
      return false;
    }
    while (steps.size() > place) {
      steps.remove(steps.size() - 1);
    }
    return true;
  }

  private static Map<String, ValueType> types(Map<String, Integer> tried) {
    Map<String, ValueType> types = new HashMap<>();
    tried.forEach((field, times) -> types.put(field, TYPES.get(Math.min(times, TYPES.size()) - 1)));
    return types;
  }

  private static List<ValueType> allTypes() {
    List<ValueType> single =
        List.of(
            ValueType.TEXT,
            ValueType.DAY,
            ValueType.MOMENT,
            ValueType.NUMBER,
            ValueType.CHOICE,
            ValueType.PERSON,
            ValueType.FLAG,
            ValueType.LINK);
    return Stream.concat(single.stream(), single.stream().map(ValueType::listOf)).toList();
  }

  /** A catalog in which no field is required, and some hold another type. */
  private static final class Lenient extends CatalogOver {
    private final Map<String, ValueType> types;

    Lenient(Catalog catalog, Map<String, ValueType> types) {
      super(catalog);
      this.types = types;
    }

    @Override
    public Optional<CollectionShape> collection(String system, String collection) {
      return super.collection(system, collection)
          .map(
              shape ->
                  new CollectionShape(
                      shape.system(),
                      shape.systemName(),
                      shape.collection(),
                      shape.name(),
                      shape.recordWord(),
                      shape.titleField(),
                      shape.parentField(),
                      shape.fields().stream().map(this::lenient).toList(),
                      shape.eventFields()));
    }

    private FieldShape lenient(FieldShape field) {
      ValueType type = types.get(field.key());
      return type == null
          ? field.withRequired(false)
          : FieldShape.of(field.key(), field.name(), type);
    }
  }
}
