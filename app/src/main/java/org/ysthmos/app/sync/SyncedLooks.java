package org.ysthmos.app.sync;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.sync.SyncedMapper.SyncedRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceStart;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.sync.Side;

/** Lets a pair be looked at again, though nothing was told of either task. */
@Component
public class SyncedLooks {

  /** How events are called that only say that a pair is to be looked at. */
  static final String KIND = "look";

  private final SyncedMapper mapper;
  private final Bridges bridges;
  private final EventMapper events;
  private final TraceStart start;
  private final AppClock clock;

  SyncedLooks(
      SyncedMapper mapper, Bridges bridges, EventMapper events, TraceStart start, AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.events = events;
    this.start = start;
    this.clock = clock;
  }

  /**
   * Begins a trace that looks at both tasks of a pair; inside a change, after which the dispatcher
   * is woken.
   *
   * @param askedBy who asked for it, at most 128 characters
   * @param words why, as the first line of its story
   * @return its id; empty if the bridge is not live, or has no task of the pair any more
   */
  public Optional<String> look(String bridge, String pair, String askedBy, String words) {
    SyncedRow row = mapper.pair(bridge, pair);
    Optional<CompiledTwoWay> both = bridges.live(bridge).flatMap(live -> live.version().between());
    if (row == null || both.isEmpty()) {
      return Optional.empty();
    }
    Side side = row.leftRecord() == null ? Side.RIGHT : Side.LEFT;
    String record = side == Side.LEFT ? row.leftRecord() : row.rightRecord();
    return Optional.ofNullable(record)
        .map(id -> begin(bridge, both.get().place(side), id, askedBy, words));
  }

  private String begin(
      String bridge,
      CompiledTwoWay.CompiledPlace place,
      String record,
      String askedBy,
      String words) {
    Instant now = clock.instant();
    String system = place.rule().system();
    String collection = place.rule().collection();
    long seq = events.numbers(1).getFirst();
    events.add(
        List.of(
            new EventRow(
                seq,
                system,
                KIND + ":" + UUID.randomUUID(),
                collection,
                KIND,
                record,
                now,
                now,
                Origin.LOOK,
                "{}".getBytes(StandardCharsets.UTF_8))));
    return start.begin(
        new TraceStart.Beginning(
            seq, bridge, system + "/" + collection + "/" + record, null, null, askedBy, words),
        now);
  }
}
