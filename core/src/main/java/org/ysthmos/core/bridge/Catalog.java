package org.ysthmos.core.bridge;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;

/** What a bridge can be compiled against: collections, reference tables and calendars. */
public interface Catalog {

  Optional<CollectionShape> collection(String system, String collection);

  Optional<TableDefinition> table(String id);

  /** A table with its rows, as far as they are known where something is compiled. */
  default Optional<ReferenceTable> rows(String table) {
    return Optional.empty();
  }

  Optional<WorkingCalendar> calendar(String id);

  /** The ids of all systems, for naming the nearest; none where they are not known. */
  default Set<String> systems() {
    return Set.of();
  }

  /** The ids of a system's collections, for naming the nearest; none where they are not known. */
  default Set<String> collections(String system) {
    return Set.of();
  }

  /** The ids of all tables, for naming the nearest. */
  Set<String> tables();

  /** The ids of all calendars, for naming the nearest. */
  Set<String> calendars();

  /** The same with other collections, for trying what becomes of bridges then. */
  default Catalog with(Shapes shapes) {
    return new CatalogOver(this) {
      @Override
      public Optional<CollectionShape> collection(String system, String collection) {
        return shapes.find(system, collection);
      }

      @Override
      public Set<String> systems() {
        return shapes.systems();
      }

      @Override
      public Set<String> collections(String system) {
        return shapes.collections(system);
      }
    };
  }

  /** The same with a table as it would be, for trying what becomes of bridges then. */
  default Catalog with(ReferenceTable table) {
    String changed = table.definition().id();
    return new CatalogOver(this) {
      @Override
      public Optional<TableDefinition> table(String id) {
        return id.equals(changed) ? Optional.of(table.definition()) : super.table(id);
      }

      @Override
      public Optional<ReferenceTable> rows(String id) {
        return id.equals(changed) ? Optional.of(table) : super.rows(id);
      }
    };
  }

  /** Collections, with neither tables nor calendars. */
  static Catalog of(Shapes shapes) {
    return of(shapes, Map.of(), Map.of());
  }

  /** Collections and calendars, and tables with their rows. */
  static Catalog withRows(
      Shapes shapes, Map<String, ReferenceTable> tables, Map<String, WorkingCalendar> calendars) {
    Map<String, TableDefinition> definitions = new HashMap<>();
    tables.forEach((id, table) -> definitions.put(id, table.definition()));
    return new CatalogOver(of(shapes, definitions, calendars)) {
      @Override
      public Optional<ReferenceTable> rows(String table) {
        return Optional.ofNullable(tables.get(table));
      }
    };
  }

  /** The same where of tables is known what they are about, and no row. */
  static Catalog of(
      Shapes shapes, Map<String, TableDefinition> tables, Map<String, WorkingCalendar> calendars) {
    return new Catalog() {
      @Override
      public Optional<CollectionShape> collection(String system, String collection) {
        return shapes.find(system, collection);
      }

      @Override
      public Set<String> systems() {
        return shapes.systems();
      }

      @Override
      public Set<String> collections(String system) {
        return shapes.collections(system);
      }

      @Override
      public Optional<TableDefinition> table(String id) {
        return Optional.ofNullable(tables.get(id));
      }

      @Override
      public Optional<WorkingCalendar> calendar(String id) {
        return Optional.ofNullable(calendars.get(id));
      }

      @Override
      public Set<String> tables() {
        return tables.keySet();
      }

      @Override
      public Set<String> calendars() {
        return calendars.keySet();
      }
    };
  }
}
