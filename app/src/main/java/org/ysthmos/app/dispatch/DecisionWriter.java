package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.courier.DeliveryMapper;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.StoryCodec;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/** Stores decisions: trace, pair and deliveries in one transaction. */
@Component
class DecisionWriter {

  /** A decision with all that it came from. */
  record Deciding(
      TraceRow trace,
      BridgeVersion bridge,
      Event event,
      Decision decision,
      EngineWorld world,
      Instant start,
      Duration took) {}

  /** What became of storing a decision. */
  enum Stored {
    STORED,
    /** A delivery for the same pair is still under way. */
    PAIR_BUSY,
    /** Another worker changed the pair after the decision read it. */
    PAIR_CHANGED
  }

  private final TraceMapper traces;
  private final DeliveryMapper deliveries;
  private final Pairs pairs;
  private final Tables tables;
  private final StoryCodec codec;
  private final TransactionTemplate transaction;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;

  DecisionWriter(
      TraceMapper traces,
      DeliveryMapper deliveries,
      Pairs pairs,
      Tables tables,
      StoryCodec codec,
      TransactionTemplate transaction,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.traces = traces;
    this.deliveries = deliveries;
    this.pairs = pairs;
    this.tables = tables;
    this.codec = codec;
    this.transaction = transaction;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  Stored store(Deciding deciding) {
    Stored stored =
        Optional.ofNullable(
                transaction.execute(
                    status -> {
                      Stored outcome = storeNow(deciding);
                      if (outcome != Stored.STORED) {
                        status.setRollbackOnly();
                      }
                      return outcome;
                    }))
            .orElseThrow();
    if (stored == Stored.STORED) {
      signals.toDeliver().raise();
      feed.changed(deciding.trace().bridgeId(), deciding.trace().id());
    }
    return stored;
  }

  private Stored storeNow(Deciding deciding) {
    Decision decision = deciding.decision();
    for (TaskDecision task : decision.tasks()) {
      MatchKey key = task.key();
      if (deliveries.unfinished(key.bridge(), key.hash()) > 0) {
        return Stored.PAIR_BUSY;
      }
      if (task.delivery().isPresent()
          && !pairs.reserve(deciding.bridge(), deciding.event(), key, deciding.world().seen(key))) {
        return Stored.PAIR_CHANGED;
      }
    }
    for (TaskDecision task : decision.tasks()) {
      task.delivery().ifPresent(planned -> deliveries.add(row(deciding, task.key(), planned)));
    }
    tables.count(decision.tableUses());
    traces.decided(decided(deciding));
    return Stored.STORED;
  }

  private DeliveryRow row(Deciding deciding, MatchKey key, PlannedDelivery planned) {
    boolean creates = planned.record().isEmpty();
    // A pair without a task means that an earlier try failed, or its answer was lost.
    boolean uncertain = creates && deciding.world().seen(key).revision() > 0;
    return new DeliveryRow(
        Ids.at(clock.instant()),
        deciding.trace().id(),
        key.bridge(),
        key.hash(),
        planned.system(),
        planned.collection(),
        planned.idempotencyKey(),
        creates,
        planned.record().orElse(null),
        pairs.bytes(planned.fields()),
        planned.awaited().isPresent() ? "waiting" : "ready",
        uncertain,
        0,
        clock.instant(),
        planned.awaited().map(parent -> parent.key().hash()).orElse(null),
        planned.awaited().map(PlannedDelivery.AwaitedParent::field).orElse(null));
  }

  private TraceMapper.Decided decided(Deciding deciding) {
    Decision decision = deciding.decision();
    boolean done = decision.deliveries().isEmpty();
    Optional<Failure> failure = decision.failures().stream().findFirst();
    TraceStory story = StoryWriter.explained(told(deciding), decision).with(decidedLine(deciding));
    return new TraceMapper.Decided(
        deciding.trace().id(),
        deciding.bridge().number(),
        done ? "done" : "delivering",
        Words.word(decision.verdict()),
        done ? clock.instant() : null,
        title(deciding),
        decision.key().map(MatchKey::text).map(text -> Words.limited(text, 1000)).orElse(null),
        decision.key().map(MatchKey::hash).orElse(null),
        target(deciding),
        failure.map(f -> Words.word(f.kind())).orElse(null),
        failure.map(Words::sentence).orElse(reason(decision)),
        searchText(deciding),
        codec.write(story));
  }

  private static @Nullable String target(Deciding deciding) {
    return deciding.decision().tasks().stream()
        .flatMap(task -> deciding.world().seen(task.key()).state().stream())
        .flatMap(state -> state.target().stream())
        .findFirst()
        .orElse(null);
  }

  private TraceStory told(Deciding deciding) {
    TraceStory story = codec.read(traces.story(deciding.trace().id()));
    for (Line line : deciding.world().lines()) {
      story = story.with(line);
    }
    return story;
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

  private static String searchText(Deciding deciding) {
    String text =
        String.join(
            " ",
            deciding.trace().id(),
            deciding.event().id(),
            deciding.event().record(),
            deciding.decision().key().map(MatchKey::text).orElse(""),
            deciding.decision().tasks().stream()
                .flatMap(task -> task.fields().values().stream())
                .map(Value::display)
                .collect(Collectors.joining(" ")),
            deciding.world().records().toString());
    return Words.limited(text.toLowerCase(Locale.ROOT), 4000);
  }

  private static @Nullable String reason(Decision decision) {
    return decision.because().isEmpty() ? null : DecisionWords.detail(decision);
  }

  /** Puts a trace back without counting a try. */
  void postpone(TraceRow trace, Instant until) {
    traces.postpone(
        trace.id(),
        trace.tries(),
        until,
        trace.failureKind(),
        trace.reason(),
        traces.story(trace.id()).story());
  }

  /** Puts a trace back that broke unexpectedly, later each time; it is never dropped. */
  void handBack(TraceRow trace) {
    Duration pause = Duration.ofSeconds(5L << Math.min(trace.tries(), 6));
    traces.postpone(
        trace.id(),
        trace.tries() + 1,
        clock.instant().plus(pause),
        null,
        "Something broke here; the log of the application says more. It will be tried again.",
        traces.story(trace.id()).story());
  }

  /** Puts a trace back after a try that failed for now. */
  void waitAfter(Deciding deciding, Failure failure, Duration pause) {
    Line waiting =
        new Line(
            clock.instant(),
            pause.toNanos() / 1000,
            Mark.WAITING,
            "Waits " + DecisionWords.span(pause) + " before the next try",
            failure.message(),
            "",
            "",
            null);
    traces.postpone(
        deciding.trace().id(),
        deciding.trace().tries() + 1,
        clock.instant().plus(pause),
        Words.word(failure.kind()),
        Words.sentence(failure),
        codec.write(told(deciding).with(waiting)));
    feed.changed(deciding.trace().bridgeId(), deciding.trace().id());
  }
}
