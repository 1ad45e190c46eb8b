package org.ysthmos.app.table;

import java.time.Instant;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.calendar.CalendarReader;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableCsv;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.table.TableUse;

/** The reference tables and calendars, each read once. */
@Component
public class Tables {

  private static final Logger LOG = LoggerFactory.getLogger(Tables.class);
  private static final String BETWEEN_KEYS = "\n";
  private static final int LONGEST_KEY = 1000;

  /**
   * A key that rules asked for.
   *
   * @param times how often, over all time
   */
  public record Asked(List<String> keys, boolean found, long times, Instant last) {}

  private final TableMapper mapper;
  private final AppClock clock;
  private volatile Map<String, ReferenceTable> tables = Map.of();
  private volatile Map<String, WorkingCalendar> calendars = Map.of();

  Tables(TableMapper mapper, AppClock clock) {
    this.mapper = mapper;
    this.clock = clock;
    reload();
  }

  private void reload() {
    Map<String, ReferenceTable> fresh = new LinkedHashMap<>();
    for (TableMapper.TableRow row : mapper.tables()) {
      try {
        TableDefinition definition =
            TableReader.read(DocumentNode.parse(row.document())).definition();
        fresh.put(row.id(), TableCsv.read(row.rowsCsv(), definition));
      } catch (DocumentException e) {
        // One table that cannot be read must not keep the others from being used.
        LOG.error("the table {} cannot be used: {}", row.id(), e.getMessage());
      }
    }
    tables = Map.copyOf(fresh);
    Map<String, WorkingCalendar> read = new LinkedHashMap<>();
    mapper
        .calendars()
        .forEach(
            row -> read.put(row.id(), CalendarReader.read(DocumentNode.parse(row.document()))));
    calendars = Map.copyOf(read);
  }

  /**
   * Adds a table if none of its id is there.
   *
   * @throws DocumentException if the document cannot be used
   */
  public synchronized void addIfNew(String document) {
    ReferenceTable table = TableReader.read(DocumentNode.parse(document));
    String id = table.definition().id();
    if (!tables.containsKey(id)) {
      mapper.add(new TableMapper.TableRow(id, document, TableCsv.write(table), clock.instant()));
      reload();
    }
  }

  /**
   * Adds a calendar if none of its id is there.
   *
   * @throws DocumentException if the document cannot be used
   */
  public synchronized void addCalendarIfNew(String document) {
    WorkingCalendar calendar = CalendarReader.read(DocumentNode.parse(document));
    if (!calendars.containsKey(calendar.id())) {
      mapper.addCalendar(calendar.id(), document, clock.instant());
      reload();
    }
  }

  /**
   * Puts the rows of a CSV in place of a table's own.
   *
   * @throws DocumentException if it has any mistake; nothing changes then
   */
  public synchronized ReferenceTable replaceRows(ReferenceTable table, String csv) {
    ReferenceTable fresh = TableCsv.read(csv, table.definition());
    mapper.replaceRows(table.definition().id(), TableCsv.write(fresh), clock.instant());
    for (Asked asked : asked(table.definition().id())) {
      if (!asked.found() && fresh.find(asked.keys()).isPresent()) {
        mapper.forgetUnknown(table.definition().id(), joined(asked.keys()));
      }
    }
    reload();
    return fresh;
  }

  public Optional<ReferenceTable> table(String id) {
    return Optional.ofNullable(tables.get(id));
  }

  public Optional<WorkingCalendar> calendar(String id) {
    return Optional.ofNullable(calendars.get(id));
  }

  /** All tables, by id. */
  public Map<String, ReferenceTable> all() {
    return tables;
  }

  /** All calendars, by id. */
  public Map<String, WorkingCalendar> calendars() {
    return calendars;
  }

  /** Counts that a decision asked; inside the transaction that stores the decision. */
  public void count(List<TableUse> uses) {
    // In one order, so that two workers never wait for each other's rows.
    List<TableUse> ordered =
        uses.stream()
            .sorted(
                Comparator.comparing(TableUse::table)
                    .thenComparing(use -> joined(use.keys()))
                    .thenComparing(TableUse::found))
            .toList();
    for (TableUse use : ordered) {
      String asked = joined(use.keys());
      if (mapper.countUse(use.table(), asked, use.found(), clock.instant()) == 0) {
        try {
          mapper.firstUse(use.table(), asked, use.found(), clock.instant());
        } catch (DuplicateKeyException anotherWasFirst) {
          mapper.countUse(use.table(), asked, use.found(), clock.instant());
        }
      }
    }
  }

  /** The keys that rules asked a table for, the most frequent first. */
  public List<Asked> asked(String table) {
    return mapper.uses(table).stream()
        .map(
            row ->
                new Asked(
                    List.of(row.asked().split(BETWEEN_KEYS, -1)),
                    row.found(),
                    row.times(),
                    row.lastAt()))
        .toList();
  }

  private static String joined(List<String> keys) {
    String joined =
        String.join(BETWEEN_KEYS, keys.stream().map(key -> key.replace('\n', ' ')).toList());
    return joined.length() <= LONGEST_KEY ? joined : joined.substring(0, LONGEST_KEY);
  }
}
