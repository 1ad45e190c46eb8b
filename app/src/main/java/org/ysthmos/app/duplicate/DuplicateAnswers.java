package org.ysthmos.app.duplicate;

import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.Joining;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Resender;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.who.By;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.pair.MatchKey;

/** What a person says of possible duplicates. */
@Component
class DuplicateAnswers {

  private final DuplicateMapper mapper;
  private final TraceMapper traces;
  private final EventMapper events;
  private final Pairs pairs;
  private final Resender resender;
  private final Joining joining;
  private final Journal journal;
  private final AppClock clock;

  DuplicateAnswers(
      DuplicateMapper mapper,
      TraceMapper traces,
      EventMapper events,
      Pairs pairs,
      Resender resender,
      Joining joining,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.traces = traces;
    this.events = events;
    this.pairs = pairs;
    this.resender = resender;
    this.joining = joining;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * @throws ApiProblem if there is none of this number, or it was answered
   */
  private DuplicateRow open(long id) {
    DuplicateRow row = mapper.find(id);
    if (row == null) {
      throw ApiProblem.notFound("possible duplicate", String.valueOf(id));
    }
    if (row.state() != State.OPEN) {
      throw answered();
    }
    return row;
  }

  private static ApiProblem answered() {
    return new ApiProblem(
        HttpStatus.CONFLICT, "Answered already", "Somebody has said of these what they are.");
  }

  /** Both are different things, which is not asked again. */
  void different(long id, By by) {
    DuplicateRow row = open(id);
    settle(row, State.DIFFERENT, by, Optional.empty());
    if (row.waits()) {
      goOn(row, by);
    }
  }

  /**
   * Both are one: the task that was made last is taken back, unless somebody changed it, and its
   * pair has the other.
   */
  void same(long id, By by) {
    DuplicateRow row = open(id);
    TraceRow trace = traces.at(row.traceSeq());
    String record = row.otherRecord();
    if (trace == null || record == null) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Not known any more",
          "What made this task is not kept any more, so that it cannot be taken back from here.");
    }
    if (row.waits()) {
      joinUnmade(row, trace, record, by);
      return;
    }
    settle(
        row, State.SAME, by, joining.join(trace.id(), row.bridgeId(), row.matchHash(), record, by));
  }

  /** The task was never made: its record goes on with the other, to which nothing is written. */
  private void joinUnmade(DuplicateRow row, TraceRow trace, String record, By by) {
    EventRow event =
        Objects.requireNonNull(events.find(trace.eventSeq()), "a trace without its event");
    journal.run(
        () -> {
          settleNow(row, State.SAME, by, Optional.empty());
          mapper.ofPair(row.bridgeId(), row.matchHash()).stream()
              .filter(one -> one.state() == State.OPEN)
              .forEach(one -> mapper.drop(one.id()));
          pairs.reserveJoined(
              new MatchKey(row.bridgeId(), String.valueOf(row.matchText()), row.matchHash()),
              String.valueOf(row.part()),
              event,
              new CollectionRef(row.systemId(), row.collectionId()),
              record,
              Objects.requireNonNull(row.fields(), "waits with nothing"));
        });
    goOn(row, by);
  }

  /** The event is sent again, unless something else of it still waits for an answer. */
  private void goOn(DuplicateRow row, By by) {
    TraceRow trace = traces.at(row.traceSeq());
    boolean others =
        mapper.ofTrace(row.traceSeq()).stream()
            .anyMatch(one -> one.state() == State.OPEN && one.waits());
    if (trace != null && trace.resentAs() == null && !others) {
      String unused = resender.resend(trace.id(), by);
    }
  }

  private void settle(DuplicateRow row, State state, By by, Optional<Long> recall) {
    journal.run(() -> settleNow(row, state, by, recall));
  }

  private void settleNow(DuplicateRow row, State state, By by, Optional<Long> recall) {
    if (mapper.answer(row.id(), state, clock.instant(), by.name(), recall.orElse(null)) == 0) {
      throw answered();
    }
  }
}
