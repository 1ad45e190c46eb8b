package org.ysthmos.app.register;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.register.RegisterMapper.CardRow;
import org.ysthmos.app.register.RegisterMapper.Judged;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.testplan.TestPlans;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.FailureMapper;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.guard.Measured;
import org.ysthmos.core.shape.CollectionShape;

/** All bridges that are at work, with whose they are and how they do. */
@Component
class Register {

  private static final Duration COUNTED = Duration.ofHours(24);

  /** Whether a bridge carries. */
  enum Condition {
    LIVE,
    HELD,
    /** It was live and cannot be used any more. */
    BROKEN
  }

  /**
   * A bridge.
   *
   * @param systems the names of all systems that it hears, writes to or asks
   * @param judged how sound people judge it; null while nobody said
   * @param because why it measures so
   * @param came how many events came to an end in the last 24 hours
   * @param lastEvent null if none was received so far
   * @param changedBy who put the live version to work
   * @param testDue the first day on which a test of it is due; null if none ever is
   * @param testsFailed how many of its tests failed the last time
   * @param tested whether any test of it is planned
   * @param revision of what people say of it; 0 while nobody said anything
   */
  record RegisterRow(
      String id,
      String name,
      String purpose,
      String owner,
      String standIn,
      String department,
      @Schema(nullable = true) @Nullable Judged judged,
      Measured.State measured,
      String because,
      Condition condition,
      String source,
      String target,
      List<String> systems,
      int came,
      int failed,
      int waiting,
      @Schema(nullable = true) @Nullable Instant lastEvent,
      Instant since,
      int version,
      String changedBy,
      boolean tested,
      @Schema(nullable = true) @Nullable LocalDate testDue,
      int testsFailed,
      int revision) {}

  /**
   * What a bridge says of itself.
   *
   * @param problem why it cannot be used; empty if it can
   * @param systems the names of all that it uses
   */
  private record Known(
      String id,
      String name,
      String purpose,
      Condition condition,
      Optional<String> problem,
      String source,
      String target,
      List<String> systems,
      Instant since,
      int version) {}

  /** What is counted of all bridges, read once. */
  private record Counted(
      Map<String, List<FailureMapper.CountRow>> ends,
      Map<String, TraceQueue.Backlog> backlog,
      Map<String, CardRow> cards,
      Map<String, String> madeBy,
      Map<String, TestPlans.Standing> tests) {}

  private final RegisterMapper mapper;
  private final Bridges bridges;
  private final Systems systems;
  private final FailureMapper failures;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final Rhythms rhythms;
  private final TestPlans tests;
  private final AppClock clock;

  Register(
      RegisterMapper mapper,
      Bridges bridges,
      Systems systems,
      FailureMapper failures,
      TraceMapper traces,
      TraceQueue queue,
      Rhythms rhythms,
      TestPlans tests,
      AppClock clock) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.systems = systems;
    this.failures = failures;
    this.traces = traces;
    this.queue = queue;
    this.rhythms = rhythms;
    this.tests = tests;
    this.clock = clock;
  }

  /** By name. */
  List<RegisterRow> rows() {
    Counted counted =
        new Counted(
            failures.counts(TraceEnds.slot(clock.instant().minus(COUNTED)) + 1).stream()
                .collect(Collectors.groupingBy(FailureMapper.CountRow::bridgeId)),
            byKey(queue.backlog(), TraceQueue.Backlog::queue),
            byKey(mapper.cards(), CardRow::bridgeId),
            mapper.made().stream()
                .collect(
                    Collectors.toMap(
                        RegisterMapper.MadeRow::bridgeId, RegisterMapper.MadeRow::madeBy)),
            tests.standing());
    return Stream.concat(
            bridges.live().stream().map(this::known),
            bridges.broken().stream().map(Register::known))
        .map(bridge -> row(bridge, counted))
        .sorted(
            Comparator.comparing((RegisterRow row) -> row.name().toLowerCase(Locale.ROOT))
                .thenComparing(RegisterRow::id))
        .toList();
  }

  private static <T> Map<String, T> byKey(List<T> rows, Function<T, String> key) {
    return rows.stream().collect(Collectors.toMap(key, Function.identity()));
  }

  private Known known(Bridges.Live live) {
    BridgeVersion bridge = live.version();
    return new Known(
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.definition().purpose(),
        live.hold().isPresent() ? Condition.HELD : Condition.LIVE,
        Optional.empty(),
        bridge.source().systemName(),
        bridge.target().systemName(),
        systems(bridge),
        live.since(),
        bridge.number());
  }

  /** Of what cannot be used only its document tells, which was read when it went live. */
  private static Known known(Bridges.Broken broken) {
    DocumentNode document = DocumentNode.parse(broken.document());
    return new Known(
        broken.id(),
        document.need("name").text(),
        document.get("purpose").map(DocumentNode::text).orElse(""),
        Condition.BROKEN,
        Optional.of(broken.problem()),
        "",
        "",
        List.of(),
        broken.since(),
        broken.number());
  }

  /** The names of the systems that it hears, writes to or asks. */
  private List<String> systems(BridgeVersion bridge) {
    Stream<CollectionShape> places =
        Stream.concat(
            Stream.of(bridge.source(), bridge.target()),
            bridge.then().stream().map(effect -> effect.target()));
    Stream<String> asked =
        bridge.asked().stream()
            .flatMap(id -> systems.find(id).stream())
            .map(system -> system.description().name());
    return Stream.concat(places.map(CollectionShape::systemName), asked)
        .distinct()
        .sorted()
        .toList();
  }

  private RegisterRow row(Known bridge, Counted counted) {
    String id = bridge.id();
    List<FailureMapper.CountRow> ends = counted.ends().getOrDefault(id, List.of());
    int came = ends.stream().mapToInt(FailureMapper.CountRow::traces).sum();
    int failed =
        ends.stream()
            .filter(row -> row.verdict() == Verdict.FAILED)
            .mapToInt(FailureMapper.CountRow::traces)
            .sum();
    Optional<TraceQueue.Backlog> backlog = Optional.ofNullable(counted.backlog().get(id));
    int waiting = backlog.map(TraceQueue.Backlog::traces).orElse(0);
    Measured measured =
        Measured.of(
            new Measured.Facts(
                bridge.problem(),
                bridge.condition() == Condition.HELD,
                came,
                failed,
                waiting,
                backlog
                    .map(TraceQueue.Backlog::oldest)
                    .map(oldest -> Duration.between(oldest, clock.instant())),
                rhythms.odd(id).map(Register::words)));
    Optional<TestPlans.Standing> tested = Optional.ofNullable(counted.tests().get(id));
    Optional<CardRow> card = Optional.ofNullable(counted.cards().get(id));
    return new RegisterRow(
        id,
        bridge.name(),
        bridge.purpose(),
        card.map(CardRow::owner).orElse(""),
        card.map(CardRow::standIn).orElse(""),
        card.map(CardRow::department).orElse(""),
        card.map(CardRow::judged).orElse(null),
        measured.state(),
        measured.because(),
        bridge.condition(),
        bridge.source(),
        bridge.target(),
        bridge.systems(),
        came,
        failed,
        waiting,
        traces.newestOf(id),
        bridge.since(),
        bridge.version(),
        counted.madeBy().getOrDefault(id, ""),
        tested.isPresent(),
        tested.map(TestPlans.Standing::dueOn).orElse(null),
        tested.map(TestPlans.Standing::failed).orElse(0),
        card.map(CardRow::revision).orElse(0));
  }

  private static String words(Rhythms.Odd odd) {
    return odd.silent()
        ? "nothing came where %.0f usually do".formatted(Math.ceil(odd.usual()))
        : "%d came where %.0f usually do".formatted(odd.came(), Math.ceil(odd.usual()));
  }
}
