package org.ysthmos.app.bridge;

import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;

/** What bridges are compiled against: the connected systems, the tables and the calendars. */
@Component
class EngineCatalog implements Catalog {

  private final Systems systems;
  private final Tables tables;

  EngineCatalog(Systems systems, Tables tables) {
    this.systems = systems;
    this.tables = tables;
  }

  @Override
  public Optional<CollectionShape> collection(String system, String collection) {
    return systems.find(system, collection);
  }

  @Override
  public Optional<TableDefinition> table(String id) {
    return tables.table(id).map(ReferenceTable::definition);
  }

  @Override
  public Optional<ReferenceTable> rows(String table) {
    return tables.table(table);
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return tables.calendar(id);
  }

  @Override
  public Set<String> systems() {
    return systems.systems();
  }

  @Override
  public Set<String> collections(String system) {
    return systems.collections(system);
  }

  @Override
  public Set<String> tables() {
    return tables.all().keySet();
  }

  @Override
  public Set<String> calendars() {
    return tables.calendars().keySet();
  }
}
