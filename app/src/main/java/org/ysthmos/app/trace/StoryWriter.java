package org.ysthmos.app.trace;

import java.util.List;
import java.util.Map;
import org.ysthmos.app.trace.TraceStory.Field;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.TraceStory.Source;
import org.ysthmos.app.trace.TraceStory.Step;
import org.ysthmos.app.trace.TraceStory.Value;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Explanation;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Warned;

/** Puts what the core and the adapters say into the words of a story. */
public final class StoryWriter {

  private StoryWriter() {}

  /** How a decision came about, with what was told before and at it. */
  public static TraceStory explained(List<Line> lines, Decision decision) {
    Explanation explanation = decision.explanation();
    return new TraceStory(
        lines,
        explanation.fields().stream().map(StoryWriter::field).toList(),
        explanation.tests().stream()
            .map(test -> new TraceStory.Test(test.sentence(), test.value(), test.met()))
            .toList(),
        decision.warnings().stream()
            .map(warning -> new TraceStory.Warning(warning.field(), warning.message()))
            .toList(),
        Map.of());
  }

  private static Field field(Explanation.Lineage lineage) {
    String member = lineage.member();
    return new Field(
        member.isEmpty() ? lineage.target().key() : member + "/" + lineage.target().key(),
        member.isEmpty() ? lineage.target().name() : lineage.target().name() + " (" + member + ")",
        lineage.sources().stream()
            .map(s -> new Source(s.address(), s.name(), s.where(), value(s.value())))
            .toList(),
        value(lineage.start()),
        lineage.steps().stream().map(s -> new Step(s.sentence(), value(s.value()))).toList(),
        value(lineage.result()),
        "",
        lineage.target().names());
  }

  private static Value value(Computed computed) {
    return switch (computed) {
      case org.ysthmos.core.value.Value value ->
          new Value(Made.shown(value.display()), value.type().toString(), "");
      case Warned warned -> value(warned.value());
      case Problem problem -> new Value(problem.found(), "", problem.message());
    };
  }

  public static Line line(RemoteCall call, Mark mark, String text, String detail) {
    return new Line(
        call.start(),
        call.took().toNanos() / 1000,
        mark,
        text,
        detail,
        "",
        "",
        new TraceStory.Call(
            call.request(),
            call.requestBody(),
            call.status(),
            List.copyOf(call.response()),
            call.responseBody(),
            call.problem()));
  }
}
