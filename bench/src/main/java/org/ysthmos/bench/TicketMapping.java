package org.ysthmos.bench;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.NotFound;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/** Twelve fields of a job out of an event of 2 KB: the same for each way of computing them. */
public final class TicketMapping {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  public static final String EVENT =
      """
      {"number":"CD-20418","status":"open","subject":"  Heating of the palm house fails at night ",
       "requester":{"mail":"Olive.Marsh@Tidewrack.example","name":"Olive Marsh"},
       "place":{"house":"Palm house","bay":"north","bench":"second bench by the door"},
       "seenOn":"23 November 2026","visit":"2026-12-03","severity":"8","area":"heating",
       "form":"https://desk.tidewrack.example/tickets/20418",
       "labels":"heating, night, palm house, heating, urgent",
       "description":"Place: Palm house, north door\\nFault code: F-204\\nSeen by: Rui\\nThe heating stops at about two in the morning and starts again at six. The thermometer by the second bench showed nine degrees on Saturday and seven on Sunday; the young palms there must not go below twelve.",
       "readings":[
        {"at":"2026-11-21T02:10:00Z","probe":"bench 2","degrees":9.1,"note":"window closed"},
        {"at":"2026-11-21T04:10:00Z","probe":"bench 2","degrees":8.4,"note":"window closed"},
        {"at":"2026-11-22T02:10:00Z","probe":"bench 2","degrees":7.2,"note":"door ajar"},
        {"at":"2026-11-22T03:10:00Z","probe":"bench 4","degrees":12.6,"note":"window closed"},
        {"at":"2026-11-22T04:10:00Z","probe":"bench 4","degrees":12.1,"note":"window closed"}],
       "history":[
        {"on":"2026-10-02","what":"Burner cleaned","by":"Glass crew","minutes":45},
        {"on":"2026-10-19","what":"Valve of the second loop replaced","by":"Glass crew","minutes":120},
        {"on":"2026-11-05","what":"Timer set back one hour","by":"Rui","minutes":5}],
       "contact":{"phone":"+351 000 000 000","hours":"09:00 to 16:30","desk":"Climate desk, glasshouse range","language":"pt"},
       "attachments":["https://desk.tidewrack.example/a/1.png","https://desk.tidewrack.example/a/2.png"],
       "privacy":{"keepUntil":"2028-11-23","visitor":false},"channel":"phone","revision":3}
      """;

  public static final String BRIDGE =
      """
      bridge: climate-ticket
      name: Climate ticket
      purpose: A ticket of the climate desk becomes a job
      from: { system: climate-desk, collection: tickets, event: opened }
      to: { system: works-ledger, collection: jobs }
      when:
        all:
          - { value: /status, one-of: [open, reopened] }
          - { value: /severity, steps: [read-number], at-least: 2 }
      match: [/number]
      fields:
        title: { text: "{/place/house}: {/subject}", steps: [trim, shorten: 120] }
        summary: { value: /subject, steps: [trim, case: upper] }
        fault: { value: /description, steps: [part: { after: "Fault code:", line: true, missing: fail }] }
        due:
          value: /seenOn
          steps: [read-day: d MMMM uuuu, move: P7D, at: { time: "17:00", zone: Europe/Lisbon }]
        visit: { value: /visit, steps: [read-day: iso] }
        priority: { value: /severity, steps: [read-number, bands: { "8..10": 1, "5..<8": 3, "..<5": 6 }] }
        owner: { value: /requester/mail, steps: [by-table: stewards] }
        status: { value: /area, steps: [by-table: { table: areas, not-found: { use: general } }] }
        labels: { value: /labels, steps: [split: ",", distinct] }
        link: { value: /form, steps: [as: link] }
        readings: { each: { in: /readings, take: { text: "{item/probe}: {item/degrees}" } } }
        notes:
          texts:
            - "Reported by {/requester/name}"
            - "Bench: {/place/bench}"
            - "Channel: {/channel}"
          steps: [join: "\\n"]
      ceiling: { creates: 100, per: PT1H }
      """;

  public static final Map<String, String> STEWARDS =
      Map.of("olive.marsh@tidewrack.example", "tb-07", "rui@tidewrack.example", "tb-11");
  public static final Map<String, String> AREAS =
      Map.of("heating", "boiler-room", "light", "electric");

  private TicketMapping() {}

  static JsonNode event() {
    try {
      return JSON.readTree(EVENT);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static Map<String, ReferenceTable> tables() {
    return Map.of(
        "stewards", table("stewards", "mail", "person", STEWARDS, true),
        "areas", table("areas", "area", "choice", AREAS, false));
  }

  private static ReferenceTable table(
      String id, String key, String type, Map<String, String> rows, boolean ignoreCase) {
    SequencedMap<String, ValueType> values = new LinkedHashMap<>();
    ValueType valueType = ValueType.parse(type).orElseThrow();
    values.put("value", valueType);
    TableDefinition definition =
        new TableDefinition(
            id,
            id,
            List.of(key),
            values,
            ignoreCase ? Optional.of(Locale.ROOT) : Optional.empty(),
            Optional.of(new NotFound.Fail()));
    return ReferenceTable.of(
        definition,
        rows.entrySet().stream()
            .map(
                row ->
                    new ReferenceTable.Row(
                        List.of(row.getKey()), List.of(Constant.parse(row.getValue(), valueType))))
            .toList());
  }

  static Catalog catalog() {
    CollectionShape tickets =
        new CollectionShape(
            "climate-desk",
            "Climate Desk",
            "tickets",
            "Tickets",
            "ticket",
            "",
            "",
            List.of(),
            source());
    CollectionShape jobs =
        new CollectionShape(
            "works-ledger",
            "Works Ledger",
            "jobs",
            "Jobs",
            "job",
            "title",
            "",
            target(),
            List.of());
    Map<String, TableDefinition> definitions = new LinkedHashMap<>();
    tables().forEach((id, table) -> definitions.put(id, table.definition()));
    return Catalog.of(
        (system, collection) -> Optional.of(system.equals("climate-desk") ? tickets : jobs),
        definitions,
        Map.of());
  }

  private static List<FieldShape> source() {
    List<FieldShape> fields = new ArrayList<>();
    for (String key :
        List.of(
            "/number",
            "/status",
            "/subject",
            "/requester/mail",
            "/requester/name",
            "/place/house",
            "/place/bench",
            "/seenOn",
            "/visit",
            "/severity",
            "/area",
            "/form",
            "/labels",
            "/description",
            "/channel")) {
      fields.add(FieldShape.of(key, key.substring(1), ValueType.TEXT));
    }
    fields.add(
        FieldShape.of("/readings", "readings", ValueType.listOf(ValueType.RECORD))
            .withFields(
                List.of(
                    FieldShape.of("/probe", "probe", ValueType.TEXT),
                    FieldShape.of("/degrees", "degrees", ValueType.NUMBER))));
    return fields;
  }

  private static List<FieldShape> target() {
    return List.of(
        FieldShape.of("title", "Title", ValueType.TEXT)
            .withRequired(true)
            .withLongest(OptionalInt.of(120), TextLength.CODE_UNITS),
        FieldShape.of("summary", "Summary", ValueType.TEXT),
        FieldShape.of("fault", "Fault", ValueType.TEXT),
        FieldShape.of("due", "Due", ValueType.MOMENT),
        FieldShape.of("visit", "Visit", ValueType.DAY),
        FieldShape.of("priority", "Priority", ValueType.NUMBER),
        FieldShape.of("owner", "Owner", ValueType.PERSON),
        FieldShape.of("status", "Status", ValueType.CHOICE),
        FieldShape.of("labels", "Labels", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("link", "Link", ValueType.LINK),
        FieldShape.of("readings", "Readings", ValueType.listOf(ValueType.TEXT)),
        FieldShape.of("notes", "Notes", ValueType.TEXT));
  }
}
