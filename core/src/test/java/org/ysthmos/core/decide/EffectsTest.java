package org.ysthmos.core.decide;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.decide.PlannedDelivery.Awaited;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.testkit.Desk;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.Text;

class EffectsTest {

  private static final BridgeVersion BRIDGE = Desk.bridge(Desk.BRIDGE);
  private static final Event OPENED =
      Desk.ticket("opened", "T-1", "{\"place\":\"Fern gully\",\"asker\":\"rui@example.org\"}");

  private static Decision decide(BridgeVersion bridge, Event event, World world) {
    return Decider.decide(bridge, event, world, Mode.EXPLAINED);
  }

  private static TaskDecision of(Decision decision, String name) {
    return decision.tasks().stream()
        .filter(task -> task.member().equals(name))
        .findFirst()
        .orElseThrow();
  }

  private static Optional<MatchKey> after(TaskDecision task) {
    return task.delivery().flatMap(PlannedDelivery::awaited).map(Awaited::key);
  }

  @Test
  void taskComesFirstThenTheRecordThenTheLetter() {
    Decision decision = decide(BRIDGE, OPENED, Desk.world());
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    TaskDecision task = decision.tasks().getFirst();
    TaskDecision back = of(decision, "back");
    TaskDecision letter = of(decision, "tell");
    assertThat(after(task)).isEmpty();
    assertThat(after(back)).contains(task.key());
    assertThat(after(letter)).contains(back.key());
    assertThat(back.delivery().orElseThrow().record()).contains("T-1");
    assertThat(letter.delivery().orElseThrow().record()).isEmpty();
    assertThat(decision.deliveries().stream().map(PlannedDelivery::idempotencyKey))
        .doesNotHaveDuplicates();
  }

  @Test
  void whatIsMadeIsNamedWhenItIsThere() {
    Decision decision = decide(BRIDGE, OPENED, Desk.world());
    Made made = Made.of("J-7", Optional.of(URI.create("https://board.example/J-7")));
    Map<String, org.ysthmos.core.value.Value> letter =
        of(decision, "tell").delivery().orElseThrow().fields();
    assertThat(made.filled(letter.get("text")))
        .isEqualTo(Text.of("Job J-7 is made: https://board.example/J-7"));
    Map<String, org.ysthmos.core.value.Value> back =
        of(decision, "back").delivery().orElseThrow().fields();
    assertThat(made.filled(back.get("job"))).isEqualTo(Text.of("J-7"));
    assertThat(made.filled(back.get("page"))).isEqualTo(Link.of("https://board.example/J-7"));
    assertThat(made.filled(back.get("state"))).isEqualTo(Text.of("taken on"));
    assertThat(Made.shown(letter.get("text").display()))
        .isEqualTo("Job (id of the task) is made: (link of the task)");
  }

  /** A world in which the task is there, and its page is known. */
  private static World withPage(TrialWorld world) {
    return new MemoryOfPage(world);
  }

  private record MemoryOfPage(TrialWorld now) implements World {
    @Override
    public Optional<URI> page(String system, String collection, String record) {
      return Optional.of(URI.create("https://board.example/" + record));
    }

    @Override
    public LookupAnswer lookUp(String lookup, Question question) {
      return now.lookUp(lookup, question);
    }

    @Override
    public Optional<PairState> pair(String bridge, MatchKey key) {
      return now.pair(bridge, key);
    }

    @Override
    public TouchAnswer touched(MatchKey key, PairState pair) {
      return now.touched(key, pair);
    }

    @Override
    public Optional<org.ysthmos.core.table.ReferenceTable> table(String id) {
      return now.table(id);
    }

    @Override
    public Optional<org.ysthmos.core.calendar.WorkingCalendar> calendar(String id) {
      return now.calendar(id);
    }

    @Override
    public Optional<com.fasterxml.jackson.databind.JsonNode> previous(Event event) {
      return now.previous(event);
    }
  }

  @Test
  void letterIsSentOnceAndTheRecordChangedOnlyIfSomethingIsAnother() {
    TrialWorld world = Desk.world();
    world.carryOut(OPENED, decide(BRIDGE, OPENED, withPage(world)));
    Event again = Desk.ticket("changed", "T-1", "{\"place\":\"Moss\",\"asker\":\"x@example.org\"}");
    Decision second = decide(BRIDGE, again, withPage(world));
    assertThat(second.tasks().getFirst().verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(of(second, "tell").delivery()).isEmpty();
    assertThat(of(second, "tell").because()).contains("done before");
    // The marks of the first decision are real by now, so that job and page are written once more.
    world.carryOut(again, second);
    Decision third =
        decide(
            BRIDGE,
            Desk.ticket(
                "changed", "T-1", "{\"place\":\"Moss\",\"asker\":\"x@example.org\",\"n\":1}"),
            withPage(world));
    assertThat(third.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(third.deliveries()).isEmpty();
  }

  @Test
  void conditionOfItsOwnLeavesTheRestAsItIs() {
    Decision decision =
        decide(BRIDGE, Desk.ticket("opened", "T-2", "{\"place\":\"Moss\"}"), Desk.world());
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(of(decision, "tell").delivery()).isEmpty();
    assertThat(of(decision, "tell").because()).contains("asker is given");
    assertThat(of(decision, "back").delivery()).isPresent();
  }

  @Test
  void bridgeMayEndInTheRecordItself() {
    BridgeVersion bridge =
        Desk.bridge(
            """
            bridge: take-on
            name: Takes tickets on
            purpose: Says that a ticket was seen
            from: { system: desk, collection: tickets, event: opened }
            to: record
            match: [event/record]
            fields: { state: { always: seen } }
            ceiling: { creates: 10, per: PT1H }
            """);
    TrialWorld world = Desk.world();
    Decision decision = decide(bridge, OPENED, world);
    assertThat(decision.verdict()).isEqualTo(Verdict.UPDATE);
    assertThat(decision.deliveries().getFirst().record()).contains("T-1");
    assertThat(decision.deliveries().getFirst().collection()).isEqualTo("tickets");
    world.carryOut(OPENED, decision);
    assertThat(decide(bridge, OPENED, world).verdict()).isEqualTo(Verdict.UNCHANGED);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "job: made/id|job: made/ids|did you mean “id”",
        "job: made/id|job: { value: made/id, steps: [trim] }|no steps can go over them",
        "title: /place|title: made/id|only in the fields of what comes then",
        "to: record|to: recrd|or “record”",
        "state: { always: taken on }|state: { always: [a] }|one value belongs here",
        "when: { value: /asker, is: present }|when: { value: /askr, is: present }|did you mean",
        "to: { system: post, collection: letters }|to: { system: pots, collection: letters }|did you"
            + " mean “post”",
        "collection: letters }|collection: leters }|did you mean “letters”",
        "to: record|to: { system: desk, collection: tickets }|Tickets of Desk cannot be made",
        "event: [opened, changed]|event: [opened, chnaged]|did you mean “changed”",
        "system: board, collection: jobs|system: desk, collection: tickets|cannot be made"
      })
  void mistakeIsNamedAtItsPlace(String right, String wrong, String says) {
    assertThat(Desk.BRIDGE).contains(right);
    assertThatThrownBy(() -> Desk.bridge(Desk.BRIDGE.replace(right, wrong)))
        .hasMessageContaining(says)
        .hasMessageContaining("line ");
  }

  @Test
  void recordIsNoListOfTasks() {
    assertThatThrownBy(
            () ->
                Desk.bridge(
                    Desk.BRIDGE
                        .replace("to: { system: board, collection: jobs }", "to: record")
                        .replace("  title: /place", "  state: item/value")
                        .replace(
                            "fields:\n  state",
                            "for-each: { list: { value: /place, steps:"
                                + " [split: \",\"] } }\nfields:\n  state")))
        .hasMessageContaining("there is no list and no set of tasks");
  }

  @ParameterizedTest
  @ValueSource(strings = {Desk.BRIDGE, JOB_BACK})
  void documentGoesRound(String document) {
    String written = BridgeWriter.write(BridgeReader.read(DocumentNode.parse(document)));
    assertThat(BridgeReader.read(DocumentNode.parse(written)))
        .isEqualTo(BridgeReader.read(DocumentNode.parse(document)));
    assertThat(BridgeWriter.write(BridgeReader.read(DocumentNode.parse(written))))
        .isEqualTo(written);
  }

  /** What became of a job goes back to the ticket that it was made of. */
  private static final String JOB_BACK =
      """
      bridge: job-back
      name: Jobs to tickets
      purpose: A ticket shows how far its job is
      from: { system: board, collection: jobs, event: changed }
      to: { system: desk, collection: tickets, record: ticket/record }
      lookups:
        ticket: { in: ticket-to-job, from: tasks, by: { task: event/record }, none: pass-by }
      match: [event/record]
      fields: { state: /status }
      ceiling: { creates: 10, per: PT1H }
      """;

  private static Event job(String record, String status) {
    return Garden.event("board/jobs", "changed", record, "{\"status\":\"%s\"}".formatted(status));
  }

  @Test
  void whatBecameOfATaskGoesBackToTheRecordItWasMadeOf() {
    BridgeVersion back = Desk.bridge(JOB_BACK);
    TrialWorld world = Desk.world();
    world.carryOut(OPENED, decide(BRIDGE, OPENED, world));
    Decision done = decide(back, job("new-1", "done"), world);
    assertThat(done.verdict()).isEqualTo(Verdict.UPDATE);
    PlannedDelivery delivery = done.deliveries().getFirst();
    assertThat(delivery.record()).contains("T-1");
    assertThat(delivery.system() + "/" + delivery.collection()).isEqualTo("desk/tickets");
    assertThat(delivery.fields()).containsEntry("state", Text.of("done"));
    world.carryOut(job("new-1", "done"), done);
    assertThat(decide(back, job("new-1", "done"), world).verdict()).isEqualTo(Verdict.UNCHANGED);

    Decision ofNone = decide(back, job("J-77", "done"), world);
    assertThat(ofNone.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(ofNone.because()).contains("“J-77” is no task that bridge ticket-to-job made");
  }

  @Test
  void nothingIsMadeWhereNoRecordIsNamed() {
    BridgeVersion back = Desk.bridge(JOB_BACK.replace("none: pass-by", "none: empty"));
    Decision decision = decide(back, job("J-77", "done"), Desk.world());
    assertThat(decision.verdict()).isEqualTo(Verdict.UNCHANGED);
    assertThat(decision.tasks().getFirst().because())
        .isEqualTo("there is no record that it could change");
  }

  @Test
  void anotherRecordThanBeforeIsWrittenWhole() {
    BridgeVersion back = Desk.bridge(JOB_BACK.replace("event/record]", "/status]"));
    TrialWorld world = Desk.world();
    Event second = Desk.ticket("opened", "T-2", "{\"place\":\"Moss\"}");
    world.carryOut(OPENED, decide(BRIDGE, OPENED, world));
    Decision first = decide(BRIDGE, second, world);
    world.carryOut(second, first);
    world.carryOut(job("new-1", "done"), decide(back, job("new-1", "done"), world));
    MatchKey key = first.key().orElseThrow();
    String job = world.pair("ticket-to-job", key).flatMap(World.PairState::target).orElseThrow();
    assertThat(decide(back, job(job, "done"), world).deliveries().getFirst().record())
        .contains("T-2");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "record: ticket/record|record: tickt/record|did you mean “ticket”",
        "record: ticket/record|record: ticket/rcord|did you mean “/record”",
        "record: ticket/record|record: ticket/record, if-gone: leave|none to make anew",
        "none: pass-by|none: make, wait: PT1H|that is there already is not made",
        "by: { task: event/record }|by: { task: event/record, part: /status }|leave the other keys",
        "system: desk, collection: tickets|system: post, collection: letters|cannot be changed"
      })
  void mistakeInTheWayBackIsNamed(String right, String wrong, String says) {
    assertThat(JOB_BACK).contains(right);
    assertThatThrownBy(() -> Desk.bridge(JOB_BACK.replace(right, wrong)))
        .hasMessageContaining(says)
        .hasMessageContaining("line ");
  }

  /** Whatever comes in whichever order: no letter twice, and plain is as explained. */
  @Test
  void neverTwiceWhateverTheOrder() {
    Seeds.forSeeds(
        300,
        seeds -> {
          TrialWorld world = Desk.world();
          java.util.Set<String> letters = new java.util.HashSet<>();
          for (int i = 0; i < 12; i++) {
            String record = "T-" + seeds.below(3);
            String asker = seeds.below(3) == 0 ? "" : "a@example.org";
            Event event =
                Desk.ticket(
                    seeds.below(2) == 0 ? "opened" : "changed",
                    record,
                    "{\"place\":\"p%d\",\"asker\":\"%s\"}".formatted(seeds.below(3), asker));
            Decision decision = Decider.decide(BRIDGE, event, withPage(world), Mode.PLAIN);
            assertThat(DecisionJson.write(decision))
                .isEqualTo(DecisionJson.write(decide(BRIDGE, event, withPage(world))));
            List<PlannedDelivery> sent =
                decision.deliveries().stream()
                    .filter(one -> one.collection().equals("letters"))
                    .toList();
            sent.forEach(one -> assertThat(letters.add(one.idempotencyKey())).isTrue());
            world.carryOut(event, decision);
          }
        });
  }

  @Test
  void taskOfAnotherRecordIsAValue() {
    BridgeVersion bridge =
        Desk.bridge(
            Desk.BRIDGE
                .replace(
                    "match: [event/record]",
                    """
                    lookups:
                      above:
                        in: ticket-to-job
                        from: tasks
                        by: { record: /whole }
                        none: empty
                    match: [event/record]\
                    """)
                .replace("  title: /place", "  title: /place\n  parent: above/id"));
    TrialWorld world = Desk.world();
    Event part = Desk.ticket("opened", "T-9", "{\"place\":\"Moss\",\"whole\":\"T-1\"}");
    assertThat(decide(bridge, part, world).task().get("parent").display()).isEmpty();
    world.carryOut(OPENED, decide(BRIDGE, OPENED, world));
    assertThat(decide(bridge, part, world).task().get("parent").display()).isEqualTo("new-1");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "in: ticket-to-job, from: tasks, by: { recrd: /whole }|no key of tasks is called “recrd”",
        "in: ticket-to-job, from: tasks, by: { part: /whole }|say of which record",
        "in: desk/tickets, from: tasks, by: { record: /whole }|is no id",
        "in: ticket-to-job, by: { record: /whole }|system/collection",
        "in: ticket-to-job, from: tasks, by: { record: /whole }, wait: PT0S|longer than nothing",
        "in: ticket-to-job, from: tasks, by: { record: /whole }, wait: P31D|at most 30 days",
        "in: ticket-to-job, from: tasks, by: { record: /whole }, none: make|say how long the task",
        "in: desk/tickets, by: { id: /whole }, wait: PT1H, none: make|only a task is made"
      })
  void lookupAmongTasksIsChecked(String lookup, String says) {
    assertThatThrownBy(
            () ->
                Desk.bridge(
                    Desk.BRIDGE.replace(
                        "match: [event/record]",
                        "lookups: { above: { " + lookup + " } }\nmatch: [event/record]")))
        .hasMessageContaining(says);
  }
}
