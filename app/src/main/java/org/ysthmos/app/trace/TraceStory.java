package org.ysthmos.app.trace;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a trace tells: what happened in order, and where each value came from. Kept as it is shown.
 *
 * @param lines in the order in which they happened
 * @param fields each target field's way from its source; empty until decided
 * @param tests the tests of the condition that were made
 */
public record TraceStory(
    List<Line> lines, List<Field> fields, List<Test> tests, List<Warning> warnings) {

  /** How a line of the story went. */
  public enum Mark {
    DONE,
    FAILED,
    WAITING
  }

  /**
   * One thing that happened.
   *
   * @param micros how long it took, in microseconds
   * @param went what went in, as JSON text; empty if nothing worth showing
   * @param came what came out, as JSON text
   * @param call the call to an outside system, if it was one
   */
  public record Line(
      Instant at,
      long micros,
      Mark mark,
      String text,
      String detail,
      String went,
      String came,
      @Schema(nullable = true) @Nullable Call call) {}

  /**
   * A call as sent and answered, secrets masked.
   *
   * @param status 0 if there was no answer
   */
  public record Call(
      List<String> request,
      String requestBody,
      int status,
      List<String> response,
      String responseBody,
      String problem) {}

  /**
   * The way of one target field.
   *
   * @param stored the value as the target says it keeps it; empty until it did
   * @param names what people call the keys that the value may hold
   */
  public record Field(
      String field,
      String name,
      List<Source> sources,
      Value start,
      List<Step> steps,
      Value result,
      String stored,
      Map<String, String> names) {}

  /** A source field and what it held. */
  public record Source(String address, String name, String where, Value value) {}

  /** A step in words and the value after it. */
  public record Step(String sentence, Value value) {}

  /**
   * A value, or why there is none.
   *
   * @param type the type's word; empty for a problem
   * @param problem what is wrong; empty if nothing is
   */
  public record Value(String text, String type, String problem) {}

  /** One test of the condition. */
  public record Test(String sentence, String value, boolean met) {}

  /** Something to look at, though the task could be made. */
  public record Warning(String field, String message) {}

  public static final TraceStory EMPTY = new TraceStory(List.of(), List.of(), List.of(), List.of());

  public TraceStory with(Line line) {
    List<Line> more = new ArrayList<>(lines);
    more.add(line);
    return new TraceStory(more, fields, tests, warnings);
  }

  /** The story with what the target says it stored, field by field. */
  public TraceStory withStored(Map<String, String> stored) {
    List<Field> told =
        fields.stream()
            .map(
                f ->
                    new Field(
                        f.field(),
                        f.name(),
                        f.sources(),
                        f.start(),
                        f.steps(),
                        f.result(),
                        stored.getOrDefault(f.field(), f.stored()),
                        f.names()))
            .toList();
    return new TraceStory(lines, told, tests, warnings);
  }
}
