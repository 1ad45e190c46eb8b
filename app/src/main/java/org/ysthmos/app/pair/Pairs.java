package org.ysthmos.app.pair;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.decide.World.Stays;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.json.StoredText;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** Reads, reserves and completes pairs. */
@Component
public class Pairs {

  /**
   * A pair as a decision saw it; revision 0 means that there was none.
   *
   * @param doubtSince since when nobody knows whether its task was made
   * @param often how often its task was written to
   */
  public record Seen(
      int revision, Optional<PairState> state, Optional<Instant> doubtSince, Often often) {
    public static final Seen NONE =
        new Seen(0, Optional.empty(), Optional.empty(), new Often(0, Optional.empty()));
  }

  /**
   * A pair's task.
   *
   * @param stored the fields as the system said it keeps them when we last wrote, as text
   */
  public record Side(String system, String collection, String record, Map<String, String> stored) {

    /** Whether the task as it is now holds something other than when we last wrote. */
    public boolean differsFrom(JsonNode task) {
      return differs(stored, task);
    }
  }

  static boolean differs(Map<String, String> stored, JsonNode record) {
    return stored.entrySet().stream()
        .anyMatch(
            entry -> {
              JsonNode now = record.path(entry.getKey());
              return !now.isMissingNode() && !StoredText.of(now).equals(entry.getValue());
            });
  }

  private static final int MOST_MARKS = 5;
  private static final int LONGEST_MARK = 380;

  private final PairMapper mapper;
  private final AppClock clock;

  Pairs(PairMapper mapper, AppClock clock) {
    this.mapper = mapper;
    this.clock = clock;
  }

  /**
   * @param eventSeq the order number of the event that is decided
   */
  public Seen find(String bridge, String hash, long eventSeq) {
    PairRow row = mapper.find(bridge, hash);
    return row == null
        ? Seen.NONE
        : new Seen(
            row.revision(),
            Optional.of(
                new PairState(
                    Optional.ofNullable(row.targetRecord()),
                    KeptFields.read(row.agreed()),
                    row.targetRecord() != null && row.eventSeq() > eventSeq,
                    stays(row),
                    row.anew(),
                    Optional.of(row.targetCollection()))),
            Optional.ofNullable(row.doubtSince()),
            new Often(row.often(), Optional.ofNullable(row.oftenSince())));
  }

  /**
   * A pair as it is, if it was there before an event that came earlier.
   *
   * @param event its order number and when it was received are looked at
   */
  public Optional<PairState> thereBefore(String bridge, String hash, EventRow event) {
    PairRow row = mapper.find(bridge, hash);
    boolean before =
        row != null
            && row.targetRecord() != null
            && ((row.eventSeq() > 0 && row.eventSeq() < event.seq())
                || row.madeAt().isBefore(event.receivedAt()));
    return before ? find(bridge, hash, Long.MAX_VALUE).state() : Optional.empty();
  }

  private static Stays stays(PairRow row) {
    if (row.takenBack()) {
      return Stays.TAKEN_BACK;
    }
    return row.leftSo() ? Stays.REMOVED : Stays.NO;
  }

  /**
   * Reserves the pair for the one who saw it so; inside the transaction that stores the deliveries.
   *
   * @param span in which it is counted how often a task is written to
   * @return false if another changed it since
   */
  public boolean reserve(TaskDecision task, Event event, Seen seen, Duration span) {
    MatchKey key = task.key();
    PlannedDelivery planned = task.delivery().orElseThrow();
    Instant now = clock.instant();
    Often often = seen.often().more(span, now);
    if (seen.revision() > 0) {
      boolean reserved =
          mapper.reserveAgain(
                  key.bridge(),
                  key.hash(),
                  seen.revision(),
                  often.times(),
                  often.since().orElse(now))
              == 1;
      // One that is made though it was made before is made again: the other is gone.
      seen.state()
          .flatMap(PairState::target)
          .filter(made -> reserved && planned.record().isEmpty())
          .ifPresent(gone -> gone(key.bridge(), key.hash(), gone));
      return reserved;
    }
    try {
      mapper.reserve(
          new PairRow(
              key.bridge(),
              key.hash(),
              Words.limited(key.text(), 1000),
              event.system(),
              event.collection(),
              event.record(),
              planned.system(),
              planned.collection(),
              planned.record().orElse(null),
              KeptFields.write(Map.of()),
              "{}",
              1,
              now,
              now,
              0,
              null,
              false,
              0,
              "",
              Words.limited(task.then() ? "" : task.member(), 1000),
              planned.then().orElse(null),
              false,
              often.times(),
              often.since().orElse(now)));
      return true;
    } catch (DuplicateKeyException anotherWasFirst) {
      return false;
    }
  }

  /** Writes down that nobody knows whether the task was made. */
  public void inDoubt(String bridge, String hash) {
    mapper.inDoubt(bridge, hash, clock.instant());
  }

  /** Writes down that the task exists, before anything else is asked of its system. */
  public void made(String bridge, String hash, String record, long traceSeq) {
    PairRow row = mapper.find(bridge, hash);
    if (row != null && row.targetRecord() == null) {
      mapper.keep(
          bridge,
          hash,
          record,
          row.agreed(),
          row.stored(),
          clock.instant(),
          0,
          row.marks(),
          traceSeq);
    }
  }

  /**
   * What was delivered is agreed. The pair is read now, as nobody else delivers for it meanwhile;
   * what is given writes it down, inside a change.
   *
   * @param eventSeq the order number of the event that it came of
   * @param traceSeq the trace that it was delivered for
   */
  public Runnable agreed(
      String bridge,
      String hash,
      TaskGateway.Delivered outcome,
      SequencedMap<String, Value> delivered,
      long eventSeq,
      long traceSeq) {
    PairRow row = required(bridge, hash);
    Map<String, Value> agreed = new LinkedHashMap<>(KeptFields.read(row.agreed()));
    agreed.putAll(delivered);
    agreed.values().removeIf(value -> value == Nothing.NOTHING);
    Map<String, String> stored = new TreeMap<>(KeptFields.readTexts(row.stored()));
    stored.putAll(outcome.storedTexts());
    byte[] values = KeptFields.write(agreed);
    String texts = KeptFields.writeTexts(stored);
    String marks = marks(outcome.marks(), row.marks());
    return () ->
        mapper.keep(
            bridge,
            hash,
            outcome.record(),
            values,
            texts,
            clock.instant(),
            eventSeq,
            marks,
            traceSeq);
  }

  /** The newest first; of earlier ones only some, since events of them may still be on the way. */
  private static String marks(List<String> fresh, String before) {
    return Stream.concat(fresh.reversed().stream(), before.lines())
        .filter(mark -> mark.length() <= LONGEST_MARK && mark.indexOf('\n') < 0)
        .distinct()
        .limit(MOST_MARKS)
        .collect(Collectors.joining("\n"));
  }

  /**
   * All that a task held that is not there any more, with what it was to be changed to.
   *
   * @param effect the idempotency key of making it anew
   */
  public record Anew(String effect, byte[] fields) {}

  /** How the task of a pair is made anew with what it held and a change of that. */
  public Anew anew(String bridge, String hash, SequencedMap<String, Value> change) {
    PairRow row = required(bridge, hash);
    SequencedMap<String, Value> fields = new LinkedHashMap<>(KeptFields.read(row.agreed()));
    fields.putAll(change);
    fields.values().removeIf(value -> value == Nothing.NOTHING);
    MatchKey key = new MatchKey(bridge, row.matchText(), hash);
    return new Anew(key.effect(PairState.making(row.anew() + 1)), KeptFields.write(fields));
  }

  /**
   * A pair's task is not there any more, and the next event makes another; inside a change.
   *
   * @return false if the pair has another task meanwhile
   */
  public boolean gone(String bridge, String hash, String record) {
    return mapper.gone(bridge, hash, record, KeptFields.write(Map.of()), clock.instant()) == 1;
  }

  /**
   * A pair's task is not there any more and is left so; inside a change.
   *
   * @return false if the pair has another task meanwhile
   */
  public boolean leave(String bridge, String hash, String record) {
    return mapper.leave(bridge, hash, record, clock.instant()) == 1;
  }

  /**
   * A pair's task was taken back, and nothing that comes later makes it again; inside a change.
   *
   * @return false if the pair has another task meanwhile
   */
  public boolean takenBack(String bridge, String hash, String record) {
    return mapper.takenBack(bridge, hash, record, clock.instant()) == 1;
  }

  /**
   * A pair's task and another are one thing, and the pair has the other from now on; inside a
   * change. What both sides agreed stays so: nothing is written over there until it changes.
   *
   * @return false if the pair has another task meanwhile
   */
  public boolean join(String bridge, String hash, String record, String other) {
    return mapper.join(bridge, hash, record, other, clock.instant()) == 1;
  }

  /**
   * A record's task is one that others made, before any was made of it; inside a change.
   *
   * @param part which of several tasks of its record; empty for one task
   * @param fields what both sides count as agreed
   * @throws DuplicateKeyException if there is a pair of this key
   */
  public void reserveJoined(
      MatchKey key, String part, EventRow event, CollectionRef at, String record, byte[] fields) {
    Instant now = clock.instant();
    mapper.reserve(
        new PairRow(
            key.bridge(),
            key.hash(),
            key.text(),
            event.systemId(),
            event.collectionId(),
            event.recordId(),
            at.system(),
            at.collection(),
            record,
            fields,
            "{}",
            1,
            now,
            now,
            event.seq(),
            null,
            false,
            0,
            "",
            part,
            null,
            false,
            0,
            null));
  }

  /** What tells an effect on a pair's task from all others. */
  public String effect(String bridge, String hash, String purpose) {
    return new MatchKey(bridge, required(bridge, hash).matchText(), hash).effect(purpose);
  }

  /** What both sides of a pair held when they last agreed; nothing while its task is not made. */
  public Map<String, Value> agreed(String bridge, String hash) {
    PairRow row = mapper.find(bridge, hash);
    return row == null || row.targetRecord() == null ? Map.of() : KeptFields.read(row.agreed());
  }

  /**
   * The tasks that a bridge made of a record and that nobody removed.
   *
   * @param part which of several; empty for all
   */
  List<PairMapper.TaskRow> tasksOf(String bridge, String record, Optional<String> part) {
    return mapper.tasksOf(bridge, record, part.orElse(null));
  }

  /** A task that a bridge made and that nobody removed, by its id. */
  List<PairMapper.TaskRow> task(String bridge, String id) {
    return mapper.task(bridge, id);
  }

  private PairRow required(String bridge, String hash) {
    PairRow row = mapper.find(bridge, hash);
    if (row == null) {
      throw new IllegalStateException("delivered for a pair that was never reserved: " + hash);
    }
    return row;
  }

  /** The task of a pair, if it was made. */
  public Optional<Side> target(String bridge, String hash) {
    return Optional.ofNullable(mapper.find(bridge, hash))
        .flatMap(
            row ->
                Optional.ofNullable(row.targetRecord())
                    .map(
                        record ->
                            new Side(
                                row.targetSystem(),
                                row.targetCollection(),
                                record,
                                KeptFields.readTexts(row.stored()))));
  }
}
