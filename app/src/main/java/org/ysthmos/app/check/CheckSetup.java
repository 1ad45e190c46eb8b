package org.ysthmos.app.check;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.CalendarReader;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.trial.TrialWorld;

/** The systems, tables and calendars of a folder. */
record CheckSetup(Catalog catalog, Map<String, ReferenceTable> tables) {

  /**
   * @throws Unusable if the folder describes no system, or a document in it cannot be used
   */
  static CheckSetup load(Path folder) {
    Map<String, SystemDescription> systems = new HashMap<>();
    each(folder.resolve("systems"), SystemReader::read)
        .forEach(system -> systems.put(system.id(), system));
    if (systems.isEmpty()) {
      throw new Unusable(
          "No system is described in "
              + folder.resolve("systems")
              + ". Say with --setup which folder holds systems/, tables/ and calendars/.");
    }
    Map<String, ReferenceTable> tables = new HashMap<>();
    each(folder.resolve("tables"), text -> TableReader.read(DocumentNode.parse(text)))
        .forEach(table -> tables.put(table.definition().id(), table));
    Map<String, WorkingCalendar> calendars = new HashMap<>();
    each(folder.resolve("calendars"), text -> CalendarReader.read(DocumentNode.parse(text)))
        .forEach(calendar -> calendars.put(calendar.id(), calendar));
    return new CheckSetup(Catalog.withRows(new Described(systems), tables, calendars), tables);
  }

  /** The collections of the systems that are described. */
  private record Described(Map<String, SystemDescription> described) implements Shapes {
    @Override
    public Optional<CollectionShape> find(String system, String collection) {
      return Optional.ofNullable(described.get(system))
          .flatMap(found -> found.find(collection))
          .map(SystemCollection::able);
    }

    @Override
    public Set<String> systems() {
      return described.keySet();
    }

    @Override
    public Set<String> collections(String system) {
      return described.containsKey(system)
          ? described.get(system).collections().keySet()
          : Set.of();
    }
  }

  private static <T> List<T> each(Path folder, Function<String, T> read) {
    if (!Files.isDirectory(folder)) {
      return List.of();
    }
    List<T> all = new ArrayList<>();
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.filter(f -> f.toString().endsWith(".yaml")).sorted().toList()) {
        try {
          all.add(read.apply(Lines.text(file)));
        } catch (DocumentException e) {
          throw new Unusable(Lines.problems(file, e));
        }
      }
    } catch (IOException e) {
      throw new Unusable(folder + " cannot be read: " + e.getMessage());
    }
    return all;
  }

  /** A fresh world, with these tables and calendars and no record yet. */
  TrialWorld world() {
    return new TrialWorld(catalog, tables);
  }
}
