package org.ysthmos.core.bridge;

import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;

/** What another catalog holds, except for what is said otherwise. */
public abstract class CatalogOver implements Catalog {

  private final Catalog rest;

  protected CatalogOver(Catalog rest) {
    this.rest = rest;
  }

  @Override
  public Optional<CollectionShape> collection(String system, String collection) {
    return rest.collection(system, collection);
  }

  @Override
  public Optional<TableDefinition> table(String id) {
    return rest.table(id);
  }

  @Override
  public Optional<ReferenceTable> rows(String table) {
    return rest.rows(table);
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return rest.calendar(id);
  }

  @Override
  public Set<String> systems() {
    return rest.systems();
  }

  @Override
  public Set<String> collections(String system) {
    return rest.collections(system);
  }

  @Override
  public Set<String> tables() {
    return rest.tables();
  }

  @Override
  public Set<String> calendars() {
    return rest.calendars();
  }
}
