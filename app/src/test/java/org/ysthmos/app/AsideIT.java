package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;

/**
 * What cannot be read is set aside as a failed trace that a person sees, and holds nothing back.
 */
class AsideIT extends AppTestBase {

  private static final Path ORDERS = DATA.resolve("drops").resolve("stall");

  @Autowired private Systems systems;
  @Autowired private Bridges bridges;

  @BeforeEach
  void stall() throws Exception {
    systems.put(
        """
        system: stall
        name: Stall
        address: drop:stall
        collections:
          orders:
            name: Orders
            record: order
            files: "*.csv"
            reads: csv
            id: /number
            every: PT1S
            fields:
              /number: { name: number, type: text, required: true }
              /what: { name: what, type: text }
        """);
    bridges.refresh();
    HttpResponse<String> put =
        send(
            "PUT",
            app("/api/bridges/stall-orders/document"),
            """
                    bridge: stall-orders
                    name: Stall order
                    purpose: An order becomes a task
                    from: { system: stall, collection: orders, event: [created, changed] }
                    to: { system: grounds-board, collection: paths-and-trees }
                    match: [/number]
                    fields:
                      title: { value: /what }
                      lane: { always: reported }
                    ceiling: { creates: 500, per: PT1H }
                    """,
            Map.of("Content-Type", "application/yaml"));
    assertThat(put.statusCode()).as(put.body()).isLessThan(300);
    await()
        .until(() -> !poll().path("askedAt").isMissingNode() && !poll().path("askedAt").isNull());
  }

  private static JsonNode poll() {
    for (JsonNode poll : api("/polls")) {
      if (poll.path("system").asText().equals("stall")) {
        return poll;
      }
    }
    return JSON.missingNode();
  }

  private static void drop(String name, byte[] text) throws Exception {
    Files.createDirectories(ORDERS);
    Path file = ORDERS.resolve("." + name);
    Files.write(file, text);
    Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(10)));
    Files.move(file, ORDERS.resolve(name), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    assertThat(
            send("POST", app("/api/systems/stall/collections/orders/ask"), "", Map.of())
                .statusCode())
        .isEqualTo(202);
  }

  private static void drop(String name, String text) throws Exception {
    drop(name, text.getBytes(StandardCharsets.UTF_8));
  }

  /** The traces of a record or a file, the newest first. */
  private static List<JsonNode> traces(String record) {
    List<JsonNode> found = new ArrayList<>();
    for (JsonNode trace : api("/traces?bridge=stall-orders").path("traces")) {
      if (trace.path("record").asText().equals(record)) {
        found.add(trace);
      }
    }
    return found;
  }

  private static JsonNode ended(String record, int count) {
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () ->
                traces(record).size() == count
                    && traces(record).stream()
                        .noneMatch(one -> one.path("verdict").asText().equals("WAITING")));
    return traces(record).getFirst();
  }

  private static boolean needsAPerson() {
    return !api("/traces?verdict=needs-you&bridge=stall-orders").path("traces").isEmpty();
  }

  @Test
  void fileThatCannotBeReadWaitsForAPersonWhileTheOthersAreTaken() throws Exception {
    drop("bad.csv", "number,what\r\n1,two,three\r\n");
    drop("good.csv", "number,what\r\n7,Ferns\r\n");
    assertThat(ended("7", 1).path("verdict").asText()).isEqualTo("CREATE");
    JsonNode failed = ended("bad.csv", 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("title").asText()).isEqualTo("bad.csv");
    assertThat(story(failed).toString())
        .contains("line 2 has 3 cells where the first line has 2")
        .contains("1,two,three")
        .contains("Set aside: cannot be read");
    assertThat(needsAPerson()).isTrue();

    // Read again, it is still what it was, and says so anew.
    assertThat(resend(failed).path("status").isMissingNode()).isTrue();
    JsonNode again = ended("bad.csv", 3);
    assertThat(again.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(traces("bad.csv"))
        .extracting(one -> one.path("verdict").asText())
        .containsExactly("FAILED", "PASSED_BY", "FAILED");
    assertThat(needsAPerson()).isTrue();

    // Corrected, it is taken, and nobody need look after it any more.
    drop("bad.csv", "number,what\r\n8,Mosses\r\n");
    assertThat(ended("8", 1).path("verdict").asText()).isEqualTo("CREATE");
    await().until(() -> !needsAPerson());
  }

  /** More than is kept of one event; it stopped its source before. */
  @Test
  void recordThatIsTooLargeIsSetAsideAlone() throws Exception {
    drop(
        "large.csv",
        "number,what\r\n20,before\r\n21,%s\r\n22,after\r\n".formatted("x".repeat(1_100_000)));
    ended("20", 1);
    ended("22", 1);
    JsonNode failed = ended("21", 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(story(failed).toString()).contains("at most 1,000,000 are kept");
    // It waits for a person, however often the folder is read meanwhile.
    drop("next.csv", "number,what\r\n23,next\r\n");
    ended("23", 1);
    assertThat(needsAPerson()).isTrue();
  }
}
