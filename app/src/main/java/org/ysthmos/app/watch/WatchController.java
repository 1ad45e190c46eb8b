package org.ysthmos.app.watch;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeVersion;

/** What Watch shows. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class WatchController {

  private static final Duration DAY = Duration.ofHours(24);
  private static final Duration SLOT = Duration.ofMinutes(30);
  private static final Duration RECENT = Duration.ofDays(30);
  private static final int SLOTS = (int) DAY.dividedBy(SLOT);

  /**
   * The whole place.
   *
   * @param now the time of the application
   * @param zone the zone in which times are shown
   * @param since where the bars start
   */
  record Watch(
      Instant now, String zone, Instant since, List<NeedsYou> needsYou, List<BridgeLine> bridges) {}

  /** Failures of one bridge with one kind that wait for a person. */
  record NeedsYou(
      String bridge, String bridgeName, String kind, int traces, Instant oldest, String text) {}

  /**
   * One live bridge.
   *
   * @param bars half hours, oldest first
   * @param heldSince null unless it is held: it decides and delivers nothing
   * @param worstMillis the longest from arrival to task in the last 24 hours
   */
  record BridgeLine(
      String id,
      String name,
      String source,
      String target,
      List<Bar> bars,
      Counts counts,
      int waiting,
      @Schema(nullable = true) @Nullable Instant waitingSince,
      @Schema(nullable = true) @Nullable Long worstMillis,
      @Schema(nullable = true) @Nullable Instant lastEvent,
      @Schema(nullable = true) @Nullable Instant heldSince,
      String heldBecause) {}

  /** One half hour. */
  record Bar(int made, int changed, int other, int failed) {
    int total() {
      return made + changed + other + failed;
    }
  }

  /** The last 24 hours by verdict. */
  record Counts(int made, int changed, int unchanged, int passedBy, int failed) {}

  private final WatchMapper mapper;
  private final Bridges bridges;
  private final AppClock clock;
  private final Settings settings;
  private final LiveFeed feed;

  WatchController(
      WatchMapper mapper, Bridges bridges, AppClock clock, Settings settings, LiveFeed feed) {
    this.mapper = mapper;
    this.bridges = bridges;
    this.clock = clock;
    this.settings = settings;
    this.feed = feed;
  }

  @GetMapping("/watch")
  Watch watch() {
    Instant now = clock.instant();
    long slot = SLOT.toSeconds();
    Instant end = Instant.ofEpochSecond((now.getEpochSecond() / slot + 1) * slot);
    Instant since = end.minus(DAY);
    Map<String, List<WatchMapper.SlotRow>> slots =
        mapper.slots(since, slot).stream()
            .collect(Collectors.groupingBy(WatchMapper.SlotRow::bridgeId));
    Map<String, WatchMapper.BacklogRow> backlog =
        mapper.backlog().stream().collect(Collectors.toMap(row -> row.bridgeId(), row -> row));
    Map<String, WatchMapper.LastRow> last =
        mapper.last(since).stream().collect(Collectors.toMap(row -> row.bridgeId(), row -> row));
    List<BridgeLine> lines =
        bridges.live().stream()
            .map(
                bridge -> {
                  String id = bridge.version().definition().id();
                  return line(
                      bridge, slots.getOrDefault(id, List.of()), backlog.get(id), last.get(id));
                })
            .toList();
    return new Watch(now, settings.zone().getId(), since, needsYou(now), lines);
  }

  private List<NeedsYou> needsYou(Instant now) {
    List<NeedsYou> list = new ArrayList<>();
    for (WatchMapper.FailedRow row : mapper.failed(now.minus(RECENT))) {
      list.add(
          new NeedsYou(
              row.bridgeId(),
              bridges
                  .live(row.bridgeId())
                  .map(live -> live.version().definition().name())
                  .orElse(row.bridgeId()),
              row.failureKind().replace('-', ' '),
              row.traces(),
              row.oldest(),
              row.reasons() > 1 ? "One of them: " + row.reason() : row.reason()));
    }
    return list;
  }

  private static BridgeLine line(
      Bridges.Live live,
      List<WatchMapper.SlotRow> slots,
      WatchMapper.@Nullable BacklogRow backlog,
      WatchMapper.@Nullable LastRow last) {
    BridgeVersion bridge = live.version();
    int[][] counted = new int[SLOTS][5];
    int[] all = new int[5];
    for (WatchMapper.SlotRow row : slots) {
      int kind = kind(row.verdict());
      all[kind] += row.traces();
      if (row.slot() >= 0 && row.slot() < SLOTS) {
        counted[row.slot()][kind] += row.traces();
      }
    }
    List<Bar> bars = new ArrayList<>(SLOTS);
    for (int[] c : counted) {
      bars.add(new Bar(c[0], c[1], c[2] + c[3], c[4]));
    }
    return new BridgeLine(
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.source().systemName(),
        bridge.target().systemName(),
        bars,
        new Counts(all[0], all[1], all[2], all[3], all[4]),
        backlog == null ? 0 : backlog.traces(),
        backlog == null ? null : backlog.oldest(),
        last == null ? null : last.worstMillis(),
        last == null ? null : last.lastEvent(),
        live.hold().map(Bridges.Hold::since).orElse(null),
        live.hold().map(Bridges.Hold::because).orElse(""));
  }

  private static int kind(String verdict) {
    return switch (verdict) {
      case "create" -> 0;
      case "update" -> 1;
      case "unchanged" -> 2;
      case "passed-by" -> 3;
      default -> 4;
    };
  }

  @Hidden
  @GetMapping(path = "/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  SseEmitter live() {
    return feed.listen();
  }
}
