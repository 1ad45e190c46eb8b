package org.ysthmos.adapters.drop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
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

  /** RFC 4180 section 2: quoted cells with commas, quotes and line ends. */
  @Test
  void rowsOfFilesThatAreDroppedAreToldOnce() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    drop("orders-0.csv", "number,what\r\n0,Was here before\r\n", NOW.minusSeconds(90));
    MetItems met = new MetItems(system, "orders");
    assertThat(met.pass()).isEmpty();
    drop(
        "orders-1.csv",
        "\uFEFFnumber,what\r\n1,\"a \"\"b\"\", c\r\nd\"\r\n2,x\r\n",
        NOW.minusSeconds(60));
    drop("other.csv", "number\r\n9\r\n", NOW.minusSeconds(60));
    List<Changed> changes = met.pass();
    assertThat(changes).extracting(Changed::id).containsExactly("1", "2");
    assertThat(changes.getFirst().record().path("what").asText()).isEqualTo("a \"b\", c\r\nd");
    assertThat(met.pass()).isEmpty();
    drop("orders-1.csv", "number,what\r\n1,new\r\n", NOW.minusSeconds(30));
    List<Changed> again = met.pass();
    assertThat(again).extracting(Changed::id).containsExactly("1");
    assertThat(again.getFirst().version()).isNotEqualTo(changes.getFirst().version());
  }

  @Test
  void fileThatMayStillBeWrittenIsLeftUntilItRests() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    MetItems met = new MetItems(system, "orders");
    met.pass();
    drop("orders.csv", "number\r\n1\r\n", NOW.minusSeconds(1));
    assertThat(met.pass()).isEmpty();
    drop("orders.csv", "number\r\n1\r\n", NOW.minusSeconds(3));
    assertThat(met.pass()).hasSize(1);
  }

  @Test
  void manyRowsComeInPagesThatCanBeReadAgain() throws Exception {
    SystemGateway system = open("ndjson", "ndjson", "/number");
    MetItems met = new MetItems(system, "orders");
    met.pass();
    StringBuilder lines = new StringBuilder();
    for (int i = 0; i < 2_500; i++) {
      lines.append("{\"number\":\"").append(i).append("\"}\n");
    }
    drop("orders.ndjson", lines.toString(), NOW.minusSeconds(60));
    Page page = met.look();
    Page same = met.look();
    assertThat(page.records()).hasSize(1_000).isEqualTo(same.records());
    assertThat(met.pass()).hasSize(2_500).extracting(Changed::id).doesNotHaveDuplicates();
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
        "csv | csv | number,what~1,a,b~ | line 2 has 3 cells where the first line has 2",
        "csv | csv | number,number~1,x~ | the header “number” stands twice",
        "csv | csv | what~x~ | record 1 has no id at “/number”",
        "ndjson | ndjson | {\"number\":1}~[]~ | line 2 is no JSON object",
        "ndjson | ndjson | {~ | line 1 is no JSON",
        "ics | icalendar | hello~ | it holds no calendar",
      })
  void fileThatCannotBeReadIsNamedWithItsPlace(
      String ending, String reads, String text, String said) throws Exception {
    SystemGateway system = open(ending, reads, ending.equals("ics") ? "/id" : "/number");
    MetItems met = new MetItems(system, "orders");
    met.pass();
    drop("orders." + ending, text.replace("~", "\r\n"), NOW.minusSeconds(60));
    drop("orders-fine." + ending, FINE.get(ending), NOW.minusSeconds(60));
    assertThat(met.pass()).as("the others are read, %s", met.aside).hasSize(1);
    SetAside aside = met.aside.getFirst();
    assertThat(aside.what()).isEqualTo("orders." + ending);
    assertThat(aside.failure().kind()).isEqualTo(FailureKind.UNREADABLE);
    assertThat(aside.failure().message()).contains("orders." + ending).contains(said);
    assertThat(aside.raw()).isEqualTo(text.replace("~", "\r\n"));
    met.pass();
    assertThat(met.aside).as("it is told once").isEmpty();
    drop("orders." + ending, FINE.get(ending), NOW.minusSeconds(30));
    assertThat(met.pass()).as("corrected").hasSize(1);
  }

  private static final Map<String, String> FINE =
      Map.of(
          "csv", "number,what\r\n7,x\r\n",
          "ndjson", "{\"number\":\"7\"}\n",
          "ics", "BEGIN:VCALENDAR\r\nBEGIN:VTODO\r\nUID:7\r\nEND:VTODO\r\nEND:VCALENDAR\r\n");

  /** A cursor with all files in it was outgrown at some thousand of them. */
  @Test
  void folderOfManyFilesIsFollowedWhateverItsNumber() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    MetItems met = new MetItems(system, "orders");
    met.pass();
    for (int i = 0; i < 3_000; i++) {
      drop("orders-%04d.csv".formatted(i), "number\r\n" + i + "\r\n", NOW.minusSeconds(60));
    }
    assertThat(met.pass()).hasSize(3_000).extracting(Changed::id).doesNotHaveDuplicates();
    assertThat(met.cursor().since().orElseThrow()).hasSizeLessThan(100);
    Files.delete(folder.resolve("orders-0001.csv"));
    assertThat(met.pass()).isEmpty();
    assertThat(met.items()).hasSize(2_999).doesNotContainKey("orders-0001.csv");
  }

  @Test
  void cursorOfBeforeGoesOnWhereItWas() throws Exception {
    SystemGateway system = open("csv", "csv", "/number");
    Instant read = NOW.minusSeconds(90);
    drop("orders-0.csv", "number\r\n0\r\n", read);
    drop("orders-1.csv", "number\r\n1\r\n", read);
    MetItems met = new MetItems(system, "orders");
    met.goOnFrom(
        "{\"current\":\"\",\"row\":0,\"files\":{\"orders-0.csv\":\"%s 11\"}}".formatted(read));
    assertThat(met.pass()).isEmpty();
    assertThat(met.pass()).extracting(Changed::id).containsExactly("1");
  }

  @Test
  void noNameLeadsOutOfTheFolder() {
    assertThatThrownBy(
            () ->
                SystemReader.read(
                    DOCUMENT.formatted("csv", "csv", "/n").replace("drop:market", "drop:../etc")))
        .hasMessageContaining("small letters");
  }
}
