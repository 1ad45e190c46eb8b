package org.ysthmos.core.bridge;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.table.TableDefinition;

/** What a bridge can be compiled against: collections, reference tables and calendars. */
public interface Catalog {

  Optional<CollectionShape> collection(String system, String collection);

  Optional<TableDefinition> table(String id);

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
    Catalog rest = this;
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
        return rest.table(id);
      }

      @Override
      public Optional<WorkingCalendar> calendar(String id) {
        return rest.calendar(id);
      }

      @Override
      public Set<String> tables() {
        return rest.tables();
      }

      @Override
      public Set<String> calendars() {
        return rest.calendars();
      }
    };
  }

  /** Collections, with neither tables nor calendars. */
  static Catalog of(Shapes shapes) {
    return of(shapes, Map.of(), Map.of());
  }

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
