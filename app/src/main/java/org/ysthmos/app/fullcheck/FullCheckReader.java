package org.ysthmos.app.fullcheck;

import java.time.Duration;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.dispatch.DryLook;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.sync.Side;

/**
 * Carries full checks on, step by step and each in turn. How far one is stands with it alone, so
 * that a kill at any moment loses nothing but a page, and the next start goes on.
 */
@Component
class FullCheckReader implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(FullCheckReader.class);

  private static final Duration BETWEEN = Duration.ofSeconds(5);

  private static final Duration LONGEST_WAIT = Duration.ofMinutes(5);

  /** After so many tries in vain, one after the other, a check ends with why: half an hour. */
  private static final int MOST_TRIES = 12;

  /** So many of a list are read by themselves, to see whether it tells all. */
  private static final int SAMPLES = 3;

  private final FullChecks checks;
  private final FullCheckMapper mapper;
  private final ListedPages pages;
  private final CloserLooks closer;
  private final Meetings meetings;
  private final DryLook looks;
  private final Systems systems;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final LiveFeed feed;
  private final WorkSignals.Signal signal = new WorkSignals.Signal();
  private final Map<Long, Long> notBefore = new HashMap<>();
  private final KeptThread thread;

  FullCheckReader(
      FullChecks checks,
      FullCheckMapper mapper,
      ListedPages pages,
      CloserLooks closer,
      Meetings meetings,
      DryLook looks,
      Systems systems,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      LiveFeed feed) {
    this.checks = checks;
    this.mapper = mapper;
    this.pages = pages;
    this.closer = closer;
    this.meetings = meetings;
    this.looks = looks;
    this.systems = systems;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.feed = feed;
    // Each goes on where it stood once the thread looks again.
    this.thread =
        KeptThread.ofRounds(
            "full-checks",
            signal,
            () -> BETWEEN,
            this::goOnWhileAnyCan,
            "full checks could not go on");
  }

  /** A check began. */
  void raise() {
    signal.raise();
  }

  private void goOnWhileAnyCan() throws InterruptedException {
    boolean anyCan = true;
    while (anyCan && thread.isRunning() && room.isEnough()) {
      anyCan = false;
      for (CheckRow check : checks.goingOn()) {
        anyCan |=
            System.nanoTime() >= notBefore.getOrDefault(check.id(), Long.MIN_VALUE) && goOn(check);
      }
    }
  }

  /** One step of a check; false if it has to wait. */
  private boolean goOn(CheckRow check) throws InterruptedException {
    boolean went;
    try {
      Optional<BridgeVersion> bridge = checks.bridge(check.bridgeId());
      if (bridge.isEmpty()) {
        fail(check, "Its bridge is not live any more, or goes one way by now.");
        return false;
      }
      Optional<String> silent = silent(bridge.get().between().orElseThrow());
      if (silent.isPresent() && check.state() != CheckState.REPAIRING) {
        // Else each of thousands of tasks would be waited for in vain, one after the other.
        inVain(check, silent.get() + " does not answer.");
        return false;
      }
      went =
          switch (check.state()) {
            case READING_LEFT, READING_RIGHT -> readPage(check, bridge.get());
            case MISSING_LEFT, MISSING_RIGHT -> pages.findMissed(check);
            case LOOKING, COMPARING -> closer.goOn(check, bridge.get());
            case MEETING -> meetings.goOn(check);
            case REPAIRING, ENDED, STOPPED, FAILED -> false;
          };
    } catch (RuntimeException e) {
      LOG.error("full check {} could not go on", check.id(), e);
      inVain(check, "It broke here (%s). The log of the application says more.".formatted(e));
      return false;
    }
    if (went) {
      notBefore.remove(check.id());
      feed.changed(check.bridgeId(), "");
    }
    return went;
  }

  private void fail(CheckRow check, String why) {
    journal.run(() -> checks.become(check, CheckState.FAILED, why));
    notBefore.remove(check.id());
    feed.changed(check.bridgeId(), "");
  }

  private void inVain(CheckRow check, String why) {
    if (check.tries() + 1 >= MOST_TRIES) {
      fail(check, why);
      return;
    }
    journal.run(() -> mapper.inVain(check.id(), check.step(), Words.limited(why, 1000)));
    Duration wait = BETWEEN.multipliedBy(1L << check.tries());
    notBefore.put(
        check.id(),
        System.nanoTime() + (wait.compareTo(LONGEST_WAIT) > 0 ? LONGEST_WAIT : wait).toNanos());
    feed.changed(check.bridgeId(), "");
  }

  /**
   * What is in the way of the whole list. No room for calls is waited for and counts nothing.
   *
   * @return whether it goes on
   */
  private boolean unread(CheckRow check, Systems.Connected system, Failure failure)
      throws InterruptedException {
    system.note(failure, clock.instant());
    if (!failure.noRoom()) {
      inVain(check, Words.sentence(failure));
      return false;
    }
    Duration wait = failure.retryAfter().orElse(BETWEEN);
    TimeUnit.NANOSECONDS.sleep((wait.compareTo(BETWEEN) > 0 ? BETWEEN : wait).toNanos() + 1);
    return true;
  }

  /** A system of the bridge that is not asked just now; empty if both are. */
  private Optional<String> silent(CompiledTwoWay both) {
    return Stream.of(Side.values())
        .map(both::place)
        .filter(
            place ->
                systems
                    .find(place.rule().system())
                    .filter(system -> system.breaker().admits(clock.instant()))
                    .isEmpty())
        .map(place -> place.shape().systemName())
        .findFirst();
  }

  private boolean readPage(CheckRow check, BridgeVersion bridge) throws InterruptedException {
    Side side = check.state().side().orElseThrow();
    CompiledTwoWay.CompiledPlace place = bridge.between().orElseThrow().place(side);
    Systems.Connected system = systems.find(place.rule().system()).orElseThrow();
    String collection = place.rule().collection();
    return switch (system
        .gateway()
        .whole(collection, Optional.ofNullable(check.place()), call -> {})) {
      case NotRead notRead -> unread(check, system, notRead.failure());
      case Page page -> {
        system.breaker().answered();
        DryLook.Listed listed = looks.listed(bridge, side);
        String known = side == Side.LEFT ? check.leftLacks() : check.rightLacks();
        Sampled sampled =
            known == null
                ? sample(page, system, collection, listed)
                : new Lacks(Optional.of(known));
        yield switch (sampled) {
          case Unsampled unsampled -> unread(check, system, unsampled.failure());
          case Lacks lacks ->
              pages.keep(new ListedPages.Listing(check, side, place, page, listed, lacks.fields()));
        };
      }
    };
  }

  /** What a look at whether a list tells all came to. */
  private sealed interface Sampled {}

  /**
   * The fields that stand in a task and not in the list, with commas.
   *
   * @param fields empty if nothing could be looked at, as the page is
   */
  private record Lacks(Optional<String> fields) implements Sampled {}

  private record Unsampled(Failure failure) implements Sampled {}

  private static Sampled sample(
      Page page, Systems.Connected system, String collection, DryLook.Listed listed) {
    if (page.records().isEmpty()) {
      return new Lacks(Optional.empty());
    }
    Set<String> lacks = new LinkedHashSet<>();
    List<Changed> some = page.records().subList(0, Math.min(SAMPLES, page.records().size()));
    for (Changed one : some) {
      SequencedMap<String, String> id = new LinkedHashMap<>();
      id.put("id", one.id());
      switch (system.gateway().find(collection, id, call -> {})) {
        case World.Unanswered unanswered -> {
          return new Unsampled(unanswered.failure());
        }
        case World.Found read ->
            read.records().stream()
                .findFirst()
                .ifPresent(task -> lacks.addAll(listed.lacks(one.record(), task)));
      }
    }
    return new Lacks(Optional.of(Words.limited(String.join(", ", lacks), 1000)));
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
