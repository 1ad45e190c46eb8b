package org.ysthmos.bench;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.SystemReader;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;

/** {@code decide} on the demo's first bridge against a hand-written method that does the same. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 8, time = 1)
@Fork(2)
public class DecideBench {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final BridgeVersion bridge;
  private final Event event;
  private final JsonNode report;
  private final World world;
  private final HandWritten handWritten;

  /** Reads the demo's documents from the folder {@code demo} of the working directory. */
  public DecideBench() {
    Path demo = Path.of(System.getProperty("demo", "demo"));
    Map<String, SystemDescription> systems =
        Stream.of("visitor-desk", "grounds-board")
            .map(name -> SystemReader.read(read(demo.resolve("systems/" + name + ".yaml"))))
            .collect(Collectors.toMap(SystemDescription::id, system -> system));
    bridge =
        BridgeCompiler.compile(
            read(demo.resolve("bridges/hazard-to-grounds.yaml")),
            1,
            (system, collection) ->
                Optional.ofNullable(systems.get(system))
                    .map(s -> s.collections().get(collection))
                    .map(SystemDescription.Collection::shape));
    report =
        json(
            """
            {"id":"vd-20418","sentAt":"2026-11-24T13:58:07Z","answers":{
              "place":"Fern gully, lower boardwalk",
              "problem":"Loose plank, nail sticking out near the second bench",
              "seenOn":"23 November 2026","danger":"8","mail":"visitor.418@mail.example",
              "photo":"https://photos.example/h/418"}}
            """);
    event =
        new Event(
            "msg_1",
            "visitor-desk",
            "hazard-reports",
            "created",
            "vd-20418",
            Instant.parse("2026-11-24T13:58:07Z"),
            json("{\"type\":\"submission.created\",\"submission\":\"vd-20418\"}"));
    world = new Fixed(new World.Found(List.of(report)));
    handWritten = new HandWritten();
  }

  private static JsonNode json(String text) {
    try {
      return JSON.readTree(text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static String read(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Both sides must come to the same task, or the comparison means nothing. */
  @Setup
  public void check() {
    Decision decision = plain();
    HandWritten.Task task = handWritten();
    if (!shown(decision, "title").equals(task.title())
        || !shown(decision, "due").equals(task.due().toString())
        || !shown(decision, "priority").equals(Integer.toString(task.priority()))
        || !shown(decision, "notes").equals(task.notes())
        || !shown(decision, "checklist").equals(String.join(", ", task.checklist()))) {
      throw new IllegalStateException("decide and the hand-written method differ: " + task);
    }
  }

  private static String shown(Decision decision, String field) {
    return Objects.requireNonNull(decision.task().get(field), field).display();
  }

  /** What the live engine needs to deliver. */
  @Benchmark
  public Decision plain() {
    return Decider.decide(bridge, event, world, org.ysthmos.core.decide.Mode.PLAIN);
  }

  /** With the value after every step. */
  @Benchmark
  public Decision explained() {
    return Decider.decide(bridge, event, world, org.ysthmos.core.decide.Mode.EXPLAINED);
  }

  /** The yardstick. */
  @Benchmark
  public HandWritten.Task handWritten() {
    return handWritten.decide(event.data(), report);
  }

  /** A world that answers at once and knows no pair. */
  private record Fixed(World.LookupAnswer answer) implements World {
    @Override
    public LookupAnswer lookUp(
        String system, String collection, SequencedMap<String, String> keys) {
      return answer;
    }

    @Override
    public Optional<PairState> pair(String bridge, MatchKey key) {
      return Optional.empty();
    }
  }
}
