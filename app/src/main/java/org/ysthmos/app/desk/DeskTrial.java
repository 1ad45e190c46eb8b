package org.ysthmos.app.desk;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;

/** What a draft makes of real events, with no effect. */
@Component
class DeskTrial {

  /** How many samples stand in the strip above the desk. */
  static final int IN_STRIP = 40;

  /** One sample in the strip. */
  record SampleView(
      String id,
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
   * @param because why the event in view is passed by or fails
   * @param tests the tests of the condition, each with whether it was met
   * @param passing how many samples the condition lets pass
   * @param tasks how many tasks the event in view makes
   */
  record TrialView(
      List<ProblemView> problems,
      List<String> remarks,
      List<SampleView> samples,
      int inView,
      List<Arriving.ArrivingGroup> arriving,
      List<Leaving.LeavingField> leaving,
      String verdict,
      List<String> because,
      List<TestView> tests,
      int passing,
      int tasks,
      String matchKey) {}

  /** One test of the condition, for the event in view. */
  record TestView(String sentence, String value, boolean met) {}

  private final Catalog catalog;
  private final Samples samples;
  private final SampleWorld world;

  DeskTrial(Catalog catalog, Samples samples, SampleWorld world) {
    this.catalog = catalog;
    this.samples = samples;
    this.world = world;
  }

  TrialView run(String json, int wanted) {
    DraftCompiler.Compiled compiled = DraftCompiler.compile(json, catalog);
    ObjectNode draft = DraftJson.parse(json);
    List<Event> events =
        samples.newest(
            draft.at("/from/system").asText(),
            draft.at("/from/collection").asText(),
            kinds(draft),
            IN_STRIP);
    int inView = Math.clamp(wanted, 0, Math.max(0, events.size() - 1));
    Optional<BridgeVersion> bridge = compiled.version();
    List<Decision> decisions =
        bridge.map(version -> decideAll(version, events, inView)).orElse(List.of());
    Optional<Decision> decision =
        decisions.isEmpty() ? Optional.empty() : Optional.of(decisions.get(inView));
    Set<String> ruled = new LinkedHashSet<>();
    draft.path("fields").fieldNames().forEachRemaining(ruled::add);
    return new TrialView(
        compiled.problems().stream().map(p -> new ProblemView(p.path(), p.message())).toList(),
        bridge
            .map(v -> v.remarks().stream().map(DocumentProblem::message).toList())
            .orElse(List.of()),
        strip(events, decisions, bridge),
        inView,
        bridge
            .map(version -> new Arriving(version, events, decisions, inView).groups())
            .orElse(List.of()),
        catalog
            .collection(draft.at("/to/system").asText(), draft.at("/to/collection").asText())
            .map(target -> Leaving.fields(target, ruled, compiled.problems(), bridge, decision))
            .orElse(List.of()),
        decision.map(made -> made.verdict().words()).orElse(""),
        decision.map(DeskTrial::because).orElse(List.of()),
        decision
            .map(
                made ->
                    made.explanation().tests().stream()
                        .map(test -> new TestView(test.sentence(), test.value(), test.met()))
                        .toList())
            .orElse(List.of()),
        (int) decisions.stream().filter(made -> made.verdict() != Verdict.PASSED_BY).count(),
        decision.map(made -> made.tasks().size()).orElse(0),
        decision.flatMap(Decision::key).map(MatchKey::text).orElse(""));
  }

  private static List<String> kinds(ObjectNode draft) {
    JsonNode event = draft.at("/from/event");
    List<String> kinds = new ArrayList<>();
    if (event.isArray()) {
      event.forEach(kind -> kinds.add(kind.asText()));
    } else {
      kinds.add(event.asText());
    }
    return kinds;
  }

  private List<Decision> decideAll(BridgeVersion bridge, List<Event> events, int explained) {
    List<Decision> decisions = new ArrayList<>(events.size());
    for (int i = 0; i < events.size(); i++) {
      Mode mode = i == explained ? Mode.EXPLAINED : Mode.PLAIN;
      decisions.add(Decider.decide(bridge, events.get(i), world, mode));
    }
    return decisions;
  }

  private static List<String> because(Decision decision) {
    List<String> because = new ArrayList<>();
    if (!decision.because().isEmpty()) {
      because.add(decision.because());
    }
    decision.failures().forEach(failure -> because.add(Words.sentence(failure)));
    return because;
  }

  private static List<SampleView> strip(
      List<Event> events, List<Decision> decisions, Optional<BridgeVersion> bridge) {
    List<SampleView> strip = new ArrayList<>();
    for (int i = 0; i < events.size(); i++) {
      Event event = events.get(i);
      Optional<Decision> decision =
          decisions.isEmpty() ? Optional.empty() : Optional.of(decisions.get(i));
      strip.add(
          new SampleView(
              event.id(),
              event.record(),
              event.kind(),
              event.time(),
              decision.map(made -> made.verdict().words()).orElse(""),
              decision.map(made -> title(made, bridge)).orElse(""),
              decision.flatMap(Decision::key).map(MatchKey::text).orElse("")));
    }
    return strip;
  }

  static String title(Decision decision, Optional<BridgeVersion> bridge) {
    return bridge
        .map(version -> decision.task().get(version.target().titleField()))
        .map(value -> Words.limited(value.display(), 120))
        .orElse("");
  }
}
