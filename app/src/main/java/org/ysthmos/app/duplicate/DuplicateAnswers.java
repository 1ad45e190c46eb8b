package org.ysthmos.app.duplicate;

import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.Joining;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.who.By;

/** What a person says of possible duplicates. */
@Component
class DuplicateAnswers {

  private final DuplicateMapper mapper;
  private final TraceMapper traces;
  private final Joining joining;
  private final Journal journal;
  private final AppClock clock;

  DuplicateAnswers(
      DuplicateMapper mapper,
      TraceMapper traces,
      Joining joining,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.traces = traces;
    this.joining = joining;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * @throws ApiProblem if there is none of this number, or it was answered
   */
  DuplicateRow open(long id) {
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
    settle(open(id), State.DIFFERENT, by, Optional.empty());
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
    settle(
        row,
        State.SAME,
        by,
        joining.join(trace.id(), row.bridgeId(), row.matchHash(), record, by));
  }

  private void settle(DuplicateRow row, State state, By by, Optional<Long> recall) {
    journal.run(
        () -> {
          if (mapper.answer(row.id(), state, clock.instant(), by.name(), recall.orElse(null))
              == 0) {
            throw answered();
          }
        });
  }
}
