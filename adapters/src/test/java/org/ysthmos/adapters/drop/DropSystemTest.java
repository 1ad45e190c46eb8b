package org.ysthmos.adapters.drop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.SystemGateway;

class DropSystemTest {

  private static final Instant NOW = Instant.parse("2026-11-24T12:00:00Z");
  private static final String DOCUMENT =
      """
      system: market
      name: Market
      address: drop:market
      collections:
        orders:
          name: Orders
          record: order
          files: "orders*.%1$s"
          reads: %2$s
          id: %3$s
          fields:
            %3$s: { name: number, type: text, required: true }
      """;

  @TempDir Path drops;
  private Path folder;

  @BeforeEach
  void folder() throws Exception {
    folder = Files.createDirectories(drops.resolve("market"));
  }

  private SystemGateway open(String ending, String reads, String id) {
    return SystemReader.read(DOCUMENT.formatted(ending, reads, id))
        .open(new Surroundings(name -> Optional.empty(), () -> NOW, Outgoing.ANYWHERE, drops));
  }

  private void drop(String name, String text, Instant changed) throws Exception {
    Files.writeString(folder.resolve(name), text);
    Files.setLastModifiedTime(folder.resolve(name), FileTime.from(changed));
  }

  private static List<Changed> pass(SystemGateway system, String[] mark) {
    List<Changed> all = new ArrayList<>();
    Cursor place = new Cursor(Optional.ofNullable(mark[0]), Optional.empty());
    while (true) {
      Page page = (Page) system.changes("orders", place, call -> {});
      all.addAll(page.records());
      if (page.next().isEmpty()) {
        mark[0] = page.since().orElseThrow();
        return all;
      }
      place = new Cursor(Optional.ofNullable(mark[0]), page.next());
    }
  }

  /** RFC 4180 section 2: quoted cells with commas, quotes and line ends. */
  @Test
  void rowsOfFilesThatAreDroppedAreToldOnce() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    drop("orders-0.csv", "number,what\r\n0,Was here before\r\n", NOW.minusSeconds(90));
    String[] mark = {null};
    assertThat(pass(system, mark)).isEmpty();
    drop(
        "orders-1.csv",
        "\uFEFFnumber,what\r\n1,\"a \"\"b\"\", c\r\nd\"\r\n2,x\r\n",
        NOW.minusSeconds(60));
    drop("other.csv", "number\r\n9\r\n", NOW.minusSeconds(60));
    List<Changed> changes = pass(system, mark);
    assertThat(changes).extracting(Changed::id).containsExactly("1", "2");
    assertThat(changes.getFirst().record().path("what").asText()).isEqualTo("a \"b\", c\r\nd");
    assertThat(pass(system, mark)).isEmpty();
    drop("orders-1.csv", "number,what\r\n1,new\r\n", NOW.minusSeconds(30));
    List<Changed> again = pass(system, mark);
    assertThat(again).extracting(Changed::id).containsExactly("1");
    assertThat(again.getFirst().version()).isNotEqualTo(changes.getFirst().version());
  }

  @Test
  void fileThatMayStillBeWrittenIsLeftUntilItRests() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    String[] mark = {null};
    pass(system, mark);
    drop("orders.csv", "number\r\n1\r\n", NOW.minusSeconds(1));
    assertThat(pass(system, mark)).isEmpty();
    drop("orders.csv", "number\r\n1\r\n", NOW.minusSeconds(3));
    assertThat(pass(system, mark)).hasSize(1);
  }

  @Test
  void manyRowsComeInPagesThatCanBeReadAgain() throws Exception {
    SystemGateway system = open("ndjson", "ndjson", "/number");
    String[] mark = {null};
    pass(system, mark);
    StringBuilder lines = new StringBuilder();
    for (int i = 0; i < 2_500; i++) {
      lines.append("{\"number\":\"").append(i).append("\"}\n");
    }
    drop("orders.ndjson", lines.toString(), NOW.minusSeconds(60));
    Cursor first = new Cursor(Optional.of(mark[0]), Optional.empty());
    Page page = (Page) system.changes("orders", first, call -> {});
    Page same = (Page) system.changes("orders", first, call -> {});
    assertThat(page.records()).hasSize(1_000).isEqualTo(same.records());
    assertThat(pass(system, mark)).hasSize(2_500).extracting(Changed::id).doesNotHaveDuplicates();
  }

  /** RFC 5545 section 3.6.1, the first example of an event. */
  @Test
  void eventsAndTasksOfACalendarAreRead() throws Exception {
    SystemGateway system = open("ics", "icalendar", "/id");
    drop(
        "orders.ics",
        """
        BEGIN:VCALENDAR
        VERSION:2.0
        PRODID:-//hacksw/handcal//NONSGML v1.0//EN
        BEGIN:VEVENT
        UID:19970901T130000Z-123401@example.com
        DTSTAMP:19970901T130000Z
        DTSTART:19970903T163000Z
        DTEND:19970903T190000Z
        SUMMARY:Annual Employee Review
        CLASS:PRIVATE
        CATEGORIES:BUSINESS,HUMAN RESOURCES
        END:VEVENT
        BEGIN:VTODO
        UID:t-1
        DUE;VALUE=DATE:20070501
        SUMMARY:Rake
        END:VTODO
        END:VCALENDAR
        """
            .replace("\n", "\r\n"),
        NOW.minusSeconds(60));
    Found found = (Found) system.list("orders", 10, call -> {});
    assertThat(found.records().getFirst().path("starts").asText())
        .isEqualTo("1997-09-03T16:30:00Z");
    assertThat(found.records().getFirst().path("title").asText())
        .isEqualTo("Annual Employee Review");
    assertThat(found.records().getLast().path("due").asText()).isEqualTo("2007-05-01");
    assertThat(found.records().getLast().path("kind").asText()).isEqualTo("task");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "csv | csv | number,what~1,a,b~ | In orders.csv line 2 has 3 cells where the first line has 2",
        "csv | csv | what~x~ | record 1 has no id at “/number”",
        "ndjson | ndjson | {\"number\":1}~[]~ | In orders.ndjson line 2 is no JSON object",
        "ndjson | ndjson | {~ | line 1 is no JSON",
        "ics | icalendar | hello~ | it holds no calendar",
      })
  void fileThatCannotBeReadIsNamedWithItsPlace(
      String ending, String reads, String text, String said) throws Exception {
    SystemGateway system = open(ending, reads, "/number");
    String[] mark = {null};
    pass(system, mark);
    drop("orders." + ending, text.replace("~", "\r\n"), NOW.minusSeconds(60));
    Cursor place = new Cursor(Optional.of(mark[0]), Optional.empty());
    NotRead notRead = (NotRead) system.changes("orders", place, call -> {});
    assertThat(notRead.failure().message()).contains(said);
    assertThat(notRead.failure().remedy().orElse("")).contains("nothing of it was taken");
  }

  @Test
  void fileInAnotherEncodingIsNamedAndNoNameLeadsOutOfTheFolder() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    String[] mark = {null};
    pass(system, mark);
    Files.write(
        folder.resolve("orders.csv"), "number\r\nç\r\n".getBytes(StandardCharsets.ISO_8859_1));
    Files.setLastModifiedTime(folder.resolve("orders.csv"), FileTime.from(NOW.minusSeconds(60)));
    Cursor place = new Cursor(Optional.of(mark[0]), Optional.empty());
    NotRead notRead = (NotRead) system.changes("orders", place, call -> {});
    assertThat(notRead.failure().message()).contains("orders.csv is not written in UTF-8");
    assertThatThrownBy(
            () ->
                SystemReader.read(
                    DOCUMENT.formatted("csv", "csv", "/n").replace("drop:market", "drop:../etc")))
        .hasMessageContaining("small letters");
  }
}
