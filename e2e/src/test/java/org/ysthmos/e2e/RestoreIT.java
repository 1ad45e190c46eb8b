package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * A backup is taken under load by the command, the application goes on, loses its disk, and is
 * restored by the command: nothing is lost that can be read again, and nothing is made twice.
 */
class RestoreIT {

  private static final Together TOGETHER = new Together();
  private static final String BACKUP = "org.ysthmos.app.backup.BackupCommand";
  private static final String RESTORE = "org.ysthmos.app.backup.RestoreCommand";
  private static final Duration LONG = Duration.ofMinutes(4);

  private final List<Item> items = new ArrayList<>();

  /** Something that must become one task. */
  private record Item(Arrival arrival, String id) {
    boolean isComplete() {
      return arrival.isComplete(TOGETHER, id);
    }
  }

  @AfterAll
  static void stop() {
    TOGETHER.close();
  }

  private void arrive(int rounds) {
    for (int round = 0; round < rounds; round++) {
      for (Arrival arrival : Arrival.values()) {
        items.add(new Item(arrival, arrival.send(TOGETHER, items.size())));
      }
    }
  }

  private static JsonNode gaps() {
    return TOGETHER.json("GET", TOGETHER.appAddress() + "/api/gaps", "", Map.of());
  }

  private void awaitAllComplete() {
    await()
        .atMost(LONG)
        .pollInterval(Duration.ofSeconds(2))
        .untilAsserted(
            () -> {
              TOGETHER.askAll();
              assertThat(items).filteredOn(item -> !item.isComplete()).isEmpty();
            });
  }

  private void assertNoneTwice() {
    assertThat(items)
        .filteredOn(item -> item.arrival().tasks(TOGETHER, item.id()).count() != 1)
        .isEmpty();
  }

  @Test
  void backupUnderLoadIsRestoredWithNothingLostAndNothingTwice() throws Exception {
    TOGETHER.noCeilings();
    TOGETHER.awaitAsked();
    arrive(2);
    awaitAllComplete();
    // What is made just now is on its way in the copy.
    TOGETHER.fault(TOGETHER.boardAddress(), "slow", "POST", "/api/boards", 4, 1500);
    arrive(2);
    Path file = TOGETHER.kept("backup.zip");
    CompletableFuture<Integer> backup =
        CompletableFuture.supplyAsync(
            () ->
                TOGETHER.command(
                    BACKUP, file.toString(), "--port", Integer.toString(TOGETHER.port())));
    arrive(4);
    assertThat(backup.get()).as(() -> TOGETHER.log("command.log")).isZero();
    // The copy knows nothing of these, and their tasks are made.
    String changedLater = TOGETHER.report("Changed later", "5");
    arrive(3);
    awaitAllComplete();
    TOGETHER.awaitVerdict(changedLater, "CREATE");

    TOGETHER.kill();
    Files.writeString(TOGETHER.kept("ysthmos.mv.db"), "a disk that broke");
    assertThat(TOGETHER.command(RESTORE, file.toString()))
        .as(() -> TOGETHER.log("command.log"))
        .isZero();
    // These come while nothing runs; what is told by webhook is told again by its sender or lost.
    Item pledge = new Item(Arrival.PLEDGE, Arrival.PLEDGE.send(TOGETHER, 1000));
    items.add(pledge);
    TOGETHER.restart();
    await()
        .atMost(LONG)
        .until(
            () ->
                StreamSupport.stream(gaps().path(0).path("places").spliterator(), false)
                        .filter(place -> place.path("way").asText().equals("POLLED"))
                        .allMatch(place -> place.path("read").asBoolean())
                    && gaps().at("/0/checks/0/begun").asBoolean());
    assertThat(gaps().at("/0/places").findValuesAsText("way")).contains("POLLED", "TOLD");
    awaitAllComplete();
    assertNoneTwice();

    // A change of what the copy never heard of finds the task that was made of it.
    TOGETHER.edit(changedLater, "9");
    await().atMost(LONG).until(() -> !TOGETHER.tracesOf(changedLater).isEmpty());
    await()
        .atMost(LONG)
        .until(
            () -> !TOGETHER.tracesOf(changedLater).getFirst().path("verdict").asText().isEmpty());
    arrive(1);
    awaitAllComplete();
    awaitNothingUnderWay();
    assertNoneTwice();
    assertThat(TOGETHER.tasksOf(changedLater)).hasSize(1);

    String seen = TOGETHER.appAddress() + "/api/gaps/" + gaps().at("/0/id").asText() + "/seen";
    assertThat(TOGETHER.send("POST", seen, "", Map.of()).statusCode()).isEqualTo(204);
    assertThat(gaps()).isEmpty();
  }

  private static void awaitNothingUnderWay() {
    await()
        .atMost(LONG)
        .until(
            () ->
                TOGETHER
                    .json(
                        "GET", TOGETHER.appAddress() + "/api/traces?verdict=WAITING", "", Map.of())
                    .path("traces")
                    .isEmpty());
  }
}
