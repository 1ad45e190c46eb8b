package org.ysthmos.core.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.rehearsal.Rehearsal.Answers;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.GardenEvents;
import org.ysthmos.core.testkit.HazardReports;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Shores;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.Text;

/** A bridge over what came before, against what became of it. */
class RehearsalTest {

  private static final ObjectMapper JSON = new ObjectMapper();

  /** An event with what became of it. */
  private record Past(Event event, Then then) {}

  /** What a bridge makes of events in a world, kept and read again as the application does. */
  private static List<Past> live(BridgeVersion bridge, TrialWorld world, List<Event> events) {
    List<Past> past = new ArrayList<>();
    for (Event event : events) {
      Decision decision = Decider.decide(bridge, event, world, Mode.PLAIN);
      past.add(new Past(event, kept(decision, bridge, world)));
      world.carryOut(event, decision);
    }
    return past;
  }

  private static Then kept(Decision decision, BridgeVersion bridge, TrialWorld world) {
    Outcome outcome = Outcome.of(decision, key -> world.pair(bridge.definition().id(), key));
    try {
      return new Then(
          decision.verdict(),
          Optional.of(Outcome.read(outcome.write())),
          AnswersJson.read(JSON.readTree(AnswersJson.write(decision.answers()).toString())));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static Rehearsal rehearsal(BridgeVersion bridge) {
    // Nothing can be found in this world: what is found is from then.
    return new Rehearsal(bridge, Answers.OF_THEN, PairChain.inMemory(), Garden.world());
  }

  private static List<Rehearsed> rehearsed(BridgeVersion bridge, List<Past> past) {
    Rehearsal rehearsal = rehearsal(bridge);
    return past.stream().map(one -> rehearsal.next(one.event(), Optional.of(one.then()))).toList();
  }

  @TestFactory
  Stream<DynamicTest> theSameRulesMakeTheSameOfEveryPastWhereverItIsTakenUp() {
    return Garden.BRIDGES.stream()
        .map(
            id ->
                DynamicTest.dynamicTest(
                    id,
                    () ->
                        Seeds.forSeeds(
                            30,
                            seeds -> {
                              BridgeVersion bridge = Garden.bridge(id);
                              List<Event> events = new ArrayList<>();
                              for (int i = 0; i < 40; i++) {
                                Event sound = GardenEvents.sound(id);
                                events.add(
                                    seeds.below(3) == 0
                                        ? sound
                                        : GardenEvents.broken(sound, seeds));
                              }
                              List<Past> past = live(bridge, GardenEvents.world(), events);
                              int from = seeds.below(past.size());
                              assertThat(rehearsed(bridge, past.subList(from, past.size())))
                                  .noneMatch(Rehearsed::differs);
                            })));
  }

  private static Event mail(String id, String subject) {
    return mail(id, subject, "olive@tidewrack.example");
  }

  private static Event mail(String id, String subject, String from) {
    return Garden.event(
        "post-room/mails",
        "arrived",
        id,
        "{\"id\":\"%s\",\"subject\":\"%s\",\"from\":\"%s\"}".formatted(id, subject, from));
  }

  private static final String MAILS =
      """
      bridge: mails
      name: Mails
      purpose: Mails become jobs
      from: { system: post-room, collection: mails, event: [arrived, flagged] }
      to: { system: works-ledger, collection: jobs }
      %smatch: [/id]
      fields:
        title: { value: /subject%s }
        description: { value: /from }
      ceiling: { creates: 120, per: PT1H }
      """;

  private static BridgeVersion mails(String when, String steps) {
    return BridgeCompiler.compile(MAILS.formatted(when, steps), 1, Garden.CATALOG);
  }

  @Test
  void whatOneEventMakesCountsForThoseAfterIt() {
    BridgeVersion then = mails("", "");
    List<Past> past =
        live(
            then,
            Garden.world(),
            List.of(mail("m", "Dam"), mail("m", "Dam wall"), mail("m", "Dam wall")));
    assertThat(past)
        .extracting(one -> one.then().verdict())
        .containsExactly(Verdict.CREATE, Verdict.UPDATE, Verdict.UNCHANGED);

    BridgeVersion draft = mails("when: { value: /subject, ends-with: wall }\n", "");
    List<Rehearsed> now = rehearsed(draft, past);

    assertThat(now)
        .extracting(Rehearsed::now)
        .containsExactly(Verdict.PASSED_BY, Verdict.CREATE, Verdict.UNCHANGED);
    assertThat(now).extracting(Rehearsed::differs).containsExactly(true, true, false);
    assertThat(now).allMatch(one -> one.fields().isEmpty());
  }

  @Test
  void aRehearsalThatBeginsLaterKnowsThatTheTaskWasThere() {
    BridgeVersion then = mails("", "");
    List<Past> past = live(then, Garden.world(), List.of(mail("m", "Dam"), mail("m", "Dam wall")));

    List<Rehearsed> now =
        rehearsed(mails("", ", steps: [case: upper]"), past.subList(1, past.size()));

    assertThat(now).extracting(Rehearsed::now).containsExactly(Verdict.UPDATE);
    assertThat(now.getFirst().fields())
        .containsExactly(
            new Rehearsed.FieldDifference("", "title", new Text("Dam wall"), new Text("DAM WALL")));
  }

  @Test
  void aFieldThatIsNotRuledAnyMoreIsADifference() {
    List<Past> past = live(mails("", ""), Garden.world(), List.of(mail("m", "Dam")));
    BridgeVersion less =
        BridgeCompiler.compile(
            MAILS.formatted("", "").replace("  description: { value: /from }\n", ""),
            1,
            Garden.CATALOG);

    Rehearsed now = rehearsed(less, past).getFirst();

    assertThat(now.fields())
        .extracting(Rehearsed.FieldDifference::field)
        .containsExactly("description");
    assertThat(now.fields().getFirst().now().display()).isEmpty();
  }

  @Test
  void whatCouldNotBeWrittenThenIsNotThereForWhatFollows() {
    BridgeVersion bridge = mails("", "");
    Event event = mail("m", "Dam");
    Then made = live(bridge, Garden.world(), List.of(event)).getFirst().then();
    Then refused = new Then(Verdict.FAILED, made.decided(), Map.of());
    Rehearsal rehearsal = rehearsal(bridge);

    Rehearsed first = rehearsal.next(event, Optional.of(refused));
    Rehearsed again = rehearsal.next(event, Optional.of(made));

    assertThat(first.now()).isEqualTo(Verdict.CREATE);
    assertThat(first.then()).contains(Verdict.FAILED);
    assertThat(again.differs()).isFalse();
  }

  @Test
  void lookupsFindWhatTheyFoundThenOrWhatTheyFindNow() {
    BridgeVersion bridge = HazardReports.bridge();
    TrialWorld then = Garden.world();
    then.add("visitor-desk", "hazard-reports", named(Map.of("place", "Dam")));
    TrialWorld now = Garden.world();
    now.add("visitor-desk", "hazard-reports", named(Map.of("place", "Weir")));
    Event event = HazardReports.event("vd-1");
    Then kept = live(bridge, then, List.of(event)).getFirst().then();

    Rehearsed ofThen =
        new Rehearsal(bridge, Answers.OF_THEN, PairChain.inMemory(), now)
            .next(event, Optional.of(kept));
    Rehearsed ofNow =
        new Rehearsal(bridge, Answers.OF_NOW, PairChain.inMemory(), now)
            .next(event, Optional.of(kept));
    // What was not asked then can only be asked now.
    Rehearsed unheard =
        new Rehearsal(bridge, Answers.OF_THEN, PairChain.inMemory(), now)
            .next(event, Optional.empty());

    assertThat(ofThen.differs()).isFalse();
    assertThat(ofNow.fields())
        .containsExactly(
            new Rehearsed.FieldDifference(
                "", "title", new Text("Dam: Loose plank"), new Text("Weir: Loose plank")));
    assertThat(unheard.then()).isEmpty();
    assertThat(unheard.now()).isEqualTo(Verdict.CREATE);
    assertThat(unheard.differs()).isTrue();
  }

  private static ObjectNode named(Map<String, String> answers) {
    return HazardReports.report(answers).put("id", "vd-1");
  }

  @Test
  void allIsCountedByVerdictAndByField() {
    List<Past> past =
        live(
            mails("", ""),
            Garden.world(),
            List.of(mail("a", "Dam"), mail("b", "weir"), mail("c", "POND")));
    Tally tally = new Tally();
    rehearsed(
            mails("when: { not: { value: /subject, equal: weir } }\n", ", steps: [case: upper]"),
            past)
        .forEach(tally::add);
    tally.add(new Rehearsed(Optional.empty(), Verdict.CREATE, "", List.of()));

    assertThat(tally.events()).isEqualTo(4);
    assertThat(tally.differing()).isEqualTo(3);
    assertThat(tally.cells())
        .containsExactly(
            new Tally.Cell(Optional.of(Verdict.CREATE), Verdict.CREATE, 2),
            new Tally.Cell(Optional.of(Verdict.CREATE), Verdict.PASSED_BY, 1),
            new Tally.Cell(Optional.empty(), Verdict.CREATE, 1));
    assertThat(tally.fields()).containsExactly(new Tally.OfField("", "title", 1));
  }

  @Test
  void aBridgeThatGoesBothWaysIsNotRehearsed() {
    assertThatThrownBy(() -> rehearsal(Shores.bridge(Shores.BRIDGE)))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
