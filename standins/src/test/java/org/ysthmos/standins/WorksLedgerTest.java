package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.worksledger.WorksLedger;

class WorksLedgerTest {

  private static final String TOKEN = "ledger";

  @TempDir Path data;
  private WorksLedger ledger;

  @BeforeEach
  void start() throws Exception {
    ledger = new WorksLedger(0, TOKEN, data, new ControlledClock()).start();
  }

  @AfterEach
  void stop() {
    ledger.close();
  }

  private HttpResponse<String> make(String key, String body) throws Exception {
    return Bench.call(
        ledger,
        "POST",
        "/api/jobs",
        Map.of("Authorization", "Bearer " + TOKEN, "Idempotency-Key", key),
        body);
  }

  private HttpResponse<String> change(String id, String tag, String body) throws Exception {
    return Bench.call(
        ledger,
        "PATCH",
        "/api/jobs/" + id,
        Map.of("Authorization", "Bearer " + TOKEN, "If-Match", tag),
        body);
  }

  @Test
  void jobThatIsMadeTwiceUnderOneKeyIsOneAlsoAfterARestart() throws Exception {
    HttpResponse<String> first = make("k-1", "{\"title\":\"Rake\"}");
    assertThat(first.statusCode()).isEqualTo(201);
    ledger.close();
    ledger = new WorksLedger(0, TOKEN, data, new ControlledClock()).start();
    HttpResponse<String> again = make("k-1", "{\"title\":\"Rake\"}");
    assertThat(again.statusCode()).isEqualTo(200);
    assertThat(Bench.json(again).path("id")).isEqualTo(Bench.json(first).path("id"));
    assertThat(Bench.json(make("k-2", "{\"title\":\"Rake\"}")).path("id"))
        .isNotEqualTo(Bench.json(first).path("id"));
  }

  /** RFC 6585 section 3 (428) and RFC 9110 section 15.5.13 (412). */
  @Test
  void changeNeedsTheTagOfWhatIsThere() throws Exception {
    HttpResponse<String> made = make("k", "{\"title\":\"Rake\"}");
    String id = Bench.json(made).path("id").asText();
    String tag = made.headers().firstValue("ETag").orElseThrow();
    assertThat(Bench.call(ledger, TOKEN, "PATCH", "/api/jobs/" + id, "{}").statusCode())
        .isEqualTo(428);
    HttpResponse<String> changed = change(id, tag, "{\"status\":\"in-work\"}");
    assertThat(changed.statusCode()).isEqualTo(200);
    assertThat(changed.headers().firstValue("ETag").orElseThrow()).isNotEqualTo(tag);
    assertThat(change(id, tag, "{\"status\":\"done\"}").statusCode()).isEqualTo(412);
    assertThat(change(id, "*", "{\"due\":null}").statusCode()).isEqualTo(200);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{\"description\":\"x\"};title",
        "{\"title\":\"x\",\"due\":\"30.11.2026\"};due",
        "{\"title\":\"x\",\"owner\":\"bu-11\"};owner",
        "{\"title\":\"x\",\"status\":\"finished\"};status",
        "{\"title\":\"x\",\"labels\":\"one\"};labels",
        "{\"title\":\"x\",\"parent\":\"wl-1\"};parent",
        "{\"title\":\"x\",\"lane\":\"a\"};lane",
        "{\"title\":7};title",
      })
  void whatTheLedgerDoesNotTakeIsRefusedByItsField(String body, String field) throws Exception {
    HttpResponse<String> answer = make("k", body);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(422);
    assertThat(Bench.json(answer).path("field").asText()).isEqualTo(field);
  }

  @Test
  void titleLongerThanItKeepsIsRefused() throws Exception {
    HttpResponse<String> answer = make("k", "{\"title\":\"" + "x".repeat(91) + "\"}");
    assertThat(answer.statusCode()).isEqualTo(422);
    assertThat(make("k", "{\"title\":\"" + "x".repeat(90) + "\"}").statusCode()).isEqualTo(201);
  }

  @Test
  void changesAreToldAfterACursorPageByPageEachJobOnceAsItIsNow() throws Exception {
    List<String> made = new ArrayList<>();
    for (int i = 0; i < 5; i++) {
      made.add(Bench.json(make("k" + i, "{\"title\":\"J\"}")).path("id").asText());
    }
    change(made.getFirst(), "*", "{\"status\":\"done\"}");
    List<String> told = new ArrayList<>();
    String cursor = "0";
    JsonNode page;
    do {
      page =
          Bench.json(Bench.call(ledger, TOKEN, "GET", "/api/changes?limit=2&after=" + cursor, ""));
      page.path("changes").forEach(job -> told.add(job.path("id").asText()));
      cursor = page.path("cursor").asText();
    } while (page.has("more"));
    assertThat(told).hasSize(5).doesNotHaveDuplicates();
    assertThat(told.getLast()).isEqualTo(made.getFirst());
    JsonNode nothing =
        Bench.json(Bench.call(ledger, TOKEN, "GET", "/api/changes?after=" + cursor, ""));
    assertThat(nothing.path("changes")).isEmpty();
    assertThat(nothing.path("cursor").asText()).isEqualTo(cursor);
    assertThat(Bench.call(ledger, TOKEN, "GET", "/api/changes?after=x", "").statusCode())
        .isEqualTo(400);
  }

  @Test
  void personSetsTheStatusOnThePage() throws Exception {
    String id = Bench.json(make("k", "{\"title\":\"A <b>bold</b> one\"}")).path("id").asText();
    Bench.form(ledger, "/jobs/" + id + "/status", Map.of("status", "waiting"));
    JsonNode job = Bench.json(Bench.call(ledger, TOKEN, "GET", "/api/jobs/" + id, ""));
    assertThat(job.path("status").asText()).isEqualTo("waiting");
    assertThat(Bench.call(ledger, "GET", "/", Map.of(), "").body())
        .contains("A &lt;b&gt;bold&lt;/b&gt; one");
  }
}
