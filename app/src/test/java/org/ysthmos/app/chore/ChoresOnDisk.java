package org.ysthmos.app.chore;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.chore.ChoreMapper.ChoreRow;
import org.ysthmos.app.chore.ChoreMapper.TableRow;
import org.ysthmos.app.event.EventMapper.EventRow;

/** Rows and events of one bridge as a disk keeps them: a kill undoes what was not forced. */
final class ChoresOnDisk {

  private record Store(Map<String, EventRow> events, Map<String, ChoreRow> rows, TableRow table) {
    Store copy() {
      return new Store(new TreeMap<>(events), new TreeMap<>(rows), table);
    }
  }

  /** The database over it, as far as rows that come round need it. */
  final ChoreMapper mapper = mock(ChoreMapper.class);

  private Store store;
  private Store forced;

  ChoresOnDisk(String bridge, Instant begun) {
    TableRow table = TableRow.begin(bridge, 1, 1, true, begun).after(0, null, Instant.MAX);
    store = new Store(new TreeMap<>(), new TreeMap<>(), table);
    forced = store.copy();
    when(mapper.find(anyString(), anyString()))
        .thenAnswer(asked -> store.rows.get(asked.<String>getArgument(1)));
    when(mapper.due(anyString(), any(), anyInt()))
        .thenAnswer(
            asked ->
                store.rows.values().stream()
                    .filter(row -> isBy(row, asked.getArgument(1)))
                    .sorted(Comparator.comparing(ChoreRow::makeAt))
                    .limit(asked.<Integer>getArgument(2))
                    .toList());
    when(mapper.nextMake(anyString()))
        .thenAnswer(
            any ->
                store.rows.values().stream()
                    .map(ChoreRow::makeAt)
                    .filter(Objects::nonNull)
                    .min(Comparator.naturalOrder())
                    .orElse(null));
    doAnswer(call -> keep(call.getArgument(0))).when(mapper).put(any());
    when(mapper.moved(any()))
        .thenAnswer(
            call -> {
              ChoreRow row = call.getArgument(0);
              ChoreRow known = store.rows.get(row.recordId());
              boolean same = known != null && known.eventSeq() == row.eventSeq();
              return same ? keep(row) : 0;
            });
    when(mapper.beginAnew(any(), any()))
        .thenAnswer(
            call -> {
              Instant limit = call.getArgument(1);
              List<ChoreRow> ahead =
                  store.rows.values().stream()
                      .filter(row -> row.looked().isAfter(limit) && row.chore() != null)
                      .toList();
              ahead.forEach(row -> keep(anew(row, call.getArgument(0))));
              return ahead.size();
            });
    when(mapper.table(bridge)).thenAnswer(any -> store.table);
    when(mapper.tables()).thenReturn(List.of(bridge));
    doAnswer(call -> stop(call.getArgument(1))).when(mapper).stop(anyString(), any());
  }

  Collection<EventRow> events() {
    return store.events.values();
  }

  Collection<ChoreRow> rows() {
    return store.rows.values();
  }

  @Nullable ChoreRow row(String record) {
    return store.rows.get(record);
  }

  /** An event that is there already is the same. */
  void take(EventRow event) {
    store.events.putIfAbsent(event.sourceId(), event);
  }

  void force() {
    forced = store.copy();
  }

  void undoWhatWasNotForced() {
    store = forced.copy();
  }

  private int stop(@Nullable String why) {
    TableRow t = store.table;
    TableRow stopped =
        new TableRow(
            t.bridgeId(),
            t.number(),
            t.reading(),
            t.tells(),
            t.place(),
            t.through(),
            t.rowsRead(),
            t.nextAt(),
            t.tries(),
            t.problem(),
            why);
    store = new Store(store.events, store.rows, stopped);
    return 1;
  }

  private static boolean isBy(ChoreRow row, Instant moment) {
    Instant make = row.makeAt();
    return make != null && !make.isAfter(moment);
  }

  private int keep(ChoreRow row) {
    store.rows.put(row.recordId(), row);
    return 1;
  }

  private static ChoreRow anew(ChoreRow row, Instant at) {
    return new ChoreRow(
        row.bridgeId(),
        row.recordId(),
        row.eventSeq(),
        row.toldAt(),
        row.body(),
        row.chore(),
        null,
        at,
        null,
        at,
        at,
        row.dueAt(),
        row.reading());
  }
}
