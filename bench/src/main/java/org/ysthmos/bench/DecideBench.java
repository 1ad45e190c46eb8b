package org.ysthmos.bench;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
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
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.trial.TrialWorld;

/**
 * {@code decide} with twelve fields over an event of 2 KB, against a hand-written method and a
 * general-purpose expression library that do the same.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 5, time = 1)
@Measurement(iterations = 8, time = 1)
@Fork(2)
public class DecideBench {

  private final BridgeVersion bridge;
  private final Event event;
  private final World world;
  private final HandWritten handWritten;
  private final WithExpressions withExpressions;
  private final Map<?, ?> ticket;

  public DecideBench() {
    Catalog catalog = TicketMapping.catalog();
    bridge = BridgeCompiler.compile(TicketMapping.BRIDGE, 1, catalog);
    JsonNode data = TicketMapping.event();
    event =
        new Event(
            "msg_1",
            "climate-desk",
            "tickets",
            "opened",
            "CD-20418",
            Instant.parse("2026-11-24T13:58:07Z"),
            data);
    world = new TrialWorld(catalog, TicketMapping.tables());
    handWritten = new HandWritten();
    withExpressions = new WithExpressions();
    ticket = new ObjectMapper().convertValue(data, Map.class);
  }

  /** All sides must come to the same task, or the comparison means nothing. */
  @Setup
  public void check() {
    Decision decision = plain();
    HandWritten.Job job = handWritten();
    Map<?, ?> expressed = withExpressions();
    require(decision, "title", job.title(), expressed);
    require(decision, "summary", job.summary(), expressed);
    require(decision, "fault", job.fault(), expressed);
    require(decision, "due", job.due().toString(), expressed);
    require(decision, "visit", job.visit().toString(), expressed);
    require(decision, "priority", Integer.toString(job.priority()), expressed);
    require(decision, "owner", job.owner(), expressed);
    require(decision, "status", job.status(), expressed);
    require(decision, "labels", String.join(", ", job.labels()), expressed);
    require(decision, "link", job.link().toString(), expressed);
    require(decision, "readings", String.join(", ", job.readings()), expressed);
    require(decision, "notes", job.notes(), expressed);
  }

  private static void require(Decision decision, String field, String byHand, Map<?, ?> expressed) {
    String decided = Objects.requireNonNull(decision.task().get(field), field).display();
    Object other = expressed.get(field);
    String text =
        other instanceof List<?> list
            ? String.join(", ", list.stream().map(String::valueOf).toList())
            : String.valueOf(other);
    if (!decided.equals(byHand) || !decided.equals(text)) {
      throw new IllegalStateException(
          "they differ in %s: “%s”, “%s”, “%s”".formatted(field, decided, byHand, text));
    }
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
  public HandWritten.Job handWritten() {
    return handWritten.decide(event.data());
  }

  /** The other yardstick. */
  @Benchmark
  public Map<?, ?> withExpressions() {
    return withExpressions.decide(ticket);
  }
}
