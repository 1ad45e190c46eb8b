package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;

/**
 * More than two hundred odd and broken files and calendars through the whole way. The law: none
 * stops its source, and each ends in tasks, or in a failed trace that names it or its record.
 */
class OddFilesIT extends AppTestBase {

  private static final int FILES = 8 * OddFiles.kinds();

  @Autowired private Systems systems;
  @Autowired private Bridges bridges;

  private void follow() throws Exception {
    systems.put(
        """
        system: odd
        name: Odd
        address: drop:odd
        collections:
          rows:
            name: Rows
            record: row
            files: "*.csv"
            reads: csv
            id: /id
            every: PT1S
            fields:
              /id: { name: number, type: text, required: true }
              /what: { name: what, type: text }
          days:
            name: Days
            record: day
            files: "*.ics"
            reads: icalendar
            id: /id
            every: PT1S
            fields:
              /id: { name: id, type: text, required: true }
              /title: { name: title, type: text }
              /starts: { name: starts, type: moment }
        """);
    bridges.refresh();
    put("odd-rows", "rows", "/what");
    put("odd-days", "days", "/title");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () -> {
              int asked = 0;
              for (JsonNode poll : api("/polls")) {
                boolean ours = poll.path("system").asText().equals("odd");
                asked += ours && poll.path("askedAt").isTextual() ? 1 : 0;
              }
              return asked == 2;
            });
  }

  private static void put(String id, String collection, String title) throws Exception {
    HttpResponse<String> put =
        send(
            "PUT",
            app("/api/bridges/" + id + "/document"),
            """
            bridge: %1$s
            name: %1$s
            purpose: Odd files become jobs
            from: { system: odd, collection: %2$s, event: [created, changed] }
            to: { system: works-ledger, collection: jobs }
            match: [/id]
            fields:
              title: { value: %3$s, steps: [trim, shorten: 90] }
              status: { always: open }
            ceiling: { creates: 5000, per: PT1H }
            """
                .formatted(id, collection, title),
            Map.of("Content-Type", "application/yaml"));
    assertThat(put.statusCode()).as(put.body()).isLessThan(300);
  }

  private static void upload(OddFiles.Odd file) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(app("/api/systems/odd/files/" + file.name())))
            .PUT(HttpRequest.BodyPublishers.ofByteArray(file.bytes()))
            .build();
    assertThat(HTTP.send(request, HttpResponse.BodyHandlers.ofString()).statusCode())
        .isEqualTo(204);
  }

  /** All traces of a bridge. */
  private static List<JsonNode> traces(String bridge) {
    List<JsonNode> all = new ArrayList<>();
    String before = "";
    do {
      JsonNode page = api("/traces?bridge=" + bridge + before);
      page.path("traces").forEach(all::add);
      before = page.path("next").isNumber() ? "&before=" + page.path("next").asLong() : "";
    } while (!before.isEmpty());
    return all;
  }

  private static List<JsonNode> traces() {
    List<JsonNode> all = new ArrayList<>(traces("odd-rows"));
    all.addAll(traces("odd-days"));
    return all;
  }

  private static boolean isOf(JsonNode trace, OddFiles.Odd file) {
    String record = trace.path("record").asText();
    int number = Integer.parseInt(file.name().replaceAll("\\D", ""));
    return record.equals(file.name()) || record.startsWith("o" + number + "-");
  }

  @Test
  void eachEndsInTasksOrInAFailedTraceThatNamesIt() throws Exception {
    follow();
    Random random = new Random(20261126);
    List<OddFiles.Odd> files = new ArrayList<>();
    for (int i = 0; i < FILES; i++) {
      files.add(OddFiles.of(i, random));
    }
    assertThat(files).hasSizeGreaterThan(200);
    for (OddFiles.Odd file : files) {
      upload(file);
    }
    await()
        .atMost(Duration.ofMinutes(3))
        .pollInterval(Duration.ofMillis(500))
        .until(
            () -> {
              List<JsonNode> now = traces();
              return now.stream().noneMatch(one -> one.path("verdict").asText().equals("WAITING"))
                  && files.stream().allMatch(file -> now.stream().anyMatch(one -> isOf(one, file)));
            });
    List<JsonNode> traces = traces();
    for (OddFiles.Odd file : files) {
      for (JsonNode one : traces.stream().filter(trace -> isOf(trace, file)).toList()) {
        String said = file.kind() + ": " + one;
        if (one.path("verdict").asText().equals("FAILED")) {
          assertThat(one.path("reason").asText()).as(said).isNotBlank();
        } else {
          assertThat(one.path("verdict").asText()).as(said).isIn("CREATE", "UPDATE");
          assertThat(one.path("target").asText()).as(said).isNotBlank();
        }
      }
    }
    assertThat(traces).extracting(one -> one.path("verdict").asText()).contains("CREATE", "FAILED");
    // What can be read is read: of each way that only looks odd, tasks were made.
    for (String fine :
        List.of(
            "quoted",
            "marked",
            "utf-16",
            "semicolons",
            "tabs",
            "blank lines",
            "old line ends",
            "no last end",
            "controls",
            "folded",
            "zone described",
            "one day of a series",
            "two calendars",
            "alarm and unknown",
            "events and tasks")) {
      for (OddFiles.Odd file : files.stream().filter(one -> one.kind().equals(fine)).toList()) {
        assertThat(traces.stream().filter(one -> isOf(one, file)))
            .as(fine)
            .allMatch(one -> one.path("verdict").asText().equals("CREATE"));
      }
    }
  }
}
