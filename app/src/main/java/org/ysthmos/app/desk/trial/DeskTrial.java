package org.ysthmos.app.desk.trial;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.desk.sample.SourceColumns;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.condition.CompiledCondition.TestResult;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Explanation;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.table.TableUse;

/** What a draft makes of samples, with no effect. */
@Component
class DeskTrial {

  /** How many samples stand in the strip above the desk. */
  static final int IN_STRIP = 40;

  /** One sample in the strip. */
  record SampleView(
      String id,
      Sample.Origin origin,
      String record,
      String kind,
      Instant time,
      String verdict,
      String title,
      String key) {}

  /** Where a draft cannot be used, and what to do. */
  record ProblemView(String path, String message) {}

  /**
   * What a draft makes of the samples and of the one in view.
   *
   * @param sourceProblem why the source could not be read for samples; empty if it could
   * @param start where the draft begins and leads to, as far as it says so
   * @param because why the event in view is passed by or fails
   * @param tests the tests of the condition, each with whether it was met
   * @param passing how many samples the condition lets pass
   * @param tasks how many tasks the event in view makes
   * @param unknownKeys what the samples ask of reference tables and these do not hold
   * @param grids tables of statuses, where the draft goes both ways
   */
  record TrialView(
      StartView start,
      List<ProblemView> problems,
      List<String> remarks,
      List<SampleView> samples,
      String sourceProblem,
      int inView,
      List<Arriving.ArrivingGroup> arriving,
      List<LookupFound> lookups,
      List<NamedValue> values,
      List<Leaving.LeavingField> leaving,
      List<AfterTasks.AfterView> then,
      String verdict,
      List<String> because,
      List<TestView> tests,
      int passing,
      int tasks,
      String matchKey,
      List<UnknownKey> unknownKeys,
      List<StatusGrids.StatusGrid> grids) {}

  /**
   * Where a draft begins and leads to; of several places the first.
   *
   * @param places how many it hears, where it hears several; 0 otherwise
   */
  record StartView(String collection, String targetCollection, int places) {}

  /**
   * One test of the condition, for the event in view.
   *
   * @param passed how many samples meet it
   * @param asked how many samples came to it
   */
  record TestView(String sentence, String value, boolean met, int passed, int asked) {}

  /**
   * What a lookup found for the event in view.
   *
   * @param records how many; -1 if it was not asked
   */
  record LookupFound(String name, String of, int records, int foundIn, int askedIn) {}

  /** A value that the bridge names, for the event in view. */
  record NamedValue(
      String name,
      String type,
      String start,
      List<Leaving.LeavingStep> steps,
      String value,
      String problem) {}

  /** A key that samples ask for in vain. */
  record UnknownKey(String table, List<String> keys, int times) {}

  private final Catalog catalog;
  private final Samples samples;
  private final SampleWorld world;

  DeskTrial(Catalog catalog, Samples samples, SampleWorld world) {
    this.catalog = catalog;
    this.samples = samples;
    this.world = world;
  }

  /**
   * @param wanted the id of the sample to look at; the first if there is none of it
   */
  TrialView run(String id, String json, String wanted) {
    DraftCompiler.Compiled compiled = DraftCompiler.compile(json, catalog);
    ObjectNode draft = DraftJson.parse(json);
    // Of two places that are kept alike the proof sheet tells; there is no strip of events.
    DraftStart start = DraftStart.of(draft, catalog);
    Samples.Found found =
        draft.has("between") ? new Samples.Found(List.of(), "") : samples.of(id, start, IN_STRIP);
    List<Sample> all = found.samples();
    int inView = place(all, wanted);
    Optional<BridgeVersion> bridge = compiled.version();
    List<Decision> decisions = bridge.map(version -> decide(version, all)).orElse(List.of());
    Optional<Decision> decision =
        decisions.isEmpty() ? Optional.empty() : Optional.of(decisions.get(inView));
    Set<String> ruled = new LinkedHashSet<>();
    draft.path("fields").fieldNames().forEachRemaining(ruled::add);
    return new TrialView(
        start(draft, start, bridge),
        compiled.problems().stream().map(p -> new ProblemView(p.path(), p.message())).toList(),
        bridge
            .map(v -> v.remarks().stream().map(DocumentProblem::message).toList())
            .orElse(List.of()),
        strip(all, decisions, bridge),
        found.problem(),
        inView,
        bridge
            .map(version -> Arriving.groups(SourceColumns.of(version, all, decisions), inView))
            .orElse(List.of()),
        bridge.map(version -> lookups(version, decisions, inView)).orElse(List.of()),
        decision.map(DeskTrial::values).orElse(List.of()),
        target(draft, bridge)
            .map(
                target ->
                    Leaving.fields(rules(target, ruled, bridge), compiled.problems(), decision))
            .orElse(List.of()),
        AfterTasks.of(draft, catalog, compiled.problems(), bridge, decision),
        decision.map(made -> made.verdict().words()).orElse(""),
        decision.map(DeskTrial::because).orElse(List.of()),
        decision.map(made -> tests(made, decisions)).orElse(List.of()),
        (int) decisions.stream().filter(made -> made.verdict() != Verdict.PASSED_BY).count(),
        decision.map(DeskTrial::tasks).orElse(0),
        decision.flatMap(Decision::key).map(MatchKey::text).orElse(""),
        unknownKeys(decisions),
        StatusGrids.of(bridge));
  }

  private static StartView start(
      ObjectNode draft, DraftStart start, Optional<BridgeVersion> bridge) {
    return new StartView(
        start.collection(),
        bridge
            .map(version -> version.target().collection())
            .orElse(draft.at("/to/collection").asText()),
        draft.path("from").has("places") ? start.collections().size() : 0);
  }

  /** Of several places it is known where they lead to once the draft is compiled. */
  private Optional<CollectionShape> target(ObjectNode draft, Optional<BridgeVersion> bridge) {
    return AfterTasks.place(draft, draft, catalog)
        .or(() -> bridge.filter(one -> !one.places().isEmpty()).map(BridgeVersion::target));
  }

  private static Leaving.Rules rules(
      CollectionShape target, Set<String> ruled, Optional<BridgeVersion> bridge) {
    return new Leaving.Rules(
        "fields",
        target,
        ruled,
        bridge.map(version -> version.plan().allFields()).orElse(List.of()),
        Explanation.Lineage::isOfTask);
  }

  /** How many tasks come of an event, without what comes after them. */
  private static int tasks(Decision decision) {
    return (int) decision.tasks().stream().filter(task -> !task.then()).count();
  }

  /** What a version makes of samples, explained. */
  List<Decision> decide(BridgeVersion bridge, List<Sample> all) {
    return all.stream()
        .map(sample -> Decider.decide(bridge, sample.event(), world, Mode.EXPLAINED))
        .toList();
  }

  private static int place(List<Sample> samples, String wanted) {
    for (int i = 0; i < samples.size(); i++) {
      if (samples.get(i).id().equals(wanted)) {
        return i;
      }
    }
    return 0;
  }

  private static List<LookupFound> lookups(
      BridgeVersion bridge, List<Decision> decisions, int inView) {
    List<LookupFound> found = new ArrayList<>();
    for (CompiledLookup lookup : bridge.lookups()) {
      String name = lookup.rule().name();
      int asked = 0;
      int answered = 0;
      int here = -1;
      for (int i = 0; i < decisions.size(); i++) {
        int records = records(decisions.get(i), name);
        asked += records >= 0 ? 1 : 0;
        answered += records > 0 ? 1 : 0;
        here = i == inView ? records : here;
      }
      found.add(
          new LookupFound(
              name,
              lookup.shape().recordWord() + " of " + lookup.shape().systemName(),
              here,
              answered,
              asked));
    }
    return found;
  }

  private static int records(Decision decision, String lookup) {
    return decision.answers().stream()
        .filter(answer -> answer.lookup().equals(lookup))
        .findFirst()
        .map(answer -> answer.records().size())
        .orElse(-1);
  }

  private static List<NamedValue> values(Decision decision) {
    return decision.explanation().named().stream()
        .map(
            way ->
                new NamedValue(
                    way.target().key(),
                    way.target().type().toString(),
                    Leaving.text(way.start()),
                    way.steps().stream().map(Leaving::step).toList(),
                    Leaving.text(way.result()),
                    Leaving.problem(way.result())))
        .toList();
  }

  private static List<String> because(Decision decision) {
    List<String> because = new ArrayList<>();
    if (!decision.because().isEmpty()) {
      because.add(decision.because());
    }
    decision.failures().forEach(failure -> because.add(Words.sentence(failure)));
    return because;
  }

  private static List<TestView> tests(Decision inView, List<Decision> all) {
    Map<String, int[]> counted = new LinkedHashMap<>();
    for (Decision decision : all) {
      for (TestResult test : decision.explanation().tests()) {
        int[] count = counted.computeIfAbsent(test.sentence(), s -> new int[2]);
        count[0] += test.met() ? 1 : 0;
        count[1]++;
      }
    }
    return inView.explanation().tests().stream()
        .map(
            test -> {
              int[] count = counted.getOrDefault(test.sentence(), new int[2]);
              return new TestView(test.sentence(), test.value(), test.met(), count[0], count[1]);
            })
        .toList();
  }

  private static List<UnknownKey> unknownKeys(List<Decision> decisions) {
    Map<TableUse, Integer> times = new LinkedHashMap<>();
    for (Decision decision : decisions) {
      for (TableUse use : decision.tableUses()) {
        if (!use.found()) {
          times.merge(use, 1, Integer::sum);
        }
      }
    }
    return times.entrySet().stream()
        .map(e -> new UnknownKey(e.getKey().table(), e.getKey().keys(), e.getValue()))
        .toList();
  }

  private static List<SampleView> strip(
      List<Sample> samples, List<Decision> decisions, Optional<BridgeVersion> bridge) {
    List<SampleView> strip = new ArrayList<>();
    for (int i = 0; i < samples.size(); i++) {
      Sample sample = samples.get(i);
      Optional<Decision> decision =
          decisions.isEmpty() ? Optional.empty() : Optional.of(decisions.get(i));
      strip.add(
          new SampleView(
              sample.id(),
              sample.origin(),
              sample.event().record(),
              sample.event().kind(),
              sample.event().time(),
              decision.map(made -> made.verdict().words()).orElse(""),
              decision.map(made -> title(made, bridge)).orElse(""),
              decision.flatMap(Decision::key).map(MatchKey::text).orElse("")));
    }
    return strip;
  }

  private static String title(Decision decision, Optional<BridgeVersion> bridge) {
    return bridge
        .map(version -> decision.task().get(version.target().titleField()))
        .map(value -> Words.limited(value.display(), 120))
        .orElse("");
  }
}
