package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;

/** Bridges to a ledger whose doing is taken back, and what asks for it. */
abstract class RecallTestBase extends AppTestBase {

  static final Duration LONG = Duration.ofSeconds(20);
  static final String PURPOSE = "To be taken back";

  static void put(String id, String system, String tasks) throws Exception {
    var answer =
        putBridge(
            id,
            """
            bridge: %s
            name: Bridge %s
            purpose: %s
            from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
            to: { system: %s, collection: jobs }
            lookups:
              report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
            when: { value: report/answers/problem, starts-with: "%s " }
            match: [/submission]
            %s
            """
                .formatted(id, id, PURPOSE, system, id, tasks));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  static void put(String id) throws Exception {
    put(
        id,
        "works-ledger",
        "fields: { title: { text: \"%s {/submission}\" }, status: { always: planned }, description: report/answers/place }"
            .formatted(id));
  }

  static JsonNode ledger(String method, String path, String body, String... headers)
      throws Exception {
    Map<String, String> all = new java.util.HashMap<>(Map.of("Authorization", "Bearer ledger"));
    for (int i = 0; i < headers.length; i += 2) {
      all.put(headers[i], headers[i + 1]);
    }
    HttpResponse<String> answer =
        send(method, "http://127.0.0.1:" + LEDGER.port() + path, body, all);
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  static boolean isThere(String job) throws Exception {
    return ledger("GET", "/api/jobs/" + job, "").has("title");
  }

  static void changeByHand(String job) throws Exception {
    HttpResponse<String> read =
        send(
            "GET",
            "http://127.0.0.1:" + LEDGER.port() + "/api/jobs/" + job,
            "",
            Map.of("Authorization", "Bearer ledger"));
    String tag = read.headers().firstValue("ETag").orElseThrow();
    JsonNode changed =
        ledger(
            "PATCH",
            "/api/jobs/" + job,
            "{\"owner\":\"h.duarte@tidewrack.example\"}",
            "If-Match",
            tag);
    assertThat(changed.path("owner").asText()).isEqualTo("h.duarte@tidewrack.example");
  }

  /** Reports whose jobs were made; gives the numbers of those jobs, in order. */
  static List<String> made(String id, int many) throws Exception {
    List<String> jobs = new ArrayList<>();
    for (int i = 0; i < many; i++) {
      String number = report(Map.of("problem", id + " " + i));
      jobs.add(own(id, number, 1).path("target").asText());
    }
    return jobs;
  }

  /** The newest of so many traces of a report at one bridge, once all have ended. */
  static JsonNode own(String id, String number, int count) {
    await()
        .atMost(LONG)
        .until(
            () -> {
              List<JsonNode> traces = ownTraces(id, number);
              return traces.size() == count
                  && traces.stream().noneMatch(t -> t.path("verdict").asText().equals("WAITING"));
            });
    return ownTraces(id, number).getFirst();
  }

  static List<JsonNode> ownTraces(String id, String number) {
    return StreamSupport.stream(
            api("/traces?bridge=" + id + "&text=" + number).path("traces").spliterator(), false)
        .toList();
  }

  static HttpResponse<String> ask(String method, String path, String body) throws Exception {
    return send(
        method, app("/api/recalls" + path), body, Map.of("Content-Type", "application/json"));
  }

  static JsonNode asked(String method, String path, String body) throws Exception {
    HttpResponse<String> answer = ask(method, path, body);
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 201);
    return JSON.readTree(answer.body());
  }

  static String list(String bridge) throws Exception {
    Instant now = Instant.now();
    ObjectNode wish =
        JSON.createObjectNode()
            .put("bridge", bridge)
            .put("from", now.minusSeconds(600).toString())
            .put("until", now.plusSeconds(5).toString());
    return "/" + asked("POST", "", wish.toString()).path("id").asText();
  }

  static JsonNode recall(String path) {
    return api("/recalls" + path);
  }

  static List<JsonNode> records(String path) {
    return StreamSupport.stream(recall(path + "/records").path("items").spliterator(), false)
        .toList();
  }

  static JsonNode ofJob(String path, String job) {
    return records(path).stream()
        .filter(one -> one.path("record").asText().equals(job))
        .findFirst()
        .orElseThrow();
  }

  static void looked(String path) {
    await().atMost(LONG).until(() -> recall(path).at("/counts/unseen").asInt() == 0);
  }

  static void begin(String path, int many) throws Exception {
    asked("POST", path + "/start", "{\"records\":%d,\"evenIfChanged\":false}".formatted(many));
  }

  static JsonNode ended(String path) {
    await().atMost(LONG).until(() -> recall(path).path("state").asText().equals("ENDED"));
    return recall(path);
  }
}
