package org.ysthmos.app.reread;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.fullcheck.FullCheckStart;
import org.ysthmos.app.gap.Gap;
import org.ysthmos.app.gap.GapCheck;
import org.ysthmos.app.gap.GapPlace;
import org.ysthmos.app.gap.GapPlace.Way;
import org.ysthmos.app.gap.Gaps;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.poll.PollPlan;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.gateway.CollectionRef;

/**
 * Makes up for time that is missing: takes down what is to be read again, has the pairs of bridges
 * that go both ways checked, and sees when a place was read. How far it is stands in the database,
 * so that the next start goes on.
 */
@Component
class Rereading implements WithThread {

  private static final Duration WHILE_OPEN = Duration.ofSeconds(1);
  private static final Duration OTHERWISE = Duration.ofMinutes(1);

  private final Gaps gaps;
  private final Bridges bridges;
  private final PollPlan plan;
  private final Polling polling;
  private final FullCheckStart checks;
  private final EventMapper events;
  private final LiveFeed feed;
  private final KeptThread thread;

  Rereading(
      Gaps gaps,
      Bridges bridges,
      PollPlan plan,
      Polling polling,
      FullCheckStart checks,
      EventMapper events,
      LiveFeed feed) {
    this.gaps = gaps;
    this.bridges = bridges;
    this.plan = plan;
    this.polling = polling;
    this.checks = checks;
    this.events = events;
    this.feed = feed;
    this.thread =
        KeptThread.ofRounds(
            "rereading",
            new WorkSignals.Signal(),
            () -> gaps.unfinished().isEmpty() ? OTHERWISE : WHILE_OPEN,
            this::goOn,
            "what is missing could not be made up for");
  }

  void goOn() {
    for (Gap gap : gaps.unfinished()) {
      if (!gap.begun()) {
        begin(gap);
      } else {
        gaps.places(gap).forEach(place -> see(gap, place));
        check(gap);
      }
    }
  }

  private void begin(Gap gap) {
    SequencedMap<CollectionRef, Way> places = new LinkedHashMap<>();
    List<String> bothWays = new ArrayList<>();
    for (Bridges.Live live : bridges.live()) {
      boolean both = live.version().between().isPresent();
      if (both) {
        bothWays.add(live.version().definition().id());
      }
      live.version().views().stream()
          .map(view -> view.definition().from())
          .filter(Rereading::isTold)
          .forEach(from -> way(from, both).ifPresent(way -> places.put(ref(from), way)));
    }
    gaps.begin(gap, places.entrySet().stream().map(Rereading::place).toList(), bothWays);
    feed.changed("", "");
  }

  /**
   * How what happened at a place comes to be known; empty if that is nothing to be said of: where a
   * bridge goes both ways, a check compares all that stands there.
   */
  private Optional<Way> way(BridgeDefinition.From from, boolean both) {
    return plan.interval(from).isPresent()
        ? Optional.of(Way.POLLED)
        : Optional.of(Way.TOLD).filter(way -> !both);
  }

  private static CollectionRef ref(BridgeDefinition.From from) {
    return new CollectionRef(from.system(), from.collection());
  }

  /** Times come of a calendar, and rows are read as a whole: nothing of them is ever missing. */
  private static boolean isTold(BridgeDefinition.From from) {
    return from.times().isEmpty() && from.chores().isEmpty();
  }

  private static GapPlace place(Map.Entry<CollectionRef, Way> one) {
    return new GapPlace(one.getKey().system(), one.getKey().collection(), one.getValue(), null);
  }

  private void see(Gap gap, GapPlace place) {
    if (place.isAwaited() && polling.wasThrough(place.system(), place.collection(), gap.until())) {
      gaps.read(gap, place, events.newestSeq());
      feed.changed("", "");
    }
  }

  /**
   * What was read again of the places of a bridge settles much of what a check would find, so that
   * it comes after; no other place keeps it waiting.
   */
  private void check(Gap gap) {
    for (GapCheck check : gaps.checks(gap)) {
      if (!check.begun() && isRead(gap, check.bridge())) {
        checks.begin(check.bridge(), "as the data was restored");
        gaps.checkBegun(gap, check);
      }
    }
  }

  private boolean isRead(Gap gap, String bridge) {
    Set<CollectionRef> own =
        bridges.live(bridge).stream()
            .flatMap(live -> live.version().views().stream())
            .map(view -> ref(view.definition().from()))
            .collect(Collectors.toSet());
    return gaps.places(gap).stream()
        .filter(GapPlace::isAwaited)
        .noneMatch(place -> own.contains(new CollectionRef(place.system(), place.collection())));
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
