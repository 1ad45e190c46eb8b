package org.ysthmos.app.chore;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.chore.ChoreMapper.ChoreRow;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreJson;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.chore.ChoreTimes.Progress;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.decide.ChoreLook;
import org.ysthmos.core.event.Event;

/** The rows that come round, as what was told of them last says. */
@Component
public class KeptChores {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final ChoreMapper mapper;
  private final Tables tables;

  KeptChores(ChoreMapper mapper, Tables tables) {
    this.mapper = mapper;
    this.tables = tables;
  }

  /**
   * Keeps what an event said of its row; inside a change. What is older than what is known says
   * nothing any more.
   */
  public void keep(BridgeVersion bridge, EventRow event, ChoreLook look) {
    String id = bridge.definition().id();
    ChoreRow known = mapper.find(id, event.recordId());
    boolean read = event.kind().equals(ChoreSource.read(id));
    if (known != null
        && (known.eventSeq() > event.seq()
            || (read && known.toldAt().isAfter(event.receivedAt())))) {
      return;
    }
    ChoreMapper.TableRow table = mapper.table(id);
    int reading = table == null ? 0 : table.reading();
    mapper.put(
        switch (look) {
          case ChoreLook.Rests rests -> rests(id, event, rests.because(), reading);
          case ChoreLook.Comes comes -> {
            Progress progress =
                Optional.ofNullable(known)
                    .filter(one -> chore(one).filter(comes.chore()::comesLike).isPresent())
                    .map(KeptChores::progress)
                    .orElseGet(() -> Progress.from(event.receivedAt()));
            yield comes(bridge, event, comes.chore(), progress, reading);
          }
        });
  }

  private static ChoreRow rests(String bridge, EventRow event, String because, int reading) {
    Instant at = event.receivedAt();
    return new ChoreRow(
        bridge,
        event.recordId(),
        event.seq(),
        at,
        event.body(),
        null,
        Words.limited(because, 1000),
        at,
        null,
        at,
        null,
        null,
        reading);
  }

  private ChoreRow comes(
      BridgeVersion bridge, EventRow event, Chore chore, Progress progress, int reading) {
    Optional<ToMake> next =
        times(bridge, event.recordId(), chore).after(progress, 1).stream().findFirst();
    return new ChoreRow(
        bridge.definition().id(),
        event.recordId(),
        event.seq(),
        event.receivedAt(),
        event.body(),
        ChoreJson.write(chore).toString(),
        null,
        progress.since(),
        progress.handled().orElse(null),
        event.receivedAt(),
        next.map(ToMake::make).orElse(null),
        next.map(one -> one.time().at().toInstant()).orElse(null),
        reading);
  }

  /**
   * Whether a time of the row came before an event that tells of it, and was not looked at yet: it
   * comes as what was told before says.
   *
   * @param now a time that is to come by it is waited for by nobody: an event that was received
   *     while the clock was ahead would wait until then
   */
  public boolean isDueBefore(String bridge, EventRow event, Instant now) {
    ChoreRow known = mapper.find(bridge, event.recordId());
    return known != null
        && known.makeAt() != null
        && !known.makeAt().isAfter(event.receivedAt())
        && !known.makeAt().isAfter(now)
        && known.eventSeq() < event.seq();
  }

  /** When the tasks of a row are made, by the calendars as they are now. */
  ChoreTimes times(BridgeVersion bridge, String record, Chore chore) {
    Optional<WorkingCalendar> calendar = chore.recurrence().calendar().flatMap(tables::calendar);
    Duration spread = bridge.chores().map(chores -> chores.rules().spread()).orElse(Duration.ZERO);
    return new ChoreTimes(chore, calendar, ChoreTimes.share(record, spread));
  }

  /**
   * A row that comes round.
   *
   * @param row what was told of it last
   */
  public record Kept(Event row, Chore chore, ChoreTimes times, Progress progress) {}

  /** Those of which a task is made next, up to a moment, the earliest first. */
  public List<Kept> next(BridgeVersion bridge, Instant until, int most) {
    return mapper.next(bridge.definition().id(), until, most).stream()
        .flatMap(row -> kept(bridge, row).stream())
        .toList();
  }

  /** A row that comes round; empty if it is not known, or rests. */
  public Optional<Kept> find(BridgeVersion bridge, String record) {
    return Optional.ofNullable(mapper.find(bridge.definition().id(), record))
        .flatMap(row -> kept(bridge, row));
  }

  private Optional<Kept> kept(BridgeVersion bridge, ChoreRow row) {
    return chore(row)
        .map(
            chore ->
                new Kept(
                    told(bridge, row), chore, times(bridge, row.recordId(), chore), progress(row)));
  }

  /** What a row says of when it comes round; empty if it rests. */
  static Optional<Chore> chore(ChoreRow row) {
    return Optional.ofNullable(row.chore())
        .map(
            text -> {
              try {
                return ChoreJson.read(JSON.readTree(text));
              } catch (JsonProcessingException e) {
                throw new UncheckedIOException("a chore was kept that cannot be read", e);
              }
            });
  }

  static Progress progress(ChoreRow row) {
    return new Progress(row.since(), Optional.ofNullable(row.handled()));
  }

  /** What was told of a row last, as an event. */
  static Event told(BridgeVersion bridge, ChoreRow row) {
    return new Event(
        row.recordId(),
        bridge.definition().from().system(),
        bridge.definition().from().collection(),
        ChoreSource.read(bridge.definition().id()),
        row.recordId(),
        row.toldAt(),
        ReceivedEvents.json(row.body())
            .orElseThrow(() -> new IllegalStateException("a row was kept that cannot be read")));
  }
}
