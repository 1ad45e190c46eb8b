package org.ysthmos.app.fullcheck;

import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.fullcheck.ToldApartMapper.Two;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Difference;
import org.ysthmos.core.sync.Side;

/** What is done about full checks. What goes on by itself is {@link FullCheckReader}'s. */
@Component
class FullChecks {

  /** So many of a bridge are kept. */
  private static final int KEPT = 20;

  /** Those that go on by themselves. */
  private static final List<CheckState> GOING_ON =
      Stream.of(CheckState.values()).filter(CheckState::goesOn).toList();

  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final Bridges bridges;
  private final Systems systems;
  private final SyncedPairs pairs;
  private final ToldApartMapper apart;
  private final Journal journal;
  private final AppClock clock;

  FullChecks(
      FullCheckMapper mapper,
      CheckItemMapper items,
      Bridges bridges,
      Systems systems,
      SyncedPairs pairs,
      ToldApartMapper apart,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.items = items;
    this.bridges = bridges;
    this.systems = systems;
    this.pairs = pairs;
    this.apart = apart;
    this.journal = journal;
    this.clock = clock;
  }

  /** A live bridge that goes both ways; empty if it is none. */
  Optional<BridgeVersion> bridge(String id) {
    return bridges
        .live(id)
        .map(Bridges.Live::version)
        .filter(version -> version.between().isPresent());
  }

  /**
   * Begins a check.
   *
   * @return its number
   * @throws ApiProblem if the bridge cannot be checked, or is being checked
   */
  long begin(String bridge, By by) {
    BridgeVersion version =
        bridge(bridge)
            .orElseThrow(() -> ApiProblem.notFound("live bridge that goes both ways", bridge));
    obstacle(version.between().orElseThrow())
        .ifPresent(
            words -> {
              throw refused("Not all of it can be read", words);
            });
    return journal.now(
        () -> {
          if (isUnderWay(bridge)) {
            throw refused("Under way already", "This bridge is being checked.");
          }
          mapper.forgetAllSeen(bridge);
          mapper.begin(bridge, CheckState.READING_LEFT, by.name(), clock.instant());
          mapper.forgetOld(bridge, KEPT);
          items.forget();
          return mapper.ofBridge(bridge, 1).getFirst().id();
        });
  }

  /** Keeps that a check which was due could not begin, with why. */
  void couldNotBegin(String bridge, By by, String why) {
    journal.run(
        () -> {
          mapper.begin(bridge, CheckState.READING_LEFT, by.name(), clock.instant());
          int unused = become(mapper.ofBridge(bridge, 1).getFirst(), CheckState.FAILED, why);
          mapper.forgetOld(bridge, KEPT);
          items.forget();
        });
  }

  /** Why its lists cannot be read; empty if they can. */
  private Optional<String> obstacle(CompiledTwoWay both) {
    return Stream.of(Side.values())
        .map(both::place)
        .filter(
            place ->
                systems
                    .collection(place.rule().system(), place.rule().collection())
                    .filter(SystemCollection::listsAll)
                    .isEmpty())
        .findFirst()
        .map(
            place ->
                "%s of %s cannot be read page by page. Say in its document how the pages of its"
                        .formatted(place.shape().name(), place.shape().systemName())
                    + " list follow one another (list, next).");
  }

  /** Whether a check of the bridge goes on. */
  boolean isUnderWay(String bridge) {
    return mapper.ofBridge(bridge, 1).stream().anyMatch(row -> row.state().goesOn());
  }

  /**
   * @throws ApiProblem if there is none of this number
   */
  CheckRow get(long id) {
    CheckRow row = mapper.find(id);
    if (row == null) {
      throw ApiProblem.notFound("full check", String.valueOf(id));
    }
    return row;
  }

  /** Those of a bridge, the newest first. */
  List<CheckRow> ofBridge(String bridge) {
    return mapper.ofBridge(bridge, KEPT);
  }

  /** Those that go on by themselves. */
  List<CheckRow> goingOn() {
    return mapper.in(GOING_ON);
  }

  /**
   * Begins to put right what was chosen.
   *
   * @param kinds all of these; null if single ones are given
   * @param numbers these; null if kinds are given
   * @param leads the side that is right as a whole where both have the task; null if the bridge
   *     says what is
   */
  void repair(
      long id,
      @Nullable Collection<Difference.Kind> kinds,
      @Nullable Collection<Integer> numbers,
      @Nullable Side leads) {
    if ((kinds == null || kinds.isEmpty()) == (numbers == null || numbers.isEmpty())) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "What is to be put right", "Say which kinds, or which ones.");
    }
    journal.run(
        () -> {
          CheckRow check = get(id);
          if (check.state() != CheckState.ENDED) {
            throw refused("Not now", "Only what a check found that has ended is put right.");
          }
          if (items.choose(id, kinds, numbers, leads) == 0) {
            throw refused("Nothing to do", "Of what was chosen nothing is left to be put right.");
          }
          change(check, CheckState.REPAIRING);
        });
  }

  /** Takes two that may be the same for two: each stands for itself again. */
  void part(long id, Collection<Integer> numbers, By by) {
    ofOpen(
        id,
        numbers,
        Difference.Kind.MAY_BE_ONE,
        (check, item) -> {
          items.remove(id, item.number());
          items.part(item);
          Two two =
              new Two(
                  Objects.requireNonNull(item.leftRecord()),
                  Objects.requireNonNull(item.rightRecord()));
          apart.add(check.bridgeId(), two, by.name(), clock.instant());
        });
  }

  /** Leaves tasks as they are, so that nothing is made of them on the other side. */
  void leaveAlone(long id, Collection<Integer> numbers, By by) {
    ofOpen(
        id,
        numbers,
        Difference.Kind.NOT_MADE,
        (check, item) -> {
          Side side = item.leftRecord() == null ? Side.RIGHT : Side.LEFT;
          String record = side == Side.LEFT ? item.leftRecord() : item.rightRecord();
          if (!pairs.leaveAlone(
              check.bridgeId(), side, Objects.requireNonNull(record), item.title(), by)) {
            throw refused("Not left", "“%s” is in a pair by now.".formatted(item.title()));
          }
          items.put(id, item.number(), CheckItemState.LEFT, null);
        });
  }

  /** Does something about some of a kind that are not put right yet, all in one change. */
  private void ofOpen(
      long id,
      Collection<Integer> numbers,
      Difference.Kind kind,
      BiConsumer<CheckRow, CheckItemMapper.ItemRow> does) {
    journal.run(
        () -> {
          CheckRow check = get(id);
          if (check.state() != CheckState.ENDED) {
            throw refused("Not now", "This check has not ended yet.");
          }
          for (int number : numbers) {
            CheckItemMapper.ItemRow item = items.find(id, number);
            if (item == null
                || item.kind() != kind
                || (item.state() != CheckItemState.FOUND
                    && item.state() != CheckItemState.NOT_PUT_RIGHT)) {
              throw refused("Not open", "One of them is not open any more.");
            }
            does.accept(check, item);
          }
        });
  }

  /**
   * Stops it. Where it puts right, what was begun still ends and the rest stays as it is; before
   * that, what was read so far is let be.
   */
  void stop(long id) {
    journal.run(
        () -> {
          CheckRow check = get(id);
          if (!check.state().goesOn()) {
            throw refused("Not under way", "This has ended already.");
          }
          if (check.state() == CheckState.REPAIRING) {
            items.leave(id);
          } else {
            change(check, CheckState.STOPPED);
          }
        });
  }

  /** In a change, of what was read in it. */
  private void change(CheckRow check, CheckState to) {
    if (become(check, to, null) == 0) {
      throw new IllegalStateException("a check that was read in a change is otherwise in it");
    }
  }

  /** In a change; 0 if another carried it on. */
  int become(CheckRow check, CheckState to, @Nullable String problem) {
    return mapper.become(
        check.id(),
        check.step(),
        to,
        problem == null ? null : Words.limited(problem, 1000),
        to.goesOn() ? null : clock.instant());
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }
}
