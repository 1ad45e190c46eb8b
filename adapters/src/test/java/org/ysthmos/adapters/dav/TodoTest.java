package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Link;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

class TodoTest {

  private static final Instant NOW = Instant.parse("2026-11-24T12:00:00Z");

  private static String calendar(String todo) {
    return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//ABC Corporation//NONSGML My Product//EN\r\n"
        + todo.strip().replace("\n", "\r\n")
        + "\r\nEND:VCALENDAR\r\n";
  }

  /** RFC 5545 section 3.6.2, the first example: a task due on a whole day. */
  @Test
  void taskOfTheStandardIsRead() {
    JsonNode task =
        Todo.read(
                calendar(
                    """
                    BEGIN:VTODO
                    UID:20070313T123432Z-456553@example.com
                    DTSTAMP:20070313T123432Z
                    DUE;VALUE=DATE:20070501
                    SUMMARY:Submit Quebec Income Tax Return for 2006
                    CLASS:CONFIDENTIAL
                    CATEGORIES:FAMILY,FINANCE
                    STATUS:NEEDS-ACTION
                    END:VTODO
                    """))
            .orElseThrow()
            .record("a", "1");
    assertThat(task.path("due").asText()).isEqualTo("2007-05-01");
    assertThat(task.path("title").asText()).isEqualTo("Submit Quebec Income Tax Return for 2006");
    assertThat(task.path("labels").toString()).isEqualTo("[\"FAMILY\",\"FINANCE\"]");
    assertThat(task.path("status").asText()).isEqualTo("NEEDS-ACTION");
  }

  /** RFC 5545 section 3.6.2, the second example: a task due at a moment, and completed. */
  @Test
  void taskThatIsDueAtAMomentIsRead() {
    JsonNode task =
        Todo.read(
                calendar(
                    """
                    BEGIN:VTODO
                    UID:20070514T103211Z-123404@example.com
                    DTSTAMP:20070514T103211Z
                    DTSTART:20070514T110000Z
                    DUE:20070709T130000Z
                    COMPLETED:20070707T100000Z
                    SUMMARY:Submit Revised Internet-Draft
                    PRIORITY:1
                    STATUS:NEEDS-ACTION
                    END:VTODO
                    """))
            .orElseThrow()
            .record("a", "1");
    assertThat(task.path("due").asText()).isEqualTo("2007-07-09T13:00:00Z");
    assertThat(task.path("priority").asInt()).isEqualTo(1);
  }

  /** RFC 5545 section 3.8.4.5 and 3.1: escaped commas and folded lines. */
  @Test
  void textIsReadUnfoldedAndUnescaped() {
    JsonNode task =
        Todo.read(
                calendar("BEGIN:VTODO\nUID:x\nSUMMARY:Rake\\, then \n  sweep\\;\\nrest\nEND:VTODO"))
            .orElseThrow()
            .record("a", "1");
    assertThat(task.path("title").asText()).isEqualTo("Rake, then  sweep;\nrest");
  }

  private static SequencedMap<String, Value> fields() {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("Sweep, rake; \"rest\""));
    fields.put("due", Day.parse("2026-11-30"));
    fields.put("priority", Decimal.parse("1"));
    fields.put("labels", new ListValue(ValueType.TEXT, List.of(Text.of("a,b"), Text.of("c"))));
    fields.put("link", Link.of("https://garden.example/t/1"));
    fields.put("parent", Text.of("p-1"));
    return fields;
  }

  @Test
  void taskThatIsMadeReadsBackAsItWasWritten() {
    Todo todo = Todo.make("key-1", NOW);
    todo.set(fields(), NOW);
    String written = todo.write();
    assertThat(written)
        .contains("DUE;VALUE=DATE:20261130", "UID:key-1", "DTSTAMP:20261124T120000Z");
    JsonNode task = Todo.read(written).orElseThrow().record("key-1", "t");
    assertThat(task.path("title").asText()).isEqualTo("Sweep, rake; \"rest\"");
    assertThat(task.path("due").asText()).isEqualTo("2026-11-30");
    assertThat(task.path("labels").toString()).isEqualTo("[\"a,b\",\"c\"]");
    assertThat(task.path("parent").asText()).isEqualTo("p-1");
    assertThat(task.path("link").asText()).isEqualTo("https://garden.example/t/1");
  }

  @Test
  void changeKeepsWhatWeDoNotKnowAndTakesAwayWhatIsNothing() {
    Todo todo =
        Todo.read(
                calendar(
                    """
                    BEGIN:VTODO
                    UID:x
                    SUMMARY:Old
                    DUE:20261130T170000Z
                    X-GARDEN-BED:7
                    BEGIN:VALARM
                    ACTION:DISPLAY
                    TRIGGER:-PT30M
                    DESCRIPTION:Soon
                    END:VALARM
                    END:VTODO
                    """))
            .orElseThrow();
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("New"));
    fields.put("due", Nothing.NOTHING);
    todo.set(fields, NOW);
    assertThat(todo.write())
        .contains("SUMMARY:New", "X-GARDEN-BED:7", "BEGIN:VALARM", "SEQUENCE:0")
        .doesNotContain("DUE");
  }

  /**
   * What others wrote stays letter by letter: names of zones (RFC 5545 section 3.2.19), carets (RFC
   * 6868), unknown components (section 3.6), folded lines, and what is no property at all.
   */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "DTSTART;TZID=Europe/Lisbon:20261130T090000",
        "DTSTART;TZID=Garden Time:20261130T090000",
        "ATTENDEE;CN=\"the ^'lead^'\":mailto:x@y.example",
        "X-CREW;X-ROLE=\"lead: north\";X-N=2:Moss\\, palm",
        "RRULE:FREQ=OFTEN",
        "URL:ht tp://x y",
        "PRIORITY:high",
        "THIS IS NONE",
        "GEO:38.7;-9.1",
        "COMMENT:one line that is so long that it is folded, and then\n  another and\n \tone more",
        "BEGIN:X-STEP\nSUMMARY:of the step\nDUE:20261130T090000Z\nEND:X-STEP",
        "BEGIN:VALARM\nACTION:DISPLAY\nTRIGGER:-PT30M\nSUMMARY:Soon\nEND:VALARM",
        "RELATED-TO;RELTYPE=CHILD:u2"
      })
  void whatOthersWroteStaysAsItIsWritten(String lines) {
    String text =
        calendar("BEGIN:VTODO\nUID:x\nSUMMARY:Old\nDUE:20261130\n" + lines + "\nEND:VTODO");
    Todo todo = Todo.read(text).orElseThrow();
    todo.set(fields(List.of("title", "due", "parent")), NOW);
    assertThat(todo.write())
        .contains("\r\n" + lines.replace("\n", "\r\n") + "\r\n")
        .contains("SUMMARY:Sweep", "DUE;VALUE=DATE:20261130", "RELATED-TO:p-1")
        .doesNotContain("SUMMARY:Old");
    assertThat(Todo.read(todo.write()).orElseThrow().record("x", "").path("parent").asText())
        .isEqualTo("p-1");
  }

  /** A program may write an alarm before the properties, and another task behind this one. */
  @Test
  void propertiesBehindAnAlarmAreReplacedAndThoseOfOthersAreNot() {
    String alarm = "BEGIN:VALARM\nACTION:DISPLAY\nTRIGGER:-PT30M\nEND:VALARM";
    Todo todo =
        Todo.read(
                calendar(
                    "BEGIN:VTODO\nUID:x\n%s\nSUMMARY:Old\nEND:VTODO\nBEGIN:VTODO\nUID:y\nSUMMARY:Other\nEND:VTODO"
                        .formatted(alarm)))
            .orElseThrow();
    todo.set(fields(List.of("title")), NOW);
    assertThat(todo.write())
        .contains("SUMMARY:Sweep", alarm.replace("\n", "\r\n"), "UID:y\r\nSUMMARY:Other")
        .doesNotContain("SUMMARY:Old");
  }

  private static SequencedMap<String, Value> fields(List<String> names) {
    SequencedMap<String, Value> fields = fields();
    fields.keySet().retainAll(names);
    return fields;
  }

  /** RFC 5545 section 3.8.2.1: when a task was completed; it goes when the task is open again. */
  @Test
  void momentOfCompletionFollowsTheStatus() {
    Todo todo = Todo.make("x", NOW);
    todo.set(Map.of("status", new Choice("COMPLETED")), NOW);
    assertThat(todo.write()).contains("COMPLETED:20261124T120000Z");
    todo.set(Map.of("status", new Choice("IN-PROCESS")), NOW.plusSeconds(5));
    assertThat(todo.write()).doesNotContain("COMPLETED:").contains("SEQUENCE:1");
    todo.set(Map.of("due", Moment.parse("2026-12-01T17:00:00+01:00")), NOW);
    assertThat(todo.write()).contains("DUE:20261201T160000Z");
  }

  @Test
  void calendarWithoutATaskHoldsNone() {
    assertThat(Todo.read(calendar("BEGIN:VEVENT\nUID:x\nEND:VEVENT"))).isEmpty();
    assertThat(Todo.read("nothing")).isEmpty();
  }

  /** RFC 5545 section 3.8.4.4: a change of one day of a series bears its RECURRENCE-ID. */
  @Test
  void changeOfOneDayThatStandsFirstIsNotTakenForTheSeries() {
    Todo todo =
        Todo.read(
                """
                BEGIN:VCALENDAR
                VERSION:2.0
                PRODID:-//x//EN
                BEGIN:VTODO
                UID:t
                RECURRENCE-ID:20261201T080000Z
                SUMMARY:One day
                END:VTODO
                BEGIN:VTODO
                UID:t
                SUMMARY:The series
                RRULE:FREQ=WEEKLY
                END:VTODO
                END:VCALENDAR
                """
                    .replace("\n", "\r\n"))
            .orElseThrow();
    assertThat(todo.record("t", "").path("title").asText()).isEqualTo("The series");
  }

  /** RFC 5545 section 3.1: one such character makes a whole calendar unreadable to others. */
  @Test
  void controlCharactersNeverReachACalendar() {
    Todo todo = Todo.make("t", NOW);
    todo.set(Map.of("title", new Text("Bell \u0007 and \u0000 end")), NOW);
    assertThat(todo.write())
        .contains("SUMMARY:Bell  and  end")
        .doesNotContainPattern("[\\x00\\x07]");
  }
}
