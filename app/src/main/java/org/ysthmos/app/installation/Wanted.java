package org.ysthmos.app.installation;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.rehearsal.LatelyRehearsed.Reference;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.table.ReferenceTable;

/** What bridges would be compiled against, and read, if documents were here that are not yet. */
final class Wanted implements Shapes {

  private final Systems now;
  private final Map<String, SystemDescription> changed = new LinkedHashMap<>();
  private final Map<String, SystemDescription> all = new TreeMap<>();
  private final Map<String, ReferenceTable> tables = new TreeMap<>();
  private final Map<String, WorkingCalendar> calendars = new TreeMap<>();

  /**
   * @param documents all that are wanted, each of which can be read
   * @param here those that are here
   */
  Wanted(SortedMap<String, String> documents, SortedMap<String, String> here, Systems now) {
    this.now = now;
    documents.forEach(
        (path, text) -> {
          if (path.startsWith(SystemSort.FOLDER)) {
            SystemDescription system = SystemReader.read(text);
            all.put(system.id(), system);
            if (!text.equals(here.get(path))) {
              changed.put(system.id(), system);
            }
          } else if (path.startsWith(TableSort.FOLDER)) {
            ReferenceTable table = TableSort.read(text);
            tables.put(table.definition().id(), table);
          } else if (path.startsWith(CalendarSort.FOLDER)) {
            WorkingCalendar calendar = CalendarSort.read(text);
            calendars.put(calendar.id(), calendar);
          }
        });
  }

  Catalog catalog() {
    return Catalog.withRows(this, tables, calendars);
  }

  Reference reference() {
    return new Reference(tables, calendars);
  }

  /** One that stays as it is has the names that were read from it. */
  @Override
  public Optional<CollectionShape> find(String system, String collection) {
    if (!all.containsKey(system)) {
      return Optional.empty();
    }
    return Optional.ofNullable(changed.get(system))
        .map(one -> one.find(collection).map(SystemCollection::able))
        .orElseGet(() -> now.find(system, collection));
  }

  @Override
  public Set<String> systems() {
    return Set.copyOf(all.keySet());
  }

  @Override
  public Set<String> collections(String system) {
    return Optional.ofNullable(all.get(system))
        .map(one -> Set.copyOf(one.collections().keySet()))
        .orElse(Set.of());
  }
}
