package org.ysthmos.app.desk.live;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.CeilingView;
import org.ysthmos.app.bridge.CircleView;
import org.ysthmos.app.bridge.Loops;
import org.ysthmos.app.bridge.RuleDifferences;
import org.ysthmos.app.bridge.RuleDifferences.RuleDifference;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.draft.Drafts;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.poll.PollPlan;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.load.Arrival;
import org.ysthmos.core.load.BusiestSpan;
import org.ysthmos.core.load.LoadForecast;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.trial.PinnedExample.Difference;

/** What putting a draft to work would change and cost, and doing it. */
@Component
class GoingLive {

  /**
   * What to know before a draft goes live.
   *
   * @param changes the rules that differ from the live version; none for a new bridge
   * @param events how many received events the load is reckoned from
   * @param days over how many days they came
   * @param asked how the source is asked for changes; null if it is not
   * @param circles those that it would be in with the bridges that are live
   */
  record GoingView(
      List<RuleDifference> changes,
      List<ExampleView> examples,
      List<LoadView> loads,
      int events,
      int days,
      CeilingView ceiling,
      long givenUpAfterSeconds,
      @Schema(nullable = true) @Nullable AskedView asked,
      List<CircleView> circles) {}

  /** How many events of each place are looked at, at the least. */
  private static final int FEWEST = 20;

  /**
   * How a source is asked for changes.
   *
   * @param everySeconds the interval, which is also the longest that a change waits to be seen
   * @param callsPerDay what asking alone costs, one page each time
   * @param pushes whether it tells of changes by itself too
   */
  record AskedView(String system, long everySeconds, long callsPerDay, boolean pushes) {}

  /** A pinned example with what the draft makes of it. */
  record ExampleView(
      String id, String name, String verdict, boolean holds, List<Difference> differences) {}

  /**
   * What one system would be asked.
   *
   * @param limitCalls the most calls that it answers in {@code limitSeconds}; null if it names none
   * @param longestWaitMillis the longest that an event would have waited for the limit
   */
  record LoadView(
      String system,
      long callsPerDay,
      long callsOnBusiestDay,
      @Schema(nullable = true) @Nullable LocalDate busiestDay,
      @Schema(nullable = true) @Nullable Integer limitCalls,
      @Schema(nullable = true) @Nullable Long limitSeconds,
      @Schema(nullable = true) @Nullable Long limitPerDay,
      long longestWaitMillis,
      @Schema(nullable = true) @Nullable Instant longestWaitOf) {}

  private final Catalog catalog;
  private final Samples samples;
  private final SampleWorld world;
  private final Bridges bridges;
  private final Loops loops;
  private final Examples examples;
  private final Systems systems;
  private final Settings settings;
  private final Drafts drafts;
  private final PollPlan plan;

  GoingLive(
      Catalog catalog,
      Samples samples,
      SampleWorld world,
      Bridges bridges,
      Loops loops,
      Examples examples,
      Systems systems,
      Settings settings,
      Drafts drafts,
      PollPlan plan) {
    this.catalog = catalog;
    this.samples = samples;
    this.world = world;
    this.bridges = bridges;
    this.loops = loops;
    this.examples = examples;
    this.systems = systems;
    this.settings = settings;
    this.drafts = drafts;
    this.plan = plan;
  }

  /**
   * @throws org.ysthmos.core.document.DocumentException if the draft cannot go live
   */
  GoingView look(String id, String json) {
    BridgeVersion draft = BridgeCompiler.compile(json, 1, catalog);
    Calls calls = new Calls();
    int received = 0;
    int ofEach = Math.max(FEWEST, Samples.MOST / Math.max(1, draft.places().size()));
    for (BridgeVersion view : draft.views()) {
      List<Sample> ofView = samples.received(DraftStart.of(view.definition().from()), ofEach);
      received += ofView.size();
      ofView.forEach(sample -> count(calls, view, sample));
    }
    Ceiling ceiling = Ceiling.of(draft.definition().ceiling(), bridges.busiest(draft.definition()));
    return new GoingView(
        bridges
            .live(id)
            .map(live -> RuleDifferences.between(live.version(), draft))
            .orElse(List.of()),
        examples(id, draft),
        calls.loads(),
        received,
        LoadForecast.of(calls.all, Optional.empty(), settings.zone()).days(),
        CeilingView.of(ceiling, kind -> calls.busiest(kind, ceiling.per())),
        settings.retry().backOff().inAll().toSeconds(),
        draft.views().stream()
            .flatMap(
                view ->
                    plan
                        .interval(view.definition().from())
                        .map(every -> asked(view, every, draft.places().size()))
                        .stream())
            .findFirst()
            .orElse(null),
        loops.of(draft));
  }

  private AskedView asked(BridgeVersion draft, Duration every, int places) {
    BridgeDefinition.From from = draft.definition().from();
    boolean pushes =
        systems
            .collection(from.system(), from.collection())
            .flatMap(SystemCollection::push)
            .isPresent();
    long each = (Duration.ofDays(1).toSeconds() + every.toSeconds() - 1) / every.toSeconds();
    // Each of several places is asked by itself.
    long calls = each * Math.max(1, places);
    return new AskedView(draft.source().systemName(), every.toSeconds(), calls, pushes);
  }

  List<ExampleView> examples(String id, BridgeVersion version) {
    return examples.check(id, version, world).stream()
        .map(
            checked ->
                new ExampleView(
                    checked.id(),
                    checked.example().name(),
                    checked.example().verdict(),
                    checked.holds(),
                    checked.differences()))
        .toList();
  }

  /**
   * An event of two places that are kept alike is not decided for this: that would read both tasks
   * as they are now, a thousand times, and tell nothing of what it cost when it came.
   */
  private void count(Calls calls, BridgeVersion view, Sample sample) {
    if (view.between().isPresent()) {
      calls.countAtMost(sample, view);
    } else {
      calls.count(sample, Decider.decide(view, sample.event(), world, Mode.PLAIN));
    }
  }

  /** Counts the calls that events cost, system by system. */
  private final class Calls {
    private final Map<String, List<Arrival>> bySystem = new LinkedHashMap<>();
    private final Map<EffectKind, List<Instant>> effects = new EnumMap<>(EffectKind.class);
    private final List<Arrival> all = new ArrayList<>();

    /**
     * What an event of a bridge that goes both ways costs at the most: two reads, and a task that
     * is made of what was created or changed of anything else.
     */
    void countAtMost(Sample sample, BridgeVersion view) {
      Instant at = sample.event().time();
      all.add(new Arrival(at, 0));
      EffectKind does =
          sample.event().kind().equals("created") ? EffectKind.CREATE : EffectKind.CHANGE;
      effects.computeIfAbsent(does, kind -> new ArrayList<>()).add(at);
      Map<String, Integer> calls = new LinkedHashMap<>();
      calls.merge(view.source().system(), 1, Integer::sum);
      calls.merge(view.target().system(), 2, Integer::sum);
      add(calls, at);
    }

    private void add(Map<String, Integer> calls, Instant at) {
      calls.forEach(
          (system, times) ->
              bySystem.computeIfAbsent(system, s -> new ArrayList<>()).add(new Arrival(at, times)));
    }

    void count(Sample sample, Decision decision) {
      Map<String, Integer> calls = new LinkedHashMap<>();
      for (Decision.Answer answer : decision.answers()) {
        if (answer.question().origin() == LookupRule.Origin.SYSTEM) {
          calls.merge(answer.question().system(), 1, Integer::sum);
        }
      }
      for (PlannedDelivery delivery : decision.deliveries()) {
        boolean makes = delivery.record().isEmpty();
        systems
            .collection(delivery.system(), delivery.collection())
            .ifPresent(
                collection ->
                    calls.merge(
                        delivery.system(),
                        collection.calls(makes, delivery.fields().keySet()),
                        Integer::sum));
        effects
            .computeIfAbsent(systems.kindOf(delivery), kind -> new ArrayList<>())
            .add(sample.event().time());
      }
      Instant at = sample.event().time();
      all.add(new Arrival(at, 0));
      add(calls, at);
    }

    int busiest(EffectKind kind, Duration per) {
      return BusiestSpan.of(effects.getOrDefault(kind, List.of()), per).times();
    }

    List<LoadView> loads() {
      List<LoadView> loads = new ArrayList<>();
      bySystem.forEach(
          (system, arrivals) ->
              systems.find(system).ifPresent(found -> loads.add(load(found, arrivals))));
      return loads;
    }

    private LoadView load(Systems.Connected system, List<Arrival> arrivals) {
      Optional<RateLimit> limit = system.description().limit();
      // Days on which events came that cost nothing here are days too.
      List<Arrival> withQuietDays = new ArrayList<>(all);
      withQuietDays.addAll(arrivals);
      LoadForecast forecast = LoadForecast.of(withQuietDays, limit, settings.zone());
      return new LoadView(
          system.description().name(),
          forecast.callsPerDay(),
          forecast.callsOnBusiestDay(),
          forecast.busiestDay().orElse(null),
          limit.map(RateLimit::calls).orElse(null),
          limit.map(most -> most.per().toSeconds()).orElse(null),
          limit.map(RateLimit::callsPerDay).orElse(null),
          forecast.longestWait().toMillis(),
          forecast.longestWaitOf().orElse(null));
    }
  }

  /**
   * Puts a draft to work as a new version; the draft is done with then.
   *
   * @param acceptExamples whether pinned examples that do not hold get their new results; without
   *     it, they keep the draft from going live
   * @param acceptLoops whether a person says yes to circles of which it cannot be told whether they
   *     come to an end
   */
  void go(String id, String json, int revision, boolean acceptExamples, boolean acceptLoops) {
    Drafts.Draft kept = drafts.keep(id, json, revision);
    BridgeVersion version = BridgeCompiler.compile(kept.document(), 1, catalog);
    if (!version.definition().id().equals(id)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Another bridge",
          "The draft says that it is the bridge “%s”, not “%s”."
              .formatted(version.definition().id(), id));
    }
    List<String> broken =
        examples.check(id, version, world).stream()
            .filter(checked -> !checked.holds())
            .map(checked -> checked.example().name())
            .distinct()
            .toList();
    if (!broken.isEmpty() && !acceptExamples) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Pinned examples do not hold",
          "The draft gives something else for %s. Mend the rules, or take the new results as expected."
              .formatted(String.join(", ", new LinkedHashSet<>(broken))));
    }
    BridgeVersion unused =
        loops.putToWork(BridgeWriter.write(version.definition()), acceptLoops, By.PERSON);
    if (!broken.isEmpty()) {
      examples.accept(id, version, world);
    }
    drafts.drop(id);
  }
}
