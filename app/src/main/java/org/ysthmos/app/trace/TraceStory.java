package org.ysthmos.app.trace;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a trace tells: what happened in order, and where each value came from. Kept as it is shown,
 * in parts that are put together when it is read.
 *
 * @param lines in the order in which they happened
 * @param fields each target field's way from its source; empty until decided
 * @param tests the tests of the condition that were made
 * @param stored in a part: what the target said it keeps of fields that were told of before
 */
public record TraceStory(
    List<Line> lines,
    List<Field> fields,
    List<Test> tests,
    List<Warning> warnings,
    @Schema(hidden = true) @JsonInclude(JsonInclude.Include.NON_EMPTY) Map<String, String> stored) {

  public TraceStory {
    // A part that was kept says nothing of what it does not tell.
    lines = lines == null ? List.of() : List.copyOf(lines);
    fields = fields == null ? List.of() : List.copyOf(fields);
    tests = tests == null ? List.of() : List.copyOf(tests);
    warnings = warnings == null ? List.of() : List.copyOf(warnings);
    stored = stored == null ? Map.of() : Map.copyOf(stored);
  }

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
      Map<String, String> names) {

    Field stored(Map<String, String> kept) {
      return new Field(
          field, name, sources, start, steps, result, kept.getOrDefault(field, stored), names);
    }
  }

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

  public static final TraceStory EMPTY =
      new TraceStory(List.of(), List.of(), List.of(), List.of(), Map.of());

  public TraceStory with(Line line) {
    return withAll(List.of(line));
  }

  public TraceStory withAll(List<Line> told) {
    List<Line> more = new ArrayList<>(lines);
    more.addAll(told);
    return new TraceStory(more, fields, tests, warnings, stored);
  }

  /** The story with what the target says it stored, field by field. */
  public TraceStory withStored(Map<String, String> kept) {
    return new TraceStory(lines, fields, tests, warnings, kept);
  }

  /**
   * The story as it goes on: its lines after these, and how a later decision came about in place of
   * an earlier one's.
   */
  public TraceStory and(TraceStory later) {
    List<Line> all = new ArrayList<>(lines);
    all.addAll(later.lines());
    boolean decides = !later.fields().isEmpty() || !later.tests().isEmpty();
    return new TraceStory(
        all,
        (decides ? later : this).fields().stream().map(f -> f.stored(later.stored())).toList(),
        decides ? later.tests() : tests,
        decides ? later.warnings() : warnings,
        Map.of());
  }
}
