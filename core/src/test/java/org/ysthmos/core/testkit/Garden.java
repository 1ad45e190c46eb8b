package org.ysthmos.core.testkit;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.calendar.CalendarReader;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableReader;
import org.ysthmos.core.trial.TrialWorld;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/**
 * The systems, tables and calendar that the bridges of {@code src/test/resources/bridges} are
 * written against; invented data.
 */
public final class Garden {

  private static final Map<String, CollectionShape> SHAPES =
      Stream.of(
              shape("garden-chat", "messages", "message")
                  .event("/channel text", "/ts text", "/author text", "/text text", "/at moment"),
              shape("garden-chat", "reactions", "reaction")
                  .event("/reaction text", "/channel text", "/ts text", "/author text"),
              shape("post-room", "mails", "mail")
                  .event(
                      "/id text",
                      "/folder text",
                      "/from text",
                      "/subject text",
                      "/html text",
                      "/flagged flag",
                      "/received moment"),
              shape("leaf-library", "plant-records", "document")
                  .event(
                      "/path text",
                      "/revision number",
                      "/kind text",
                      "/approved text",
                      "/link link"),
              shape("friends-register", "pledges", "pledge")
                  .event(
                      "/number text", "/steward text", "/donor text", "/amount text", "/on text"),
              shape("climate-desk", "tickets", "ticket")
                  .event(
                      "/number number",
                      "/subject text",
                      "/description text",
                      "/status text",
                      "/was/status text",
                      "/requester person"),
              shape("exhibitions", "programme", "exhibition")
                  .event("/id text", "/title text", "/opens text", "/crews list of text")
                  .eventRecords("/rooms", "/id text", "/name text", "/size number"),
              shape("chore-table", "rounds", "round")
                  .event("/id text", "/round text", "/every text", "/zone text", "/first text")
                  .event("/done text", "/lead text", "/at text", "/crew text"),
              shape("grounds-board", "paths-and-trees", "task")
                  .target("title text 120 required", "lane choice", "due moment", "priority number")
                  .target("assignees list of person", "notes text", "checklist list of text"),
              shape("works-ledger", "jobs", "job")
                  .target("title text 80 required", "owner person", "due day", "status choice")
                  .target("description text", "link link", "labels list of text", "parent text")
                  .parent("parent"))
          .collect(Collectors.toMap(Draft::key, Draft::shape));

  /** All collections, each as its system, a stroke and its id. */
  public static final Set<String> PLACES =
      Stream.concat(Stream.of("visitor-desk/hazard-reports"), SHAPES.keySet().stream())
          .collect(Collectors.toCollection(TreeSet::new));

  public static final Map<String, ReferenceTable> TABLES =
      Map.of(
          "stewards",
          table(
              """
              table: stewards
              name: Stewards
              keys: [mail]
              values: { person: person }
              ignore-case: true
              not-found: fail
              rows:
                - { mail: olive@tidewrack.example, person: tb-07 }
                - { mail: rui@tidewrack.example, person: tb-11 }
              """),
          "mail-lanes",
          table(
              """
              table: mail-lanes
              name: Lanes of mail folders
              keys: [folder, flagged]
              values: { lane: choice, days: number }
              not-found: empty
              rows:
                - { folder: school-visits, flagged: yes, lane: bookings, days: 2 }
                - { folder: school-visits, flagged: no, lane: enquiries, days: 5 }
              """));

  private static final WorkingCalendar OFFICE =
      CalendarReader.read(
          DocumentNode.parse(
              """
              calendar: office
              name: Garden office
              weekdays: [monday, tuesday, wednesday, thursday, friday]
              holidays: [2026-12-25, 2027-01-01]
              closures:
                - { first: 2026-12-28, last: 2026-12-30, why: stocktaking }
              """));

  public static final Catalog CATALOG =
      Catalog.of(
          (system, collection) ->
              HazardReports.CATALOG
                  .collection(system, collection)
                  .filter(shape -> !system.equals("grounds-board"))
                  .or(() -> Optional.ofNullable(SHAPES.get(system + "/" + collection))),
          TABLES.entrySet().stream()
              .collect(Collectors.toMap(Map.Entry::getKey, e -> e.getValue().definition())),
          Map.of("office", OFFICE));

  /** All bridges of the resources, by id. */
  public static final List<String> BRIDGES =
      List.of(
          "hazard-to-grounds",
          "seedling-to-ledger",
          "school-mail-to-lanes",
          "document-to-review",
          "pledge-to-follow-up",
          "ticket-to-job",
          "exhibition-to-preparations",
          "rooms-to-jobs",
          "crews-to-jobs");

  private Garden() {}

  private static ReferenceTable table(String yaml) {
    return TableReader.read(DocumentNode.parse(yaml));
  }

  public static String document(String bridge) {
    try (InputStream in = Garden.class.getResourceAsStream("/bridges/" + bridge + ".yaml")) {
      return new String(Objects.requireNonNull(in, bridge).readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public static BridgeVersion bridge(String id) {
    return BridgeCompiler.compile(document(id), 1, CATALOG);
  }

  public static TrialWorld world() {
    return new TrialWorld(CATALOG, TABLES);
  }

  /**
   * An exhibition with rooms and crews, each with one that stands twice.
   *
   * @param opens its day, as it stands in the programme
   */
  public static Event exhibition(String opens) {
    return event(
        "exhibitions/programme",
        "changed",
        "x1",
        """
        {"id":"x1","title":"Mosses","opens":"%s","crews":["glass crew"," tree crew","glass crew"],
         "rooms":[{"id":"r1","name":"Hall","size":120},{"id":"r2","name":"Nook","size":8},
                  {"id":"r1","name":"Hall","size":120}]}
        """
            .formatted(opens));
  }

  public static Event event(String source, String kind, String record, String data) {
    String[] place = source.split("/", -1);
    return new Event(
        "e-" + source + record + kind + data.hashCode(),
        place[0],
        place[1],
        kind,
        record,
        Instant.parse("2026-11-24T13:58:07Z"),
        HazardReports.json(data));
  }

  private static Draft shape(String system, String collection, String record) {
    return new Draft(system, collection, record);
  }

  /** Puts a shape together from short words. */
  private static final class Draft {
    private final String system;
    private final String collection;
    private final String record;
    private final List<FieldShape> fields = new ArrayList<>();
    private final List<FieldShape> eventFields = new ArrayList<>();
    private String parent = "";

    Draft(String system, String collection, String record) {
      this.system = system;
      this.collection = collection;
      this.record = record;
    }

    Draft event(String... words) {
      Stream.of(words).map(Draft::field).forEach(eventFields::add);
      return this;
    }

    Draft eventRecords(String key, String... words) {
      eventFields.add(
          FieldShape.of(key, key.substring(1), ValueType.listOf(ValueType.RECORD))
              .withFields(Stream.of(words).map(Draft::field).toList()));
      return this;
    }

    Draft target(String... words) {
      Stream.of(words).map(Draft::field).forEach(fields::add);
      return this;
    }

    Draft parent(String field) {
      parent = field;
      return this;
    }

    /** A key, a type, then perhaps the longest text and whether it is required. */
    private static FieldShape field(String words) {
      boolean required = words.endsWith(" required");
      String rest = required ? words.substring(0, words.length() - 9) : words;
      String key = rest.substring(0, rest.indexOf(' '));
      String type = rest.substring(key.length() + 1);
      OptionalInt longest = OptionalInt.empty();
      if (type.matches("text \\d+")) {
        longest = OptionalInt.of(Integer.parseInt(type.substring(5)));
        type = "text";
      }
      String name = key.substring(key.lastIndexOf('/') + 1);
      return FieldShape.of(key, name, ValueType.parse(type).orElseThrow())
          .withRequired(required)
          .withLongest(longest, TextLength.CODE_UNITS);
    }

    String key() {
      return system + "/" + collection;
    }

    CollectionShape shape() {
      return new CollectionShape(
          system, system, collection, collection, record, "title", parent, fields, eventFields);
    }
  }
}
