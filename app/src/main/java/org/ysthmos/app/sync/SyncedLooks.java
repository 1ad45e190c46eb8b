package org.ysthmos.app.sync;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
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
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.sync.Side;

/** Lets a pair be looked at again, though nothing was told of either task. */
@Component
public class SyncedLooks {

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
  public Optional<String> look(
      String bridge, String pair, Look look, String askedBy, String words) {
    return look(bridge, pair, body(look), askedBy, words);
  }

  /**
   * The same for a task that may be in no pair yet.
   *
   * @return its id; empty if the bridge is not live, or goes one way by now
   */
  public Optional<String> look(
      String bridge, Side side, String record, Look look, String askedBy, String words) {
    return bridges
        .live(bridge)
        .flatMap(live -> live.version().between())
        .map(both -> begin(bridge, both.place(side), record, body(look), askedBy, words));
  }

  private static byte[] body(Look look) {
    return look.data().toString().getBytes(StandardCharsets.UTF_8);
  }

  /** The event of a look that nobody has asked for yet, of a task on a side. */
  public static EventRow event(
      CompiledTwoWay.CompiledPlace place, String record, Look look, Instant now) {
    return event(Long.MAX_VALUE, place, record, body(look), now);
  }

  private static EventRow event(
      long seq, CompiledTwoWay.CompiledPlace place, String record, byte[] body, Instant now) {
    return new EventRow(
        seq,
        place.rule().system(),
        Look.KIND + ":" + UUID.randomUUID(),
        place.rule().collection(),
        Look.KIND,
        record,
        now,
        now,
        Origin.LOOK,
        body);
  }

  private Optional<String> look(
      String bridge, String pair, byte[] body, String askedBy, String words) {
    SyncedRow row = mapper.pair(bridge, pair);
    Optional<CompiledTwoWay> both = bridges.live(bridge).flatMap(live -> live.version().between());
    if (row == null || both.isEmpty()) {
      return Optional.empty();
    }
    Side side = row.leftRecord() == null ? Side.RIGHT : Side.LEFT;
    String record = side == Side.LEFT ? row.leftRecord() : row.rightRecord();
    return Optional.ofNullable(record)
        .map(id -> begin(bridge, both.get().place(side), id, body, askedBy, words));
  }

  /**
   * Looks again at a pair of which somebody changed a task while it was decided; for what was asked
   * for then, if that was a look. Inside a change, as any look.
   *
   * @param eventSeq the event that was decided
   */
  public void again(SyncedPairs.Sending sending, long eventSeq, String askedBy, String words) {
    EventRow event = Objects.requireNonNull(events.find(eventSeq));
    byte[] body = event.origin() == Origin.LOOK ? event.body() : body(Look.PLAIN);
    look(sending.bridge(), sending.pair(), body, askedBy, words);
  }

  /**
   * A task of a pair was made: looks at both where the new one has something to tell the other,
   * such as its id; inside the change that ends its delivery.
   *
   * @param askedBy as for any look
   */
  public void made(SyncedPairs.Sending sending, String askedBy) {
    boolean tells =
        bridges
            .live(sending.bridge())
            .flatMap(live -> live.version().between())
            .filter(both -> both.tellsBack(sending.side()))
            .isPresent();
    if (tells) {
      look(
          sending.bridge(),
          sending.pair(),
          Look.PLAIN,
          askedBy,
          "Looked at, as the new task has something to tell the other");
    }
  }

  private String begin(
      String bridge,
      CompiledTwoWay.CompiledPlace place,
      String record,
      byte[] body,
      String askedBy,
      String words) {
    Instant now = clock.instant();
    String system = place.rule().system();
    String collection = place.rule().collection();
    long seq = events.numbers(1).getFirst();
    events.add(List.of(event(seq, place, record, body, now)));
    return start.begin(
        new TraceStart.Beginning(
            seq, bridge, system + "/" + collection + "/" + record, null, null, askedBy, words),
        now);
  }
}
