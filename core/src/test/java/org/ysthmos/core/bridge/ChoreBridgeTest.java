package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.dialect.Dialects;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreJson;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.chore.ChoreTimes.Progress;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.decide.ChoreLook;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.reference.BridgeSchema;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Text;

/** Bridges over a table of which each row comes round: their documents, rows and times. */
class ChoreBridgeTest {

  private static final String DOCUMENT =
      """
      bridge: rounds-of-the-garden
      name: Rounds
      purpose: Each round of the garden is a job when its time comes
      from:
        system: chore-table
        collection: rounds
        event: [created, changed, removed]
        chores:
          every: /every
          zone: Europe/Lisbon
          at: /at
          start: { value: /first, steps: [read-day: uuuu-MM-dd] }
          done: { value: /done, steps: [read-day: uuuu-MM-dd] }
          lead: /lead
          off-days: next
          calendar: office
          spread: PT10M
        catch-up: latest
      to: { system: works-ledger, collection: jobs }
      match: [event/record, /occurrence/said]
      fields:
        title: { text: "{/round}, then again on {/occurrence/next}" }
        due: /occurrence/day
        status: { always: planned }
      """;

  /** A Friday. */
  private static final Instant NOW = Instant.parse("2026-11-20T10:00:00Z");

  private static final BridgeVersion BRIDGE = compiled(DOCUMENT);

  private static BridgeVersion compiled(String document) {
    return BridgeCompiler.compile(document, 1, Garden.CATALOG);
  }

  private static Event row(String kind, String... cells) {
    ObjectNode data = JsonMapper.builder().build().createObjectNode();
    data.put("id", "r-101").put("round", "Water the ferns");
    for (String cell : cells) {
      int at = cell.indexOf('=');
      data.put(cell.substring(0, at), cell.substring(at + 1));
    }
    return new Event("e-1", "chore-table", "rounds", kind, "r-101", NOW, data);
  }

  private static Decision decided(BridgeVersion bridge, Event event) {
    return Decider.decide(bridge, event, Garden.world(), Mode.PLAIN);
  }

  private static Chore chore(String... cells) {
    Decision decision = decided(BRIDGE, row("changed", cells));
    assertThat(decision.failures()).isEmpty();
    assertThat(decision.verdict()).isEqualTo(Verdict.PASSED_BY);
    return ((ChoreLook.Comes) decision.chore().orElseThrow()).chore();
  }

  private static List<ToMake> times(Chore chore, int most) {
    return new ChoreTimes(chore, Garden.CATALOG.calendar("office"), Duration.ZERO)
        .after(Progress.from(NOW), most);
  }

  @Test
  void documentGoesRoundAndFitsThePublishedSchema() {
    BridgeDefinition first = BridgeReader.read(DocumentNode.parse(DOCUMENT));
    String written = BridgeWriter.write(first);
    assertThat(BridgeReader.read(DocumentNode.parse(written))).isEqualTo(first);
    assertThat(written).contains("zone: Europe/Lisbon").contains("every: /every");
    var schema =
        SchemaRegistry.withDefaultDialect(Dialects.getDraft202012())
            .getSchema(BridgeSchema.write().toString(), InputFormat.JSON);
    assertThat(schema.validate(written, InputFormat.YAML)).isEmpty();
    assertThat(schema.validate(written.replace("zone:", "zones:"), InputFormat.YAML)).isNotEmpty();
  }

  @Test
  void hearsItsOwnTimesBesideWhatItNames() {
    assertThat(BRIDGE.definition().heard())
        .containsExactly(
            "created",
            "changed",
            "removed",
            "due for rounds-of-the-garden",
            "missed for rounds-of-the-garden",
            "read for rounds-of-the-garden");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        // Each row: its cells, what people read, the next two days on which it is due.
        "every=every Monday;at=06:00 | every Monday at 06:00 | 2026-11-23 2026-11-30",
        "every=every fourth Friday at 07:30;first=2026-11-06 | every fourth Friday at 07:30"
            + " | 2026-12-04 2027-01-04",
        "every=FREQ=MONTHLY\\;BYMONTHDAY=29;at=06:00 | on the 29th | 2026-11-30 2026-12-31",
        "every=the last working day of each month | on the last working day | 2026-11-30 2026-12-31",
        "every=every 10 days;first=2026-11-01 | every 10 days | 2026-11-23 2026-12-01",
        "every=10 days after it was done;done=2026-11-18 | 10 days after it was done at 00:00 in Lisbon | 2026-11-30",
        "every=a week after done at 08:00;done=2026-11-18 | 1 week after it was done at 08:00 | 2026-11-25",
        "every=1 month after it was done;done=2027-01-31 | 1 month | 2027-03-01",
        "every=every Monday after it was done;done=2026-11-23 | once it was done | 2026-11-30",
        "every=every Monday after it was done;first=2026-12-03 | once it was done | 2026-12-07",
        "every=10 days after it was done;first=2026-12-03 | days after it was done | 2026-12-03",
        // Done long ago it is due, whether the row was known then or not.
        "every=10 days after it was done;done=2026-10-01 | days after it was done | 2026-10-12",
      })
  void rowSaysWhenItComesRound(String cells, String words, String days) {
    String[] split = cells.split("(?<!\\\\);");
    for (int i = 0; i < split.length; i++) {
      split[i] = split[i].replace("\\;", ";");
    }
    Chore chore = chore(split);
    assertThat(chore.words()).contains(words);
    assertThat(
            times(chore, 2).stream()
                .map(one -> one.time().at().toLocalDate().toString())
                .collect(Collectors.joining(" ")))
        .isEqualTo(days);
    Chore kept = ChoreJson.read(ChoreJson.write(chore));
    assertThat(kept).isEqualTo(chore);
    assertThat(kept.comesLike(chore)).isTrue();
  }

  @ParameterizedTest
  @CsvSource({
    "every=every 10 days; , every: from when that counts is not said",
    "every=now and then; , every: “now and then” says nothing that comes round",
    "every=every Monday;lead=soon , lead: “soon” does not say how long before",
    "every=every Monday;at=25:00 , at: “25:00” is no time of day",
    "every=every Monday;first=soon , first: is not written like",
    "every=10 days after it was done;done=some day , done: is not written like",
  })
  void badRowIsNamedAndRests(String cells, String problem) {
    Decision decision = decided(BRIDGE, row("changed", cells.split(";")));
    assertThat(decision.verdict()).isEqualTo(Verdict.FAILED);
    String field = problem.substring(0, problem.indexOf(':'));
    assertThat(decision.failures().getFirst().message()).startsWith(field + ": ");
    assertThat(decision.failures().getFirst().remedy()).isPresent();
    if (!problem.contains("is not written")) {
      assertThat(decision.failures().getFirst().message()).startsWith(problem);
    }
    assertThat(decision.chore()).get().isInstanceOf(ChoreLook.Rests.class);
  }

  @Test
  void rowThatIsGoneOrSaysNothingRests() {
    Decision gone = decided(BRIDGE, row("removed", "every=every Monday"));
    assertThat(gone.because()).contains("its row is gone");
    assertThat(gone.chore()).get().isInstanceOf(ChoreLook.Rests.class);
    Decision blank = decided(BRIDGE, row("changed", "every= "));
    assertThat(blank.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(blank.because()).contains("does not say how often");
    Decision never = decided(BRIDGE, row("changed", "every=10 days after it was done", "done= "));
    assertThat(never.because()).contains("it was never done");
  }

  @ParameterizedTest
  @CsvSource({
    // Monday 23 and 30 November, in Lisbon, which is on UTC then.
    "3 , 2026-11-20T10:00:00Z 2026-11-27T06:00:00Z",
    "3 working days , 2026-11-20T10:00:00Z 2026-11-25T06:00:00Z",
    "1 day , 2026-11-22T06:00:00Z 2026-11-29T06:00:00Z",
  })
  void taskIsMadeSoLongBeforeButNotBeforeTheRowWasThere(String lead, String made) {
    List<ToMake> times = times(chore("every=every Monday at 06:00", "lead=" + lead), 2);
    assertThat(times.stream().map(one -> one.make().toString()).collect(Collectors.joining(" ")))
        .isEqualTo(made);
  }

  @Test
  void timeOfRowMakesATaskOfWhatStandsInIt() {
    Event row = row("changed", "every=every Monday");
    List<ToMake> times = times(chore("every=every Monday"), 2);
    Event due =
        ChoreSource.event(
            "rounds-of-the-garden", row, times.getFirst(), "", Optional.of(times.get(1).time()));
    assertThat(due.id()).isEqualTo("rounds-of-the-garden/r-101/2026-11-23T00:00Z");
    assertThat(due.record()).isEqualTo("r-101");
    Decision decision = decided(BRIDGE, due);
    assertThat(decision.verdict()).isEqualTo(Verdict.CREATE);
    assertThat(decision.task())
        .containsEntry("title", Text.of("Water the ferns, then again on 2026-11-30"))
        .containsEntry("due", Day.of(2026, 11, 23));
    Decision missed =
        decided(
            BRIDGE,
            ChoreSource.missed(
                "rounds-of-the-garden",
                row,
                List.of(times.getFirst().time()),
                "the bridge was held",
                BRIDGE.chores().orElseThrow().rules().catchUp()));
    assertThat(missed.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(missed.because()).contains("the bridge was held").contains("the latest alone");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "zone: Europe/Lisbon | zone: Europe/Lisboa | Europe/Lisboa",
        "every: /every | every: now and then | says nothing that comes round",
        "every: /every | every: /often | field",
        "every: /every | every: /occurrence/said | known only once it is due",
        "lead: /lead | lead: soon | does not say how long before",
        "at: /at | at: at noon | is none",
        "start: { value: /first, steps: [read-day: uuuu-MM-dd] } | start: /first | read-day",
        "calendar: office | calendar: nobody | calendar",
        "spread: PT10M | spread: P2D | twelve hours",
        "event: [created, changed, removed] | event: [created, changed, removed] | ",
      })
  void documentThatCannotBeUsedSaysWhere(String stands, String other, String problem) {
    String document = DOCUMENT.replace(stands.strip(), other.strip());
    if (problem == null) {
      assertThat(compiled(document).chores()).isPresent();
      return;
    }
    assertThatThrownBy(() -> compiled(document))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(problem);
  }

  @Test
  void catchUpNeedsSomethingThatComesRound() {
    String document =
        DOCUMENT
            .replaceAll("(?s)  chores:.*?  catch-up", "  catch-up")
            .replace(" {/occurrence/next}", "");
    assertThatThrownBy(() -> compiled(document)).hasMessageContaining("nothing comes round");
  }
}
