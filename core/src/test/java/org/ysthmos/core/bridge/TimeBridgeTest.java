package org.ysthmos.core.bridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.dialect.Dialects;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.Timetable;
import org.ysthmos.core.reference.BridgeSchema;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.value.Day;

/** Bridges that begin with times: their documents, their events, and what those come to. */
class TimeBridgeTest {

  private static final String DOCUMENT =
      """
      bridge: partner-call
      name: Partner call
      purpose: The partner garden is called every fourth Friday
      from:
        times:
          rule: every fourth Friday
          zone: Pacific/Auckland
          start: 2026-11-06T09:00
          off-days: next
          calendar: office
        catch-up: latest
      to: { system: works-ledger, collection: jobs }
      match: [event/id]
      fields:
        title: { text: "Call the partner garden" }
        due: /occurrence/day
        status: { always: planned }
      """;

  private static BridgeVersion compiled(String document) {
    return BridgeCompiler.compile(document, 1, Garden.CATALOG);
  }

  private static List<Occurrence> times(BridgeVersion bridge) {
    Timetable timetable = bridge.definition().from().times().orElseThrow();
    WorkingCalendar office = Garden.CATALOG.calendar("office").orElseThrow();
    return new Occurrences(timetable.times(), Optional.of(office))
        .after(Instant.parse("2026-11-20T00:00:00Z"), 3);
  }

  @Test
  void documentGoesRoundAndFitsThePublishedSchema() throws Exception {
    BridgeDefinition first = BridgeReader.read(DocumentNode.parse(DOCUMENT));
    String written = BridgeWriter.write(first);
    assertThat(BridgeReader.read(DocumentNode.parse(written))).isEqualTo(first);
    assertThat(written)
        .contains("rule: FREQ=WEEKLY;INTERVAL=4;BYDAY=FR")
        .contains("catch-up: latest");
    var schema =
        SchemaRegistry.withDefaultDialect(Dialects.getDraft202012())
            .getSchema(BridgeSchema.write().toString(), InputFormat.JSON);
    assertThat(schema.validate(written, InputFormat.YAML)).isEmpty();
    assertThat(schema.validate(written.replace("latest", "some"), InputFormat.YAML)).isNotEmpty();
  }

  @Test
  void timeIsDecidedLikeAnyEvent() {
    BridgeVersion bridge = compiled(DOCUMENT);
    assertThat(bridge.calendars()).contains("office");
    Occurrence time = times(bridge).getFirst();
    Event event = TimeSource.event("partner-call", time, "");
    assertThat(event.id()).isEqualTo("partner-call/2026-12-04T09:00+13:00");
    assertThat(event.time()).isEqualTo(Instant.parse("2026-12-03T20:00:00Z"));
    Decision decision = Decider.decide(bridge, event, Garden.world(), Mode.PLAIN);
    assertThat(decision.verdict()).as(decision.toString()).isEqualTo(Verdict.CREATE);
    // The day is that of the garden there, though it is still Thursday elsewhere.
    assertThat(decision.deliveries().getFirst().fields().get("due"))
        .isEqualTo(new Day(LocalDate.parse("2026-12-04")));
  }

  @Test
  void whyATimeWasMissedCanBeAskedFor() {
    BridgeVersion bridge =
        compiled(
            DOCUMENT.replace(
                "match:", "when: { not: { value: /occurrence/missed, is: present } }\nmatch:"));
    Occurrence time = times(bridge).getFirst();
    assertThat(verdict(bridge, TimeSource.event("partner-call", time, "")))
        .isEqualTo(Verdict.CREATE);
    assertThat(verdict(bridge, TimeSource.event("partner-call", time, "the bridge was held")))
        .isEqualTo(Verdict.PASSED_BY);
    assertThat(TimeSource.asked("partner-call", time, "someone").id())
        .as("it is the same event, so that it does not come twice")
        .isEqualTo(TimeSource.event("partner-call", time, "").id());
  }

  private static Verdict verdict(BridgeVersion bridge, Event event) {
    return Decider.decide(bridge, event, Garden.world(), Mode.PLAIN).verdict();
  }

  @Test
  void whatWasMissedIsPassedByWithItsReason() {
    BridgeVersion bridge = compiled(DOCUMENT);
    Event event =
        TimeSource.missed("partner-call", times(bridge), "Ysthmos was not running", CatchUp.LATEST);
    Decision decision = Decider.decide(bridge, event, Garden.world(), Mode.EXPLAINED);
    assertThat(decision.verdict()).isEqualTo(Verdict.PASSED_BY);
    assertThat(decision.because())
        .startsWith("3 times from Fri 4 Dec 2026, 09:00 to ")
        .endsWith(
            "were missed, as Ysthmos was not running; the bridge makes up for the latest alone");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          calendar: office            | calendar: orchard    | from/times/calendar | orchard
          calendar: office            |                      | from/times/off-days | say which days are working days
          rule: every fourth Friday   | rule: now and then   | from/times/rule     | says nothing that comes round
          zone: Pacific/Auckland      | zone: Auckland       | from/times/zone     | write a zone such as Europe/Lisbon
          catch-up: latest            | every: PT1M          | from                | every
          to: { system: works-ledger, collection: jobs } | to: record | to        | no record that the event came from
          due: /occurrence/day        | due: /opens          | fields/due          | /opens
          """)
  void whatCannotBeIsToldAtItsPlace(String was, String is, String path, String why) {
    assertThatThrownBy(() -> compiled(DOCUMENT.replace(was, is == null ? "" : is)))
        .isInstanceOfSatisfying(
            DocumentException.class,
            e ->
                assertThat(e.problems())
                    .anySatisfy(
                        problem -> {
                          assertThat(problem.path()).startsWith(path);
                          assertThat(problem.message()).contains(why);
                        }));
  }

  @Test
  void systemOfTimesIsNoPlaceToLookThingsUp() {
    assertThatThrownBy(
            () ->
                compiled(
                    DOCUMENT.replace(
                        "match:",
                        "lookups: { other: { in: time/partner-call, by: { id: event/id } } }\nmatch:")))
        .isInstanceOf(DocumentException.class);
  }
}
