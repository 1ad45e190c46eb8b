package org.ysthmos.app.desk;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.table.TableDefinition;

/**
 * Compiles a draft as far as it goes: what is wrong is told with its place, and the rest is
 * compiled without it, so that one rule that is being typed does not blank the others.
 */
final class DraftCompiler {

  /** How often a part is taken out before the draft is given up. */
  private static final int MOST_PARTS_OUT = 40;

  /**
   * What a draft comes to.
   *
   * @param problems everything that keeps it from going live
   * @param version what could be compiled; empty if not even the rest could
   */
  record Compiled(List<DocumentProblem> problems, Optional<BridgeVersion> version) {}

  private DraftCompiler() {}

  static Compiled compile(String json, Catalog catalog) {
    try {
      return new Compiled(List.of(), Optional.of(BridgeCompiler.compile(json, 1, catalog)));
    } catch (DocumentException whole) {
      return new Compiled(whole.problems(), without(whole, json, new Lenient(catalog)));
    }
  }

  private static Optional<BridgeVersion> without(
      DocumentException whole, String json, Catalog lenient) {
    ObjectNode rest = DraftJson.parse(json);
    List<DocumentProblem> problems = whole.problems();
    for (int i = 0; i < MOST_PARTS_OUT; i++) {
      if (problems.stream().noneMatch(problem -> takeOut(rest, problem.path()))) {
        return Optional.empty();
      }
      try {
        return Optional.of(BridgeCompiler.compile(rest.toString(), 1, lenient));
      } catch (DocumentException more) {
        problems = more.problems();
      }
    }
    return Optional.empty();
  }

  /** Takes the rule, the value or the condition at a path out; false if there is none such. */
  private static boolean takeOut(ObjectNode draft, String path) {
    String[] tokens = path.split("/", -1);
    if (tokens[0].equals("when")) {
      return draft.remove("when") != null;
    }
    boolean named = tokens[0].equals("fields") || tokens[0].equals("values");
    if (!named || !(draft.get(tokens[0]) instanceof ObjectNode group)) {
      return false;
    }
    if (tokens.length == 1) {
      // A required field that has no rule yet: the lenient catalog does not ask for it.
      return true;
    }
    return group.remove(tokens[1]) != null;
  }

  /** A catalog in which no field is required. */
  private record Lenient(Catalog catalog) implements Catalog {
    @Override
    public Optional<CollectionShape> collection(String system, String collection) {
      return catalog
          .collection(system, collection)
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
                      shape.fields().stream().map(field -> field.withRequired(false)).toList(),
                      shape.eventFields()));
    }

    @Override
    public Optional<TableDefinition> table(String id) {
      return catalog.table(id);
    }

    @Override
    public Optional<WorkingCalendar> calendar(String id) {
      return catalog.calendar(id);
    }

    @Override
    public Set<String> tables() {
      return catalog.tables();
    }

    @Override
    public Set<String> calendars() {
      return catalog.calendars();
    }
  }
}
