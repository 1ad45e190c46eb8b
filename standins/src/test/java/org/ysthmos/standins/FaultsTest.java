package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.worksledger.WorksLedger;

/** What goes wrong when it is switched on, and only then. */
class FaultsTest {

  @TempDir Path data;
  private final ControlledClock clock = new ControlledClock();
  private WorksLedger ledger;

  @BeforeEach
  void start() throws Exception {
    ledger = new WorksLedger(0, "t", data, clock).start();
    Bench.call(ledger, "t", "POST", "/api/jobs", "{\"title\":\"Rake\"}");
  }

  @AfterEach
  void stop() {
    ledger.close();
  }

  private void on(String kind, String more) throws Exception {
    String body = "{\"kind\":\"" + kind + "\",\"below\":\"/\"" + more + "}";
    assertThat(Bench.call(ledger, "POST", "/control/faults", Map.of(), body).statusCode())
        .isEqualTo(204);
  }

  private HttpResponse<String> changes() throws Exception {
    return Bench.call(ledger, "t", "GET", "/api/changes?after=0", "");
  }

  @ParameterizedTest
  @CsvSource({"error,500", "forbidden,403", "quota-full,403", "token-expired,401", "too-many,429"})
  void callIsRefusedOnceAndThenAnswered(String kind, int status) throws Exception {
    on(kind, ",\"calls\":1");
    assertThat(changes().statusCode()).isEqualTo(status);
    assertThat(changes().statusCode()).isEqualTo(200);
  }

  @Test
  void shareOfTheCallsIsMetExactlyUntilItIsSwitchedOff() throws Exception {
    on("error", ",\"share\":30");
    int met = 0;
    for (int i = 0; i < 100; i++) {
      met += changes().statusCode() == 500 ? 1 : 0;
    }
    assertThat(met).isEqualTo(30);
    Bench.call(ledger, "DELETE", "/control/faults", Map.of(), "");
    assertThat(changes().statusCode()).isEqualTo(200);
  }

  @Test
  void faultEndsAfterItsTime() throws Exception {
    clock.set(Instant.parse("2026-11-24T10:00:00Z"));
    on("error", ",\"minutes\":5");
    JsonNode list = Bench.json(Bench.call(ledger, "GET", "/control/faults", Map.of(), ""));
    assertThat(list.at("/on/0/until").asText()).startsWith("2026-11-24T10:05:0");
    assertThat(changes().statusCode()).isEqualTo(500);
    clock.set(Instant.parse("2026-11-24T10:04:50Z"));
    assertThat(changes().statusCode()).isEqualTo(500);
    clock.set(Instant.parse("2026-11-24T10:06:00Z"));
    assertThat(changes().statusCode()).isEqualTo(200);
    assertThat(Bench.json(Bench.call(ledger, "GET", "/control/faults", Map.of(), "")).path("on"))
        .isEmpty();
  }

  @Test
  void wishThatCannotBeIsRefused() throws Exception {
    for (String more : new String[] {"\"share\":101", "\"minutes\":-1"}) {
      String body = "{\"kind\":\"error\"," + more + "}";
      assertThat(Bench.call(ledger, "POST", "/control/faults", Map.of(), body).statusCode())
          .isEqualTo(422);
    }
  }

  @Test
  void answerBreaksOffInTheMiddle() throws Exception {
    on("truncated", "");
    assertThatThrownBy(this::changes).isInstanceOf(IOException.class);
    assertThat(changes().statusCode()).isEqualTo(200);
  }

  @Test
  void answerIsLostAfterTheWorkWasDone() throws Exception {
    on("answer-lost", ",\"method\":\"POST\"");
    assertThatThrownBy(() -> Bench.call(ledger, "t", "POST", "/api/jobs", "{\"title\":\"Sweep\"}"))
        .isInstanceOf(IOException.class);
    assertThat(Bench.json(changes()).path("changes")).hasSize(2);
  }

  @Test
  void fieldIsCalledSomethingElseInEveryRecord() throws Exception {
    on("field-renamed", ",\"field\":\"title:name\"");
    JsonNode job = Bench.json(changes()).at("/changes/0");
    assertThat(job.path("name").asText()).isEqualTo("Rake");
    assertThat(job.has("title")).isFalse();
    assertThat(Bench.json(changes()).at("/changes/0/title").asText()).isEqualTo("Rake");
  }

  /** Whoever switched it on must be able to see it and to switch it off. */
  @Test
  void switchesThemselvesAreNeverInTrouble() throws Exception {
    on("down", ",\"calls\":100");
    JsonNode list = Bench.json(Bench.call(ledger, "GET", "/control/faults", Map.of(), ""));
    assertThat(list.at("/on/0/calls").asInt()).isEqualTo(100);
    assertThat(list.path("kinds").size()).isGreaterThan(5);
    // The ledger tells nobody of anything, so no webhook of it can go wrong.
    assertThat(list.toString()).doesNotContain("hook");
    assertThatThrownBy(this::changes).isInstanceOf(IOException.class);
    Bench.call(ledger, "DELETE", "/control/faults", Map.of(), "");
    assertThat(changes().statusCode()).isEqualTo(200);
  }
}
