package org.ysthmos.adapters.drop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.SystemGateway;

/** Files as programs of many countries write them, and files that are not whole. */
class FilesAsTheyComeTest {

  private static final Instant BEGIN = Instant.parse("2026-11-24T12:00:00Z");

  @TempDir Path drops;
  private Path folder;
  private Instant now = BEGIN;

  @BeforeEach
  void folder() throws Exception {
    folder = Files.createDirectories(drops.resolve("market"));
  }

  /**
   * @param says further lines of the collection
   */
  private MetItems follow(String reads, String... says) {
    String document =
        """
        system: market
        name: Market
        address: drop:market
        collections:
          orders:
            name: Orders
            record: order
            files: "*"
            reads: %s
            id: /id
            %s
            fields:
              /id: { name: number, type: text, required: true }
              /cost: { name: cost, type: number }
              /due: { name: due, type: day }
              /starts: { name: starts, type: moment }
        """
            .formatted(reads, String.join("\n    ", says));
    SystemGateway system =
        SystemReader.read(document)
            .open(new Surroundings(name -> Optional.empty(), () -> now, Outgoing.ANYWHERE, drops));
    MetItems met = new MetItems(system, "orders");
    assertThat(met.pass()).isEmpty();
    return met;
  }

  private void drop(String name, byte[] bytes, Duration ago) throws Exception {
    Files.write(folder.resolve(name), bytes);
    Files.setLastModifiedTime(folder.resolve(name), FileTime.from(now.minus(ago)));
  }

  private void drop(String name, String text) throws Exception {
    drop(name, text.getBytes(StandardCharsets.UTF_8), Duration.ofMinutes(1));
  }

  private static JsonNode only(MetItems met) {
    List<Changed> changes = met.pass();
    assertThat(changes).as("set aside: %s", met.aside).hasSize(1);
    return changes.getFirst().record();
  }

  /** As spreadsheets of many countries write it: semicolons, Windows-1252; and as others do. */
  @ParameterizedTest
  @CsvSource({
    "';', windows-1252, windows-1252",
    "tab, utf-16, UTF-16",
    "'|', utf-8, UTF-8",
    "',', utf-8, UTF-16",
  })
  void fileIsReadAsItIsSaidToBeWritten(String separator, String stated, String written)
      throws Exception {
    MetItems met = follow("csv", "separator: \"" + separator + "\"", "charset: " + stated);
    String text = " id ;what\r\n\r\n7;Jardim à beira-mar\r\n;\r\n";
    String parted = text.replace(";", separator.equals("tab") ? "\t" : separator);
    drop("orders.csv", parted.getBytes(Charset.forName(written)), Duration.ofMinutes(1));
    assertThat(only(met).path("what").asText()).isEqualTo("Jardim à beira-mar");
    assertThat(met.troubles).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "';', windows-1252, 'parted by “;”', is no UTF-8 and was read as windows-1252",
    "'\t', UTF-16, parted by “tab”, ''",
    "'|', UTF-8, parted by “|”, ''",
  })
  void whatIsNotSaidIsFoundAndWarnedOf(
      String separator, String written, String warning, String another) throws Exception {
    MetItems met = follow("csv");
    String text = "id,what\r\n7,Jardim à beira-mar\r\n".replace(",", separator);
    drop("orders.csv", text.getBytes(Charset.forName(written)), Duration.ofMinutes(1));
    assertThat(only(met).path("what").asText()).isEqualTo("Jardim à beira-mar");
    assertThat(met.troubles)
        .extracting(Failure::message)
        .anySatisfy(one -> assertThat(one).contains("orders.csv of Market").contains(warning));
    if (!another.isEmpty()) {
      assertThat(met.troubles)
          .extracting(Failure::message)
          .anySatisfy(one -> assertThat(one).contains(another));
    }
  }

  /** A comma in a quoted header parts nothing. */
  @Test
  void separatorIsSoughtOutsideOfQuotes() throws Exception {
    MetItems met = follow("csv");
    drop("orders.csv", "id;\"a, b, c, d\"\n7;x\n");
    assertThat(only(met).path("a, b, c, d").asText()).isEqualTo("x");
  }

  @Test
  void whatIsSaidWronglyIsSetAsideWithTheRemedy() throws Exception {
    MetItems met = follow("csv", "separator: \",\"", "charset: utf-8");
    drop("a.csv", "id;what\n1;x\n");
    drop("b.csv", "id\nç\n".getBytes(StandardCharsets.ISO_8859_1), Duration.ofMinutes(1));
    assertThat(met.pass()).isEmpty();
    assertThat(met.aside)
        .extracting(one -> one.failure().message())
        .satisfiesExactly(
            one -> assertThat(one).contains("parted by “;” and not by “,”"),
            one -> assertThat(one).contains("it is not written in UTF-8"));
  }

  /** Common practice of spreadsheets in these languages, no source. */
  @ParameterizedTest
  @CsvSource({
    "de, dd.MM.uuuu, '1.234,50', 24.11.2026",
    "pt, d 'de' MMMM 'de' uuuu, '1234,5', 24 de novembro de 2026",
    "en, MM/dd/uuuu, '1,234.50', 11/24/2026",
    "de-CH, d.M.uuuu, '1’234.50', 24.11.2026",
  })
  void numbersAndDaysAreReadByTheCustomsThatAreSaid(
      String language, String days, String number, String day) throws Exception {
    MetItems met =
        follow("csv", "separator: \";\"", "written-in: " + language, "days: \"" + days + "\"");
    drop("orders.csv", "id;cost;due;what\n7;%s;%s;%s\n".formatted(number, day, number));
    JsonNode record = only(met);
    assertThat(record.path("cost").decimalValue().signum()).isZero();
    assertThat(record.path("cost").asText()).startsWith("1234.5");
    assertThat(record.path("due").asText()).isEqualTo("2026-11-24");
    assertThat(record.path("what").asText()).as("a text stays").isEqualTo(number);
  }

  @Test
  void cellThatIsNoNumberIsNamedWithLineAndColumn() throws Exception {
    MetItems met = follow("csv", "written-in: de", "days: dd.MM.uuuu", "separator: \";\"");
    drop("a.csv", "id;cost;due\n1;;\n2;zwölf;\n");
    drop("b.csv", "id;cost;due\n1;2,5;31.11.2026\n");
    assertThat(met.pass()).isEmpty();
    assertThat(met.aside)
        .extracting(one -> one.failure().message())
        .satisfiesExactly(
            one -> assertThat(one).contains("line 3, cost: “zwölf” is no number"),
            one -> assertThat(one).contains("line 2, due: “31.11.2026” is no day"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "csv | id,what~1,a~2 | line 3 has 1 cells",
        "csv | id,what~1,\"a | EOF",
        "ndjson | {\"id\":\"1\"}~{\"id\": | line 2 is no JSON",
        "icalendar | BEGIN:VCALENDAR~BEGIN:VTODO~UID:1~END:VTODO | END:VCALENDAR",
      })
  void fileWhoseEndIsMissingIsAwaitedButNotForEver(String reads, String text, String why)
      throws Exception {
    MetItems met = follow(reads);
    String cut = text.replace("~", "\r\n");
    drop("orders", cut.getBytes(StandardCharsets.UTF_8), Duration.ofMinutes(2));
    assertThat(met.pass()).isEmpty();
    assertThat(met.aside).isEmpty();
    assertThat(met.troubles)
        .extracting(Failure::message)
        .singleElement()
        .satisfies(one -> assertThat(one).contains("seems to be cut off").contains(why));
    now = now.plus(Duration.ofMinutes(10));
    assertThat(met.pass()).isEmpty();
    assertThat(met.aside).hasSize(1);
    assertThat(met.troubles).isEmpty();
  }

  /** The last cell may be cut where no line end follows, and nobody could see it. */
  @Test
  void lastLineWithoutItsEndRestsLonger() throws Exception {
    MetItems met = follow("csv");
    drop("orders.csv", "id,what\n1,Plan".getBytes(StandardCharsets.UTF_8), Duration.ofSeconds(5));
    assertThat(met.pass()).isEmpty();
    drop(
        "orders.csv", "id,what\n1,Planks".getBytes(StandardCharsets.UTF_8), Duration.ofSeconds(31));
    assertThat(only(met).path("what").asText()).isEqualTo("Planks");
    assertThat(met.troubles).isEmpty();
  }

  private static String calendar(String inside) {
    return ("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//Garden//EN\n" + inside + "END:VCALENDAR\n")
        .replace("\n", "\r\n");
  }

  private static String event(String uid, String... lines) {
    return "BEGIN:VEVENT\nUID:%s\nDTSTAMP:20261101T000000Z\n%s\nEND:VEVENT\n"
        .formatted(uid, String.join("\n", lines));
  }

  /** RFC 5545 section 3.3.5: a time without a zone is the same on every clock of the world. */
  @ParameterizedTest
  @CsvSource({
    "DTSTART:20260715T090000, times in no zone",
    "DTSTART;TZID=Garden Time:20260715T090000, 'a zone that nobody knows, Garden Time'",
  })
  void timeWithoutAKnownZoneIsReadInTheOneThatIsSaid(String line, String warning) throws Exception {
    drop("before.ics", calendar(""));
    MetItems met = follow("icalendar", "zone: Europe/Lisbon");
    drop("a.ics", calendar(event("1", line)));
    assertThat(only(met).path("starts").asText()).isEqualTo("2026-07-15T08:00:00Z");
    assertThat(met.troubles)
        .extracting(Failure::message)
        .singleElement()
        .satisfies(one -> assertThat(one).contains(warning).contains("were read in Europe/Lisbon"));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "DTSTART:20260715T080000Z",
        "DTSTART;TZID=Europe/Lisbon:20260715T090000",
        "DTSTART;TZID=/example.org/Europe/Lisbon:20260715T090000",
        "DTSTART;TZID=Garden:20260715T090000"
      })
  void timeInAKnownZoneNeedsNothingSaid(String line) throws Exception {
    MetItems met = follow("icalendar");
    String described =
        "BEGIN:VTIMEZONE\nTZID:Garden\nBEGIN:STANDARD\nDTSTART:20200101T000000\n"
            + "TZOFFSETFROM:+0100\nTZOFFSETTO:+0100\nEND:STANDARD\nEND:VTIMEZONE\n";
    drop("a.ics", calendar(described + event("1", line)));
    assertThat(only(met).path("starts").asText()).isEqualTo("2026-07-15T08:00:00Z");
    assertThat(met.troubles).isEmpty();
  }

  @Test
  void timeWithoutAZoneIsNotGuessed() throws Exception {
    MetItems met = follow("icalendar");
    drop("a.ics", calendar(event("1", "DTSTART:20260715T090000")));
    assertThat(met.pass()).isEmpty();
    assertThat(met.aside.getFirst().failure().message())
        .contains("starts is a time in no zone; state the zone");
  }

  /** RFC 5545 section 3.8.4.4: the changed day of a series has the series' id. */
  @Test
  void changedDayOfASeriesStandsBesideIt() throws Exception {
    MetItems met = follow("icalendar");
    drop(
        "a.ics",
        calendar(
            event("w", "RECURRENCE-ID:20260722T080000Z", "DTSTART:20260722T100000Z")
                + event("w", "DTSTART:20260715T080000Z", "RRULE:FREQ=WEEKLY")));
    List<Changed> changes = met.pass();
    assertThat(changes).extracting(Changed::id).containsExactly("w/2026-07-22T08:00:00Z", "w");
    JsonNode day = changes.getFirst().record();
    assertThat(day.path("series").asText()).isEqualTo("w");
    assertThat(day.path("instead").asText()).isEqualTo("2026-07-22T08:00:00Z");
    assertThat(day.path("starts").asText()).isEqualTo("2026-07-22T10:00:00Z");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "separator: x | parted by",
        "charset: latin-9 | utf-8, utf-16 or windows-1252",
        "written-in: '-' | no language",
        "days: dd.MM | does not say year, month and day",
        "zone: Lisbon | zone",
      })
  void whatIsSaidOfFilesIsRefusedWithItsPlace(String line, String words) {
    assertThatThrownBy(() -> follow("csv", line))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(words);
  }
}
