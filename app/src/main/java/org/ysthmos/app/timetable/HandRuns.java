package org.ysthmos.app.timetable;

import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.event.Event;

/** Runs a time by hand, whether it is past or to come. */
@Component
public class HandRuns {

  /** The trace of a time that was run by hand. */
  public record RunView(String trace) {}

  private final TimetableMapper mapper;
  private final IntakeWriter intake;
  private final AppClock clock;

  HandRuns(TimetableMapper mapper, IntakeWriter intake, AppClock clock) {
    this.mapper = mapper;
    this.intake = intake;
    this.clock = clock;
  }

  /**
   * @param bridge its id
   * @throws ApiProblem if it came already
   */
  public RunView run(String bridge, Event event) {
    IntakeWriter.Kept kept = intake.keep(TimeEvents.row(event, clock.instant())).join();
    Optional<String> trace =
        Optional.ofNullable(mapper.traceOf(Long.parseLong(kept.eventId()), bridge));
    if (kept.known()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "It came already",
          trace
              .map(
                  "That time came already, as trace %s; send that again to have it once more."
                      ::formatted)
              .orElse("That time came already, so long ago that its trace is not kept any more."));
    }
    return new RunView(trace.orElse(""));
  }
}
