package org.ysthmos.app.dispatch;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.pair.MatchKey;

/** What one decision asks of the outside, asked for real, and taken down for its story. */
final class EngineWorld implements World {

  private final Systems systems;
  private final Pairs pairs;
  private final List<TraceStory.Line> lines = new ArrayList<>();
  private final List<JsonNode> records = new ArrayList<>();
  private Pairs.Seen seen = Pairs.Seen.NONE;

  EngineWorld(Systems systems, Pairs pairs) {
    this.systems = systems;
    this.pairs = pairs;
  }

  @Override
  public LookupAnswer lookUp(String system, String collection, SequencedMap<String, String> keys) {
    Optional<Systems.Connected> connected = systems.find(system);
    if (connected.isEmpty()) {
      return new Unanswered(
          Failure.of(FailureKind.NOT_FOUND, "There is no system “" + system + "”"));
    }
    List<RemoteCall> calls = new ArrayList<>();
    LookupAnswer answer = connected.get().gateway().find(collection, keys, calls::add);
    String at = connected.get().description().name();
    String by = String.join(", ", keys.sequencedValues());
    for (RemoteCall call : calls) {
      lines.add(line(call, answer, at, by));
    }
    if (answer instanceof Found found) {
      records.addAll(found.records());
    }
    return answer;
  }

  private static TraceStory.Line line(
      RemoteCall call, LookupAnswer answer, String system, String by) {
    return switch (answer) {
      case Found found ->
          StoryWriter.line(
              call,
              found.records().isEmpty() ? TraceStory.Mark.FAILED : TraceStory.Mark.DONE,
              "Looked up %s at %s".formatted(by, system),
              found.records().size() + " found");
      case Unanswered unanswered ->
          StoryWriter.line(
              call,
              TraceStory.Mark.FAILED,
              "Looked up %s at %s: %s".formatted(by, system, unanswered.failure().kind().words()),
              unanswered.failure().message());
    };
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    seen = pairs.find(bridge, key.hash());
    return seen.state();
  }

  List<TraceStory.Line> lines() {
    return lines;
  }

  /** The records that were found, for finding the trace by any value seen. */
  List<JsonNode> records() {
    return records;
  }

  /** The pair as the decision saw it. */
  Pairs.Seen seen() {
    return seen;
  }
}
