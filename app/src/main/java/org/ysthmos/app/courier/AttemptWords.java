package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.RemoteCall.Purpose;

/** Tries of deliveries in the words of a story. */
final class AttemptWords {

  private AttemptWords() {}

  /**
   * The calls of a try.
   *
   * @param failure how the last of them failed; empty if it did not
   */
  static List<Line> lines(Attempt attempt, Optional<Failure> failure) {
    List<Line> lines = new ArrayList<>();
    List<RemoteCall> calls = attempt.calls();
    for (int i = 0; i < calls.size(); i++) {
      // Every call but the last was answered well, or the last would not have been made; but for
      // a task that is not there, which is then looked for.
      boolean last = i == calls.size() - 1;
      RemoteCall call = calls.get(i);
      if (isMissing(call)) {
        lines.add(missing(attempt.systemName(), call));
      } else if (last && failure.filter(one -> !GoneTasks.isGone(one)).isPresent()) {
        lines.add(failed(attempt.systemName(), call, failure.get()));
      } else {
        lines.add(done(attempt, call));
      }
    }
    return lines;
  }

  /** Whether it was told that the task is not there (RFC 9110 sections 15.5.5 and 15.5.11). */
  private static boolean isMissing(RemoteCall call) {
    return (call.status() == 404 || call.status() == 410)
        && (call.purpose() == Purpose.CHANGE
            || call.purpose() == Purpose.READ
            || call.purpose() == Purpose.READ_VERSION);
  }

  private static Line missing(String system, RemoteCall call) {
    return StoryWriter.line(
        call,
        Mark.FAILED,
        "%s, %s: the task is not there".formatted(system, call.purpose().words()),
        "Answered " + call.status());
  }

  private static Line done(Attempt attempt, RemoteCall call) {
    // A copy that could not be kept takes nothing from a letter that is sent.
    Mark mark = call.problem().isEmpty() ? Mark.DONE : Mark.FAILED;
    String answer = call.status() > 0 ? "Answered " + call.status() : call.problem();
    String did = did(call.purpose());
    // What comes after a task may be a record of any kind.
    String what = attempt.delivery().effectName() == null ? did : did.replace("task", "record");
    return StoryWriter.line(call, mark, what + " at " + attempt.systemName(), answer);
  }

  private static String did(Purpose purpose) {
    return switch (purpose) {
      case READ -> "Read the task";
      case POLL -> "Asked what changed";
      case FIND_BY_KEY -> "Looked for the task by its key";
      case CREATE -> "Made the task";
      case COMPLETE -> "Added the details";
      case CHANGE -> "Changed the task";
      case READ_VERSION -> "Read the task's version";
      case REMOVE -> "Took the task away";
      case SEND -> "Handed the letter in";
      case KEEP_COPY -> "Kept a copy of the letter";
      case READ_QUOTA -> "Read how full it is";
      case READ_NAMES -> "Read its names";
    };
  }

  private static Line failed(String system, RemoteCall call, Failure failure) {
    return StoryWriter.line(
        call,
        Mark.FAILED,
        "%s, %s: %s".formatted(system, call.purpose().words(), failure.kind().words()),
        failure.message());
  }

  static Line waits(Instant now, Duration pause, String text, String detail) {
    return new Line(now, pause.toNanos() / 1000, Mark.WAITING, text, detail, "", "", null);
  }

  static Line plain(Instant at, Mark mark, String text, String detail) {
    return new Line(at, 0, mark, text, detail, "", "", null);
  }
}
