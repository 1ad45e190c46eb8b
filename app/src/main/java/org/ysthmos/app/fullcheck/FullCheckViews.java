package org.ysthmos.app.fullcheck;

import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.CheckItemMapper.CountRow;
import org.ysthmos.app.fullcheck.CheckItemMapper.ItemRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Difference;
import org.ysthmos.core.sync.Side;

/** Full checks as people see them. */
@Component
class FullCheckViews {

  /**
   * What a check found of one kind.
   *
   * @param found how many in all
   * @param asked of how many of them a person was asked before
   * @param waiting how many wait to be put right, or are on their way
   * @param left how many are left as they are, as a person said
   */
  record FoundKind(
      Difference.Kind kind,
      int found,
      int asked,
      int waiting,
      int putRight,
      int notPutRight,
      int left) {

    static FoundKind empty(Difference.Kind kind) {
      return new FoundKind(kind, 0, 0, 0, 0, 0, 0);
    }
  }

  /**
   * One of both lists.
   *
   * @param place for example {@code Works, Grounds Board}
   * @param read how many of its tasks were read
   * @param lacks the fields that its list does not tell; empty if it tells all
   */
  record CheckedList(String place, String system, int read, String lacks) {}

  /**
   * A full check.
   *
   * @param endedAt null while it goes on
   * @param pairs how many there were when it began
   * @param aside how many of the tasks that were read have no part in it
   * @param toLook how many stood out and were not looked at yet
   * @param differ how many pairs were found otherwise than alike; tasks without a pair are not in
   *     it
   * @param kinds what was found, by kind
   * @param problem what is in its way, or why it broke off; may be empty
   */
  record FullCheckView(
      long id,
      String bridge,
      CheckState state,
      String askedBy,
      Instant begunAt,
      @Schema(nullable = true) @Nullable Instant endedAt,
      int pairs,
      CheckedList left,
      CheckedList right,
      int aside,
      int toLook,
      int differ,
      List<FoundKind> kinds,
      String problem) {}

  /**
   * A task of what was found.
   *
   * @param record its id; empty if there is none
   * @param page where a person sees it; empty if there is no such page
   */
  record FoundTask(String record, String page) {}

  /**
   * Something that was found.
   *
   * @param side where something is to be done, or the task is missing; null if on both
   * @param fields the names of the fields
   * @param words why, and what would be written, each on a line
   * @param trace what puts it right; empty if nothing does yet
   */
  record FoundDifference(
      int number,
      CheckItemState state,
      Difference.Kind kind,
      @Schema(nullable = true) @Nullable Side side,
      String title,
      FoundTask left,
      FoundTask right,
      String fields,
      String words,
      String trace) {}

  private final CheckItemMapper items;
  private final Bridges bridges;
  private final Systems systems;

  FullCheckViews(CheckItemMapper items, Bridges bridges, Systems systems) {
    this.items = items;
    this.bridges = bridges;
    this.systems = systems;
  }

  FullCheckView view(CheckRow check) {
    List<CountRow> counts = items.counts(check.id());
    Map<Difference.Kind, FoundKind> kinds = new EnumMap<>(Difference.Kind.class);
    for (CountRow count : counts) {
      Difference.Kind kind = count.kind();
      if (kind != null) {
        kinds.merge(kind, of(count), FullCheckViews::sum);
      }
    }
    Optional<CompiledTwoWay> both = both(check.bridgeId());
    return new FullCheckView(
        check.id(),
        check.bridgeId(),
        check.state(),
        check.askedBy(),
        check.begunAt(),
        check.state().goesOn() && check.state() != CheckState.REPAIRING ? null : check.endedAt(),
        check.pairs(),
        list(both, Side.LEFT, check.leftRead(), check.leftLacks()),
        list(both, Side.RIGHT, check.rightRead(), check.rightLacks()),
        check.aside(),
        counts.stream().filter(count -> count.kind() == null).mapToInt(CountRow::items).sum(),
        items.pairsFound(check.id()),
        List.copyOf(kinds.values()),
        Optional.ofNullable(check.problem()).orElse(""));
  }

  private Optional<CompiledTwoWay> both(String bridge) {
    return bridges.live(bridge).flatMap(live -> live.version().between());
  }

  /** A place of a bridge as people call it; empty if it is not live. */
  String place(String bridge, Side side) {
    return place(both(bridge), side);
  }

  private static String place(Optional<CompiledTwoWay> both, Side side) {
    return both.map(one -> one.place(side).shape())
        .map(shape -> shape.name() + ", " + shape.systemName())
        .orElse("");
  }

  private static CheckedList list(
      Optional<CompiledTwoWay> both, Side side, int read, @Nullable String lacks) {
    return new CheckedList(
        place(both, side),
        both.map(one -> one.place(side).shape().systemName()).orElse(""),
        read,
        Optional.ofNullable(lacks).orElse(""));
  }

  private static FoundKind of(CountRow count) {
    int items = count.items();
    return switch (count.state()) {
      case TO_LOOK, FOUND -> new FoundKind(kind(count), items, 0, 0, 0, 0, 0);
      case MET -> FoundKind.empty(kind(count));
      case ASKED -> new FoundKind(kind(count), items, items, 0, 0, 0, 0);
      case WAITING, UNDER_WAY -> new FoundKind(kind(count), items, 0, items, 0, 0, 0);
      case PUT_RIGHT -> new FoundKind(kind(count), items, 0, 0, items, 0, 0);
      case NOT_PUT_RIGHT -> new FoundKind(kind(count), items, 0, 0, 0, items, 0);
      case LEFT -> new FoundKind(kind(count), items, 0, 0, 0, 0, items);
    };
  }

  private static Difference.Kind kind(CountRow count) {
    return Optional.ofNullable(count.kind()).orElseThrow();
  }

  private static FoundKind sum(FoundKind one, FoundKind other) {
    return new FoundKind(
        one.kind(),
        one.found() + other.found(),
        one.asked() + other.asked(),
        one.waiting() + other.waiting(),
        one.putRight() + other.putRight(),
        one.notPutRight() + other.notPutRight(),
        one.left() + other.left());
  }

  /** What was found, in order. */
  List<FoundDifference> found(CheckRow check, Difference.@Nullable Kind kind, int after, int most) {
    Optional<CompiledTwoWay> both = both(check.bridgeId());
    return items.found(check.id(), kind, after, most).stream()
        .flatMap(item -> Stream.ofNullable(item.kind()).map(of -> found(item, of, both)))
        .toList();
  }

  private FoundDifference found(ItemRow item, Difference.Kind kind, Optional<CompiledTwoWay> both) {
    return new FoundDifference(
        item.number(),
        item.state(),
        kind,
        item.side(),
        item.title(),
        task(both, Side.LEFT, item.leftRecord()),
        task(both, Side.RIGHT, item.rightRecord()),
        item.fields(),
        item.words(),
        Optional.ofNullable(item.traceId()).orElse(""));
  }

  private FoundTask task(Optional<CompiledTwoWay> both, Side side, @Nullable String record) {
    if (record == null) {
      return new FoundTask("", "");
    }
    return new FoundTask(
        record,
        both.map(one -> one.place(side).rule())
            .flatMap(at -> systems.page(at.system(), at.collection(), record))
            .map(URI::toString)
            .orElse(""));
  }
}
