package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.KeptChores;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.duplicate.Duplicates;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.DecidedThen;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceCauses;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/** Stores decisions: trace, pair and deliveries in one change. */
@Component
class DecisionWriter {

  /**
   * A decision with all that it came from.
   *
   * @param cause what caused its event, if that came of our own writing
   * @param alike the tasks that read nearly the same as others that are known
   * @param waits those of them with which the bridge waits for a person, so that it failed
   */
  record Deciding(
      TraceQueue.Claimed claimed,
      BridgeVersion bridge,
      EventRow row,
      Event event,
      Decision decision,
      EngineWorld world,
      Optional<TraceCauses.Cause> cause,
      List<Duplicates.Found> alike,
      List<Duplicates.Waits> waits,
      Instant start,
      Duration took) {

    TraceRow trace() {
      return claimed.trace();
    }

    /** What is carried out. Of a try only the tasks are, as they alone can be taken back. */
    List<TaskDecision> carried() {
      return decision.tasks().stream().filter(task -> !(task.then() && trace().isTry())).toList();
    }
  }

  /** What became of storing a decision. */
  enum Stored {
    STORED,
    /** A delivery for the same pair is still under way; the trace waits for its end. */
    PAIR_BUSY,
    /** Another changed the pair after the decision read it. */
    PAIR_CHANGED,
    /** The bridge would pass a bound: it is held, and the trace waits for its release. */
    HELD
  }

  /** Another node changed a pair between our reading and our writing of it. */
  private static final class PairChanged extends IllegalStateException {
    PairChanged() {
      super("the pair was changed by another");
    }
  }

  private final TraceMapper traces;
  private final TraceQueue queue;
  private final TraceEnds ends;
  private final DeliveryQueue deliveryQueue;
  private final DecidedDeliveries deliveries;
  private final Bridges bridges;
  private final Bounds bounds;
  private final TraceCauses causes;
  private final Undecided undecided;
  private final Duplicates duplicates;
  private final SyncedDecisions synced;
  private final Pairs pairs;
  private final Tables tables;
  private final KeptChores chores;
  private final Stories stories;
  private final DecidedThen decidedThen;
  private final SeenIndex seen;
  private final Journal journal;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;

  DecisionWriter(
      TraceMapper traces,
      TraceQueue queue,
      TraceEnds ends,
      DeliveryQueue deliveryQueue,
      DecidedDeliveries deliveries,
      Bridges bridges,
      Bounds bounds,
      TraceCauses causes,
      Undecided undecided,
      Duplicates duplicates,
      SyncedDecisions synced,
      Pairs pairs,
      Tables tables,
      KeptChores chores,
      Stories stories,
      DecidedThen decidedThen,
      SeenIndex seen,
      Journal journal,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.traces = traces;
    this.queue = queue;
    this.ends = ends;
    this.deliveryQueue = deliveryQueue;
    this.deliveries = deliveries;
    this.bridges = bridges;
    this.bounds = bounds;
    this.causes = causes;
    this.undecided = undecided;
    this.duplicates = duplicates;
    this.synced = synced;
    this.pairs = pairs;
    this.tables = tables;
    this.chores = chores;
    this.stories = stories;
    this.decidedThen = decidedThen;
    this.seen = seen;
    this.journal = journal;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  Stored store(Deciding deciding) {
    // What takes time and needs no database is done before it.
    Told told =
        new Told(
            stories.pack(story(deciding)),
            SeenIndex.words(deciding.trace().seq(), SeenText.of(deciding)),
            isRehearsable(deciding)
                ? Optional.of(
                    DecidedThen.pack(
                        deciding.decision(), key -> deciding.world().seen(key).state()))
                : Optional.empty());
    AtomicReference<Bounds.Stop> passed = new AtomicReference<>();
    Stored stored;
    try {
      stored = journal.soon(() -> storeNow(deciding, told, passed::set));
    } catch (PairChanged e) {
      return Stored.PAIR_CHANGED;
    }
    if (stored == Stored.HELD) {
      hold(deciding, Objects.requireNonNull(passed.get(), "held for nothing"));
    }
    if (stored == Stored.STORED) {
      signals.toDeliver().raise();
      if (deciding.decision().chore().isPresent()) {
        signals.toChores().raise();
      }
      if (deciding.decision().synced().isPresent()) {
        // What it names may be there by now, and then both are looked at once more.
        signals.toDecide().raise();
      }
      feed.changed(deciding.trace().bridgeId(), deciding.trace().id());
    }
    return stored;
  }

  /** What is kept with a trace of how it was decided. */
  private record Told(byte[] part, SeenIndex.WordsOf words, Optional<DecidedThen.Packed> decided) {}

  /** Of a bridge that goes both ways it would have to be kept what its sides held, too. */
  private static boolean isRehearsable(Deciding deciding) {
    return !deciding.trace().isTry() && deciding.bridge().between().isEmpty();
  }

  /**
   * @param stopped learns of a bound that would be passed; nothing is stored then
   */
  private Stored storeNow(Deciding deciding, Told told, Consumer<Bounds.Stop> stopped) {
    Decision decision = deciding.decision();
    List<TaskDecision> carried = deciding.carried();
    for (TaskDecision task : carried) {
      if (deliveryQueue.isBusy(task.key().bridge(), task.key().hash())) {
        queue.awaitPair(deciding.claimed(), task.key().hash());
        return Stored.PAIR_BUSY;
      }
    }
    Optional<Bounds.Stop> passed = bounds.passedBy(deciding, carried);
    if (passed.isPresent()) {
      stopped.accept(passed.get());
      return Stored.HELD;
    }
    if (!synced.keep(deciding, title(deciding))) {
      throw new PairChanged();
    }
    for (TaskDecision task : carried) {
      if (task.delivery().isPresent()
          && !pairs.reserve(
              task,
              SyncedDecisions.sourceOf(deciding, task),
              deciding.world().seen(task.key()),
              spanOf(deciding))) {
        throw new PairChanged();
      }
    }
    for (TaskDecision task : carried) {
      task.delivery().ifPresent(planned -> deliveries.add(deciding, task.key(), planned));
    }
    if (deciding.waits().isEmpty()) {
      duplicates.keep(deciding.trace().seq(), deciding.alike());
    } else {
      duplicates.keepWaiting(deciding.trace().seq(), deciding.waits());
    }
    deciding.cause().ifPresent(cause -> causes.add(deciding.trace().seq(), cause));
    tables.count(decision.tableUses());
    decision
        .chore()
        .filter(look -> !deciding.trace().isTry())
        .ifPresent(look -> chores.keep(deciding.bridge(), deciding.row(), look));
    stories.add(deciding.trace().seq(), told.part());
    told.decided().ifPresent(packed -> decidedThen.add(deciding.trace().seq(), packed));
    seen.replace(told.words());
    traces.decided(decided(deciding));
    end(deciding);
    return Stored.STORED;
  }

  /** In which it is counted how often the bridge writes to one task. */
  private Duration spanOf(Deciding deciding) {
    return bridges
        .live(deciding.trace().bridgeId())
        .map(live -> live.ceiling().per())
        .orElse(Ceiling.USUAL_SPAN);
  }

  /** Holds a bridge at a bound; what would have passed it is decided anew after its release. */
  private void hold(Deciding deciding, Bounds.Stop stop) {
    String bridge = deciding.trace().bridgeId();
    if (bridges.holdItself(bridge, stop.because(), stop.letThrough())) {
      feed.changed(bridge, deciding.trace().id());
    }
    undecided.postpone(deciding.claimed(), clock.instant());
  }

  /** Ends the trace, unless something is to be delivered. */
  private void end(Deciding deciding) {
    Decision decision = deciding.decision();
    Instant now = clock.instant();
    if (decision.verdict() == Verdict.FAILED) {
      ends.fail(deciding.claimed(), failed(deciding), now);
    } else if (deciding.carried().stream().allMatch(task -> task.delivery().isEmpty())) {
      ends.end(deciding.claimed(), decision.verdict(), reason(decision), now);
    } else {
      queue.delivering(deciding.claimed(), decision.verdict());
    }
  }

  private static List<TraceEnds.Failed> failed(Deciding deciding) {
    return deciding.decision().failures().stream()
        .map(
            failure -> {
              Optional<EngineWorld.FailedLookup> asked = deciding.world().origin(failure);
              return new TraceEnds.Failed(
                  asked.map(EngineWorld.FailedLookup::system).orElse(""),
                  asked.map(EngineWorld.FailedLookup::collection).orElse(""),
                  failure);
            })
        .toList();
  }

  private TraceMapper.Decided decided(Deciding deciding) {
    Decision decision = deciding.decision();
    Optional<Failure> failure = decision.failures().stream().findFirst();
    return new TraceMapper.Decided(
        deciding.trace().seq(),
        deciding.bridge().number(),
        title(deciding),
        decision.key().map(MatchKey::text).map(text -> Words.limited(text, 1000)).orElse(null),
        decision.key().map(MatchKey::hash).orElse(null),
        target(deciding),
        failure.map(Failure::kind).orElse(null),
        failure.map(Words::sentence).orElse(reason(decision)));
  }

  private static @Nullable String target(Deciding deciding) {
    return deciding.decision().tasks().stream()
        .filter(task -> !task.then())
        .flatMap(task -> task.target().stream())
        .findFirst()
        .orElse(null);
  }

  private static TraceStory story(Deciding deciding) {
    return StoryWriter.explained(deciding.world().lines(), deciding.decision())
        .withAll(SyncedWords.lines(deciding))
        .with(decidedLine(deciding));
  }

  private static Line decidedLine(Deciding deciding) {
    Decision decision = deciding.decision();
    long lookups = deciding.world().lines().stream().mapToLong(Line::micros).sum();
    long own = Math.max(0, deciding.took().toNanos() / 1000 - lookups);
    boolean failed = decision.verdict() == Verdict.FAILED;
    return new Line(
        deciding.start().plus(Duration.ofNanos(lookups * 1000)),
        own,
        failed ? Mark.FAILED : Mark.DONE,
        DecisionWords.headline(decision),
        DecisionWords.detail(decision),
        "",
        ValueJson.writeAll(decision.task()).toString(),
        null);
  }

  private static String title(Deciding deciding) {
    Value title = deciding.decision().task().get(deciding.bridge().target().titleField());
    String text =
        title == null || title.display().isBlank()
            ? deciding.bridge().source().recordWord() + " " + deciding.event().record()
            : title.display();
    return Words.limited(text, 300);
  }

  private static @Nullable String reason(Decision decision) {
    return decision.because().isEmpty() ? null : DecisionWords.detail(decision);
  }
}
