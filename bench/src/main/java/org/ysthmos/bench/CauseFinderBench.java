package org.ysthmos.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.CauseFinder;
import org.ysthmos.core.incident.Conclusion;
import org.ysthmos.core.incident.Evidence;
import org.ysthmos.core.incident.IncidentKey;

/**
 * The cause of 10,000 failures that say three different things, each given alone: the engine groups
 * them first, so that this is the worst case. The yardstick goes over the same failures once and
 * counts them by kind.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class CauseFinderBench {

  private static final int FAILURES = 10_000;
  private static final Instant BEGIN = Instant.parse("2026-11-02T08:00:00Z");
  private static final List<FailureKind> KINDS =
      List.of(FailureKind.RATE_LIMITED, FailureKind.QUOTA_FULL, FailureKind.NOT_ALLOWED);

  private final List<Evidence.Group> failures = new ArrayList<>();

  public CauseFinderBench() {
    for (int i = 0; i < FAILURES; i++) {
      Instant at = BEGIN.plus(Duration.ofSeconds((i * 7919L) % FAILURES));
      failures.add(
          new Evidence.Group(
              KINDS.get(i * KINDS.size() / FAILURES),
              Optional.of(EffectKind.CREATE),
              "tasks",
              "",
              "403",
              "It said no.",
              1,
              1,
              at,
              at,
              Set.of("Bridge " + i % 20)));
    }
  }

  @Benchmark
  public Conclusion cause() {
    return CauseFinder.conclude(
        new Evidence(
            new IncidentKey(IncidentKey.Family.REFUSED, "board"),
            BEGIN.plus(Duration.ofDays(1)),
            "Board",
            failures,
            FAILURES,
            new Evidence.Place(
                Optional.of(new Evidence.Quota("open tasks", 4_998, 5_000, BEGIN)),
                Optional.empty(),
                Evidence.SignIn.TAKEN,
                Optional.empty(),
                List.of(),
                3,
                List.of(),
                List.of(),
                Optional.empty()),
            List.of(),
            Optional.empty(),
            Optional.empty(),
            List.of()));
  }

  @Benchmark
  public Map<FailureKind, Integer> counted() {
    Map<FailureKind, Integer> counts = new EnumMap<>(FailureKind.class);
    failures.forEach(one -> counts.merge(one.kind(), one.count(), Integer::sum));
    return counts;
  }
}
