package org.ysthmos.app.recall;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.recall.RecallMapper.CountRow;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.recall.RecallMapper.RecallRow;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.recall.RecallWay;

/** Recalls as the screens show them. */
@Component
class RecallViews {

  /** A bridge whose work is taken back. */
  record OfBridge(String id, String name) {}

  /**
   * A recall.
   *
   * @param trace the only trace that is meant; empty for all of the span
   * @param counts how many records stand how
   * @param seconds how long what is left takes at least by the limits of its systems
   * @param secondsUnlooked the same if nothing is looked at before it goes
   * @param slowest the system that takes so long; empty if none has a limit
   * @param limitCalls how many calls that one answers in {@code limitSeconds}; null if none has one
   * @param looksAhead whether each record is looked at before a person begins
   * @param problem why it stopped by itself; empty if it did not
   */
  record RecallView(
      long id,
      RecallState state,
      List<OfBridge> bridges,
      @Schema(nullable = true) @Nullable Integer version,
      String trace,
      @Schema(nullable = true) @Nullable Long incident,
      Instant from,
      Instant until,
      String askedBy,
      Instant listedAt,
      @Schema(nullable = true) @Nullable Instant begunAt,
      @Schema(nullable = true) @Nullable Instant endedAt,
      RecallCounts counts,
      long seconds,
      long secondsUnlooked,
      String slowest,
      @Schema(nullable = true) @Nullable Integer limitCalls,
      @Schema(nullable = true) @Nullable Long limitSeconds,
      boolean looksAhead,
      String problem) {}

  /**
   * A record of a recall.
   *
   * @param delivery by which it is chosen
   * @param where the collection and its system
   * @param page where a person sees it; empty if that is not known
   * @param changes how many events changed it after it was made, or at all
   * @param looked what a look at it came to; null while nobody looked
   * @param words why it is as it is; may be empty
   * @param puts what its fields are to hold again, where it was there before
   */
  record ItemView(
      long delivery,
      String title,
      String record,
      String where,
      String page,
      String trace,
      String bridge,
      Instant madeAt,
      int changes,
      RecallWay way,
      ItemState state,
      @Schema(nullable = true) @Nullable Looked looked,
      boolean chosen,
      String words,
      List<HeldBefore> puts) {}

  /** What a field is to hold again, as people read it. */
  record HeldBefore(String name, String value) {}

  /**
   * Records of a recall, the last made first.
   *
   * @param next where more of them begin; null if there are none
   */
  record Items(List<ItemView> items, @Schema(nullable = true) @Nullable Long next) {}

  private final RecallMapper mapper;
  private final RecallLists lists;
  private final Bridges bridges;
  private final Systems systems;
  private final AppClock clock;

  RecallViews(
      RecallMapper mapper, RecallLists lists, Bridges bridges, Systems systems, AppClock clock) {
    this.mapper = mapper;
    this.lists = lists;
    this.bridges = bridges;
    this.systems = systems;
    this.clock = clock;
  }

  RecallView view(RecallRow row) {
    List<CountRow> rows = mapper.counts(row.id());
    RecallCounts counts = RecallCounts.of(rows);
    Optional<Slowest> looked = slowest(rows, true);
    Optional<Slowest> unlooked = slowest(rows, false);
    return new RecallView(
        row.id(),
        row.state(),
        row.of().stream().map(id -> new OfBridge(id, bridges.nameOf(id))).toList(),
        row.version(),
        Optional.ofNullable(row.traceId()).orElse(""),
        row.incidentId(),
        row.fromAt(),
        row.untilAt(),
        row.askedBy(),
        row.listedAt(),
        row.begunAt(),
        row.endedAt(),
        counts,
        looked.map(one -> one.time().toSeconds()).orElse(0L),
        unlooked.map(one -> one.time().toSeconds()).orElse(0L),
        looked.map(Slowest::name).orElse(""),
        looked.map(one -> one.limit().calls()).orElse(null),
        looked.map(one -> one.limit().per().toSeconds()).orElse(null),
        counts.chosen() + counts.leftOut() <= RecallLooks.SHORT,
        Optional.ofNullable(row.problem()).orElse(""));
  }

  private record Slowest(String name, RateLimit limit, Duration time) {}

  /** The system at which what is left takes longest. */
  private Optional<Slowest> slowest(List<CountRow> rows, boolean looking) {
    Map<String, Long> calls = new TreeMap<>();
    for (CountRow row : rows) {
      boolean left =
          row.state() == ItemState.UNDER_WAY || (row.state() == ItemState.WAITING && row.chosen());
      if (left && row.way() != RecallWay.NAME) {
        int each = looking && !row.evenIfChanged() ? 2 : 1;
        calls.merge(row.systemId(), (long) each * row.items(), Long::sum);
      }
    }
    List<Slowest> times = new ArrayList<>();
    calls.forEach(
        (id, many) ->
            systems
                .find(id)
                .ifPresent(
                    system ->
                        system
                            .description()
                            .limit()
                            .ifPresent(limit -> times.add(slowest(system, limit, many)))));
    return times.stream()
        .reduce((one, other) -> one.time().compareTo(other.time()) >= 0 ? one : other);
  }

  private Slowest slowest(Systems.Connected system, RateLimit limit, long calls) {
    Duration untilRoom = system.untilRoom(clock.instant());
    return new Slowest(system.description().name(), limit, limit.timeFor(calls).plus(untilRoom));
  }

  Items items(long id, long before, int limit) {
    List<ItemRow> rows = mapper.items(id, before, limit);
    return new Items(
        rows.stream().map(this::item).toList(),
        rows.size() == limit ? rows.getLast().deliverySeq() : null);
  }

  private ItemView item(ItemRow row) {
    String system =
        systems.find(row.systemId()).map(one -> one.description().name()).orElse(row.systemId());
    String collection =
        systems
            .collection(row.systemId(), row.collectionId())
            .map(one -> one.shape().name())
            .orElse(row.collectionId());
    return new ItemView(
        row.deliverySeq(),
        row.title(),
        row.recordId(),
        collection + " of " + system,
        systems
            .page(row.systemId(), row.collectionId(), row.recordId())
            .map(Object::toString)
            .orElse(""),
        row.traceId(),
        bridges.nameOf(row.bridgeId()),
        row.madeAt(),
        row.changes(),
        row.way(),
        row.state(),
        row.looked(),
        row.chosen(),
        row.words(),
        puts(row));
  }

  private List<HeldBefore> puts(ItemRow row) {
    byte[] puts = row.puts();
    return puts == null
        ? List.of()
        : KeptFields.read(puts).entrySet().stream()
            .map(
                field ->
                    new HeldBefore(
                        lists.fieldName(row.systemId(), row.collectionId(), field.getKey()),
                        field.getValue().display()))
            .toList();
  }
}
