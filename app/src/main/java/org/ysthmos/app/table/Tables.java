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
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.calendar.CalendarReader;
import org.ysthmos.core.calendar.CalendarWriter;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableChange;
import org.ysthmos.core.table.TableCsv;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.table.TableWriter;

/** The reference tables and calendars, each read once. */
@Component
public class Tables {

  private static final Logger LOG = LoggerFactory.getLogger(Tables.class);
  private static final String BETWEEN_KEYS = "\n";
  private static final int LONGEST_KEY = 1000;
  private static final int KEPT_CHANGES = 30;
  private static final String SET_UP = "set up";
  private static final String TABLE = "table";
  private static final String CALENDAR = "calendar";

  /**
   * A key that rules asked for.
   *
   * @param times how often, over all time
   */
  public record Asked(List<String> keys, boolean found, long times, Instant last) {}

  private final TableMapper mapper;
  private final AppClock clock;
  private final TransactionTemplate transaction;
  private volatile Map<String, ReferenceTable> tables = Map.of();
  private volatile Map<String, WorkingCalendar> calendars = Map.of();

  Tables(TableMapper mapper, AppClock clock, TransactionTemplate transaction) {
    this.mapper = mapper;
    this.clock = clock;
    this.transaction = transaction;
    reload();
  }

  /** Makes several changes, while nobody else makes any. */
  public synchronized void together(Runnable changes) {
    changes.run();
  }

  /** Reads all anew, where what was kept was undone. */
  public synchronized void refresh() {
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
   * Keeps a table of the setup, unless a person changed it since; what people do on the screens
   * counts over files.
   *
   * @throws DocumentException if the document cannot be used
   */
  public synchronized void setUp(String document) {
    ReferenceTable table = TableReader.read(DocumentNode.parse(document));
    String id = table.definition().id();
    if (isForTheSetup(TABLE, id, tables.containsKey(id), document)) {
      keep(table, document, SET_UP, By.ENGINE);
    }
  }

  /**
   * Keeps a calendar of the setup, unless a person changed it since.
   *
   * @throws DocumentException if the document cannot be used
   */
  public synchronized void setUpCalendar(String document) {
    WorkingCalendar calendar = CalendarReader.read(DocumentNode.parse(document));
    boolean there = calendars.containsKey(calendar.id());
    if (isForTheSetup(CALENDAR, calendar.id(), there, document)) {
      keep(calendar, document, SET_UP, By.ENGINE);
    }
  }

  /** Whether nobody but the setup kept it so far, and the setup says something else by now. */
  private boolean isForTheSetup(String kind, String id, boolean there, String document) {
    Optional<Change> newest = changes(kind, id).stream().findFirst();
    if (newest.isEmpty()) {
      return !there;
    }
    return newest.get().what().equals(SET_UP)
        && Optional.ofNullable(mapper.changeAt(newest.get().seq()))
            .filter(row -> !row.document().equals(document))
            .isPresent();
  }

  /** Keeps a table as it is given, whether it is there already or not. */
  public synchronized ReferenceTable put(ReferenceTable table, By by) {
    String id = table.definition().id();
    String what = table(id).map(before -> TableChange.words(before, table)).orElse("made");
    keep(table, TableWriter.write(table.definition()), what, by);
    for (Asked asked : asked(id)) {
      if (!asked.found()
          && asked.keys().size() == table.definition().keys().size()
          && table.find(asked.keys()).isPresent()) {
        mapper.forgetUnknown(id, joined(asked.keys()));
      }
    }
    return table;
  }

  private void keep(ReferenceTable table, String document, String what, By by) {
    String id = table.definition().id();
    var row = new TableMapper.TableRow(id, document, TableCsv.write(table), clock.instant());
    transaction.executeWithoutResult(
        status -> {
          if (tables.containsKey(id)) {
            mapper.change(row);
          } else {
            mapper.add(row);
          }
          note(TABLE, id, what, by, document, row.rowsCsv());
        });
    reload();
  }

  /** Keeps a calendar as it is given, whether it is there already or not. */
  public synchronized void put(WorkingCalendar calendar, String what, By by) {
    keep(calendar, CalendarWriter.write(calendar), what, by);
  }

  private void keep(WorkingCalendar calendar, String document, String what, By by) {
    transaction.executeWithoutResult(
        status -> {
          if (calendars.containsKey(calendar.id())) {
            mapper.changeCalendar(calendar.id(), document, clock.instant());
          } else {
            mapper.addCalendar(calendar.id(), document, clock.instant());
          }
          note(CALENDAR, calendar.id(), what, by, document, "");
        });
    reload();
  }

  private void note(String kind, String id, String what, By by, String document, String rows) {
    mapper.addChange(
        new TableMapper.ChangeRow(
            mapper.nextChange(),
            kind,
            id,
            clock.instant(),
            by.name(),
            what.length() <= LONGEST_KEY ? what : what.substring(0, LONGEST_KEY),
            document,
            rows));
    mapper.forgetChanges(kind, id, KEPT_CHANGES);
  }

  /** Takes a table away; what it was stays among its changes. */
  public synchronized void removeTable(String id, By by) {
    ReferenceTable table = table(id).orElseThrow();
    transaction.executeWithoutResult(
        status -> {
          mapper.remove(id);
          note(
              TABLE,
              id,
              "removed",
              by,
              TableWriter.write(table.definition()),
              TableCsv.write(table));
        });
    reload();
  }

  /** Takes a calendar away; what it was stays among its changes. */
  public synchronized void removeCalendar(String id, By by) {
    WorkingCalendar calendar = calendar(id).orElseThrow();
    transaction.executeWithoutResult(
        status -> {
          mapper.removeCalendar(id);
          note(CALENDAR, id, "removed", by, CalendarWriter.write(calendar), "");
        });
    reload();
  }

  /**
   * A change of a table or a calendar.
   *
   * @param seq its order number, by which what it was is found
   * @param what in words
   */
  public record Change(long seq, Instant at, String by, String what) {}

  /** The changes of a table, the newest first. */
  public List<Change> changesOfTable(String id) {
    return changes(TABLE, id);
  }

  /** The changes of a calendar, the newest first. */
  public List<Change> changesOfCalendar(String id) {
    return changes(CALENDAR, id);
  }

  private List<Change> changes(String kind, String id) {
    return mapper.changes(kind, id).stream()
        .map(row -> new Change(row.seq(), row.madeAt(), row.madeBy(), row.what()))
        .toList();
  }

  /** The table as it was after a change; empty if that is not kept any more. */
  public Optional<ReferenceTable> tableAfter(String id, long seq) {
    return Optional.ofNullable(mapper.changeAt(seq))
        .filter(row -> row.kind().equals(TABLE) && row.referenceId().equals(id))
        .map(
            row ->
                TableCsv.read(
                    row.rowsCsv(),
                    TableReader.read(DocumentNode.parse(row.document())).definition()));
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
