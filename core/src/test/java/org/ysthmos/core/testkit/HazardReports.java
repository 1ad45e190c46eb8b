package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.TextLength;
import org.ysthmos.core.value.ValueType;

/** Hazard reports that become tasks of a board: the bridge most tests use. */
public final class HazardReports {

  private static final ObjectMapper JSON = new ObjectMapper();

  public static final String DOCUMENT =
      """
      bridge: hazard-to-grounds
      name: Hazard report
      purpose: A visitor's hazard report becomes a task for the grounds crew
      from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
      to: { system: grounds-board, collection: paths-and-trees }
      lookups:
        report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
      when:
        all:
          - { value: report/answers/place, is: present }
          - { value: report/answers/danger, steps: [read-number], at-least: 2 }
      match: [/submission]
      fields:
        title:
          text: "{report/answers/place}: {report/answers/problem}"
          steps: [trim, shorten: 120]
        lane: { always: reported }
        due:
          value: report/answers/seenOn
          steps:
            - read-day: { pattern: d MMMM uuuu, locale: en }
            - move: P7D
            - at: { time: "17:00", zone: Europe/Lisbon }
        priority:
          value: report/answers/danger
          steps:
            - read-number
            - bands: { "8..10": 1, "5..7": 3, "1..4": 6 }
        assignees: { always: [bu-11] }
        notes:
          texts:
            - "Sent in by {report/answers/mail}"
            - "Photo: {report/answers/photo}"
          steps: [join: "\\n"]
      ceiling: { creates: 120, per: PT1H }
      """;

  private static final Shapes SHAPES =
      (system, collection) ->
          switch (system + "/" + collection) {
            case "visitor-desk/hazard-reports" -> Optional.of(reports());
            case "grounds-board/paths-and-trees" -> Optional.of(tasks());
            default -> Optional.empty();
          };

  public static final Catalog CATALOG = Catalog.of(SHAPES);

  private HazardReports() {}

  private static CollectionShape reports() {
    return new CollectionShape(
        "visitor-desk",
        "Visitor Desk",
        "hazard-reports",
        "Hazard reports",
        "report",
        "",
        "",
        List.of(
            FieldShape.of("/answers/place", "place", ValueType.TEXT),
            FieldShape.of("/answers/problem", "what is wrong", ValueType.TEXT),
            FieldShape.of("/answers/seenOn", "seen on", ValueType.TEXT),
            FieldShape.of("/answers/danger", "how dangerous", ValueType.TEXT),
            FieldShape.of("/answers/mail", "mail address", ValueType.TEXT),
            FieldShape.of("/answers/photo", "photo", ValueType.TEXT),
            FieldShape.of("/sentAt", "sent in at", ValueType.MOMENT)),
        List.of(FieldShape.of("/submission", "submission", ValueType.TEXT)));
  }

  private static CollectionShape tasks() {
    return new CollectionShape(
        "grounds-board",
        "Grounds Board",
        "paths-and-trees",
        "Paths and trees",
        "task",
        "title",
        "",
        List.of(
            FieldShape.of("title", "Title", ValueType.TEXT)
                .withRequired(true)
                .withLongest(OptionalInt.of(120), TextLength.CODE_UNITS),
            FieldShape.of("lane", "Lane", ValueType.CHOICE),
            FieldShape.of("due", "Due", ValueType.MOMENT),
            FieldShape.of("priority", "Priority", ValueType.NUMBER),
            FieldShape.of("assignees", "Given to", ValueType.listOf(ValueType.PERSON)),
            FieldShape.of("notes", "Notes", ValueType.TEXT)),
        List.of());
  }

  public static BridgeVersion bridge() {
    return BridgeCompiler.compile(DOCUMENT, 1, CATALOG);
  }

  public static Event event(String submission) {
    ObjectNode data = JSON.createObjectNode().put("submission", submission);
    return event(submission, data);
  }

  public static Event event(String submission, JsonNode data) {
    return new Event(
        "msg-" + submission,
        "visitor-desk",
        "hazard-reports",
        "created",
        submission,
        Instant.parse("2026-11-24T13:58:07Z"),
        data);
  }

  /** A report as the form system gives it, with some answers changed. */
  public static ObjectNode report(Map<String, String> changes) {
    ObjectNode report =
        json(
            """
            {"id":"vd-20418","sentAt":"2026-11-24T13:58:07Z","answers":{
              "place":"Fern gully, lower boardwalk","problem":"Loose plank",
              "seenOn":"23 November 2026","danger":"8","mail":"visitor.418@mail.example",
              "photo":""}}
            """);
    changes.forEach(((ObjectNode) report.get("answers"))::put);
    return report;
  }

  public static ObjectNode json(String text) {
    try {
      return (ObjectNode) JSON.readTree(text);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
