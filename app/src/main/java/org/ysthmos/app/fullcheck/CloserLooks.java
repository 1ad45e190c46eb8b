package org.ysthmos.app.fullcheck;

import java.time.Duration;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.dispatch.DryLook;
import org.ysthmos.app.fullcheck.CheckItemMapper.ItemRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.fullcheck.FullCheckMapper.Step;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Difference;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Side;

/**
 * Looks at what stood out together with its other one, and takes down what the bridge itself would
 * do about it.
 */
@Component
class CloserLooks {

  /** After so many looks in vain it stands among those that cannot be told. */
  private static final int MOST_VAIN = 6;

  private static final int FORGOTTEN_AT_ONCE = 5_000;

  private static final Duration LONGEST_WAIT = Duration.ofSeconds(5);

  private final FullChecks checks;
  private final FullCheckMapper mapper;
  private final CheckItemMapper items;
  private final DryLook looks;
  private final SyncedPairs pairs;
  private final TraceQueue queue;
  private final Journal journal;

  CloserLooks(
      FullChecks checks,
      FullCheckMapper mapper,
      CheckItemMapper items,
      DryLook looks,
      SyncedPairs pairs,
      TraceQueue queue,
      Journal journal) {
    this.checks = checks;
    this.mapper = mapper;
    this.items = items;
    this.looks = looks;
    this.pairs = pairs;
    this.queue = queue;
    this.journal = journal;
  }

  /**
   * Looks at the next that stood out.
   *
   * @return false if there is nothing to do just now
   */
  boolean goOn(CheckRow check, BridgeVersion bridge) throws InterruptedException {
    if (journal.now(() -> mapper.forgetSeen(check.id(), FORGOTTEN_AT_ONCE)) > 0) {
      return true;
    }
    int after = check.place() == null ? 0 : Integer.parseInt(check.place());
    List<ItemRow> next = items.inState(check.id(), CheckItemState.TO_LOOK, after, 1);
    if (!next.isEmpty()) {
      return lookAt(check, next.getFirst(), bridge);
    }
    if (after == 0) {
      return journal.now(() -> checks.become(check, check.state().next(), null)) == 1;
    }
    // Those that were put off have another turn.
    journal.run(() -> mapper.passOver(check.id(), check.step(), null));
    return items.inState(check.id(), CheckItemState.TO_LOOK, 0, 1).isEmpty();
  }

  private int goOnAt(CheckRow check, String place) {
    return mapper.goOn(new Step(check.id(), check.step(), 0, 0, 0, 0, place, null, null));
  }

  private boolean lookAt(CheckRow check, ItemRow item, BridgeVersion bridge)
      throws InterruptedException {
    Look look = look(item);
    if (isUnderWay(check, item, bridge.between().orElseThrow())) {
      return putOff(check, item, "Something is still under way between both");
    }
    Side side = item.leftRecord() == null ? Side.RIGHT : Side.LEFT;
    String record =
        Objects.requireNonNull(side == Side.LEFT ? item.leftRecord() : item.rightRecord());
    DryLook.Came came = looks.at(bridge, side, record, look);
    Optional<Failure> passing = passing(came.decision());
    if (passing.filter(Failure::noRoom).isPresent()) {
      Duration wait = passing.get().retryAfter().orElse(LONGEST_WAIT);
      TimeUnit.NANOSECONDS.sleep(
          (wait.compareTo(LONGEST_WAIT) > 0 ? LONGEST_WAIT : wait).toNanos() + 1);
      return true;
    }
    if (passing.isPresent()) {
      return putOff(check, item, Words.sentence(passing.get()));
    }
    Optional<Difference> difference = Difference.of(look, came.decision());
    return settle(
        check,
        item,
        difference
            .map(
                found ->
                    looked(
                        item,
                        state(check, item, found),
                        found,
                        new Wishes(came.writes(), came.tells())))
            .orElse(null));
  }

  /** What is asked for when it is put right. */
  static Look look(ItemRow item) {
    String right = item.rightRecord();
    if (item.pairHash() == null && item.leftRecord() != null && right != null) {
      return Look.meeting(right);
    }
    if (item.missing() != null) {
      return Look.gone(item.missing());
    }
    Side leads = item.leads();
    return leads == null || item.pairHash() == null ? Look.PLAIN : Look.leading(leads);
  }

  /** What a person is asked about already waits for the answer, and not to be put right. */
  private CheckItemState state(CheckRow check, ItemRow item, Difference found) {
    String pair = item.pairHash();
    return pair != null
            && found.kind() == Difference.Kind.APART
            && pairs.asked(check.bridgeId(), pair).containsAll(found.fields())
        ? CheckItemState.ASKED
        : CheckItemState.FOUND;
  }

  /** What may pass by itself. */
  private static Optional<Failure> passing(Decision decision) {
    return decision.verdict() == Verdict.FAILED
        ? decision.failures().stream()
            .findFirst()
            .filter(
                failure ->
                    failure.noRoom()
                        || failure.kind().isOfTheSystem()
                        || failure.kind() == FailureKind.NOT_YET_THERE)
        : Optional.empty();
  }

  private boolean isUnderWay(CheckRow check, ItemRow item, CompiledTwoWay both) {
    String pair = item.pairHash();
    return (pair != null && mapper.underWay(check.bridgeId(), pair) > 0)
        || Stream.of(Side.values())
            .anyMatch(
                side -> {
                  String record = side == Side.LEFT ? item.leftRecord() : item.rightRecord();
                  TwoWay.Place place = both.place(side).rule();
                  return record != null
                      && queue.isUnderWay(
                          check.bridgeId(),
                          place.system() + "/" + place.collection() + "/" + record);
                });
  }

  private boolean putOff(CheckRow check, ItemRow item, String why) {
    if (item.looks() + 1 >= MOST_VAIN) {
      Difference unclear =
          new Difference(Difference.Kind.UNCLEAR, Optional.empty(), List.of(), why);
      return settle(check, item, looked(item, CheckItemState.FOUND, unclear, NOTHING));
    }
    return journal.now(
        () -> {
          items.putOff(item.checkId(), item.number());
          String place = String.valueOf(item.number());
          return mapper.passOver(check.id(), check.step(), place) == 1;
        });
  }

  /** What a look would write, and what it was told. */
  private record Wishes(List<String> writes, Set<String> tells) {}

  private static final Wishes NOTHING = new Wishes(List.of(), Set.of());

  private static ItemRow looked(
      ItemRow item, CheckItemState state, Difference difference, Wishes wishes) {
    // Of two that may be the same, what speaks for it stands there already.
    String lines =
        Stream.of(
                Stream.of(item.words()), Stream.of(difference.because()), wishes.writes().stream())
            .flatMap(any -> any)
            .filter(line -> !line.isBlank())
            .map(Words::capital)
            .collect(Collectors.joining("\n"));
    return new ItemRow(
        item.checkId(),
        item.number(),
        state,
        difference.kind(),
        item.pairHash(),
        item.missing(),
        difference.side().orElse(null),
        item.leftRecord(),
        item.rightRecord(),
        item.title(),
        Words.limited(String.join(", ", difference.fields()), 1000),
        Words.limited(lines, 2000),
        Words.limited(String.join("\n", wishes.tells()), 2000),
        item.looks(),
        null,
        null);
  }

  /**
   * @param looked null if both are alike
   */
  private boolean settle(CheckRow check, ItemRow item, @Nullable ItemRow looked) {
    return journal.now(
        () -> {
          if (looked == null) {
            items.alike(item.checkId(), item.number());
          } else {
            int unused = items.looked(looked);
          }
          return goOnAt(check, String.valueOf(item.number())) == 1;
        });
  }
}
