package org.ysthmos.app.incident;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.core.incident.IncidentKey;
import org.ysthmos.core.incident.IncidentKey.Family;
import org.ysthmos.core.load.CircuitBreaker;

/** Incidents as the screens show them. */
@Component
public class IncidentViews {

  /** A bridge that an incident concerns. */
  public record ConcernedBridge(String id, String name) {}

  /**
   * An incident in a list.
   *
   * @param headline what most likely causes it, without a full stop
   * @param sure how sure that is, in words
   * @param because what speaks most for it
   * @param waiting how many events or deliveries wait because of it
   * @param sendable how many of them can be sent again together
   * @param goesOn whether what waits goes on by itself once it is over
   * @param heldBridge the bridge that holds itself; empty if none does
   * @param nextProbe when a system that does not answer is called again; null otherwise
   */
  public record IncidentLine(
      long id,
      String headline,
      String sure,
      String because,
      IncidentState state,
      Instant openedAt,
      int cameBack,
      int waiting,
      int sendable,
      boolean goesOn,
      String heldBridge,
      List<ConcernedBridge> bridges,
      @Schema(nullable = true) @Nullable Instant mendingSince,
      @Schema(nullable = true) @Nullable Instant nextProbe,
      @Schema(nullable = true) @Nullable Instant closedAt) {}

  /**
   * How an incident concerns a bridge.
   *
   * @param failed how many of its events failed so since the incident opened
   * @param waiting how many of those wait for a person; all that wait where it holds itself
   */
  record BridgeShare(String id, String name, long failed, int waiting) {}

  /** What happened about an incident. */
  record HappenedLine(Instant at, String by, String text) {}

  /**
   * An incident with its story.
   *
   * @param oneByOne how many of what waits must be looked at one by one
   * @param findings possible causes, the likeliest first
   * @param look the one look that would tell the first two apart; empty if they are told apart
   * @param groups what failed
   */
  record IncidentView(
      IncidentLine incident,
      int oneByOne,
      List<Found.FindingView> findings,
      String look,
      List<Found.GroupView> groups,
      List<BridgeShare> shares,
      List<HappenedLine> lines) {}

  private static final int MOST_LOOKED_THROUGH = 300;

  private final IncidentBook book;
  private final SymptomMapper mapper;
  private final EvidenceGathering evidence;
  private final Systems systems;
  private final TraceQueue traces;

  IncidentViews(
      IncidentBook book,
      SymptomMapper mapper,
      EvidenceGathering evidence,
      Systems systems,
      TraceQueue traces) {
    this.book = book;
    this.mapper = mapper;
    this.evidence = evidence;
    this.systems = systems;
    this.traces = traces;
  }

  /**
   * Incidents that are not closed.
   *
   * @param lines those with most waiting, so many as are wanted
   * @param inAll how many there are
   */
  public record Open(List<IncidentLine> lines, int inAll) {}

  /** Those that are not closed, those with most waiting first. */
  public Open open(int most) {
    Map<String, Integer> failed = new LinkedHashMap<>();
    mapper.waiting().forEach(row -> failed.merge(row.cause(), row.traces(), Integer::sum));
    List<IncidentRow> rows = book.open();
    List<IncidentLine> lines =
        rows.stream()
            .sorted(
                Comparator.comparingInt(IncidentRow::waiting)
                    .reversed()
                    .thenComparingLong(IncidentRow::id))
            .limit(most)
            .map(row -> line(row, failed.getOrDefault(row.cause(), 0)))
            .toList();
    return new Open(lines, rows.size());
  }

  /**
   * Some that closed.
   *
   * @param next before which place in the order of closing more of them stand; null if there are
   *     none
   */
  record Closed(List<IncidentLine> lines, @Nullable Long next) {}

  /** Those that closed, the last first. */
  Closed closed(long before, int limit) {
    List<IncidentRow> rows = book.closed(before, limit);
    return new Closed(
        rows.stream().map(row -> line(row, 0)).toList(),
        rows.size() == limit ? rows.getLast().closing() : null);
  }

  /**
   * Those that closed and were open at some time of a span, the last first, among the last {@value
   * #MOST_LOOKED_THROUGH} that closed.
   */
  public List<IncidentLine> closedOf(Instant from, Instant until) {
    return book.closed(Long.MAX_VALUE, MOST_LOOKED_THROUGH).stream()
        .filter(row -> !row.openedAt().isAfter(until))
        .filter(row -> row.closedAt() != null && !row.closedAt().isBefore(from))
        .map(row -> line(row, 0))
        .toList();
  }

  IncidentView view(long id) {
    IncidentRow row = book.get(id);
    Map<String, Integer> waiting = new LinkedHashMap<>();
    mapper.waitingOf(row.cause()).forEach(one -> waiting.put(one.queueId(), one.traces()));
    int failed = waiting.values().stream().mapToInt(Integer::intValue).sum();
    Found found = book.found(row);
    return new IncidentView(
        line(row, failed),
        mapper.oneByOne(row.cause()),
        found.findings(),
        found.look(),
        found.groups(),
        shares(row, waiting),
        book.lines(id).stream()
            .map(one -> new HappenedLine(one.at(), one.byWhom(), one.text()))
            .toList());
  }

  /** What waits because of an incident, and where, in words; empty if nothing does. */
  String waits(IncidentRow row) {
    if (row.waiting() == 0) {
      return "";
    }
    List<String> names = IncidentBook.bridges(row).stream().map(evidence::name).toList();
    String events = row.waiting() == 1 ? "1 event waits" : row.waiting() + " events wait";
    return names.isEmpty() ? events : events + ", at " + String.join(", ", names);
  }

  private List<BridgeShare> shares(IncidentRow row, Map<String, Integer> waiting) {
    Map<String, Long> failed = new LinkedHashMap<>();
    IncidentBook.bridges(row).forEach(id -> failed.put(id, 0L));
    mapper
        .failed(row.cause(), TraceEnds.slot(row.openedAt()))
        .forEach(one -> failed.put(one.bridgeId(), one.failures()));
    boolean held = IncidentKey.parse(row.cause()).family() == Family.HELD;
    List<BridgeShare> shares = new ArrayList<>();
    failed.forEach(
        (id, count) -> {
          int wait = held ? traces.waiting(id) : waiting.getOrDefault(id, 0);
          shares.add(new BridgeShare(id, evidence.name(id), count, wait));
        });
    return shares;
  }

  private IncidentLine line(IncidentRow row, int failed) {
    IncidentKey key = IncidentKey.parse(row.cause());
    Found.FindingView first = book.found(row).findings().getFirst();
    int oneByOne = failed > 0 ? mapper.oneByOne(row.cause()) : 0;
    return new IncidentLine(
        row.id(),
        row.headline(),
        first.sure(),
        first.speaksFor().isEmpty() ? "" : first.speaksFor().getFirst(),
        row.state(),
        row.openedAt(),
        row.cameBack(),
        row.waiting(),
        failed - oneByOne,
        row.waiting() > failed,
        key.family() == Family.HELD ? key.of() : "",
        IncidentBook.bridges(row).stream()
            .map(id -> new ConcernedBridge(id, evidence.name(id)))
            .toList(),
        row.mendingSince(),
        nextProbe(key),
        row.closedAt());
  }

  private @Nullable Instant nextProbe(IncidentKey key) {
    return key.family() == Family.AWAY
        ? systems
            .find(key.of())
            .flatMap(system -> system.breaker().outage())
            .map(CircuitBreaker.Outage::nextProbe)
            .orElse(null)
        : null;
  }
}
