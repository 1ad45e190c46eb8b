package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.Callable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * People work on both sides at once, while answers are lost, webhooks come twice or in the wrong
 * order and systems break. In the end both sides say the same, nothing is there twice, and whatever
 * somebody entered stands on its side or was settled by the bridge's rules.
 *
 * <p>Ten rounds, or as many as {@code -Drounds=} says; the seed is fixed, or {@code -Dseed=}.
 */
class PeopleOnBothSidesIT extends BothWaysTestBase {

  private static final int ROUNDS = Integer.getInteger("rounds", 10);
  private static final long SEED = Long.getLong("seed", 20261127L);

  private static final List<String> LANES = List.of("wanted", "doing", "finished");
  private static final List<String> STATUSES =
      List.of("open", "planned", "in-work", "waiting", "done", "dropped");
  private static final Map<String, String> LANE_OF =
      Map.of(
          "open",
          "wanted",
          "planned",
          "wanted",
          "in-work",
          "doing",
          "waiting",
          "doing",
          "done",
          "finished",
          "dropped",
          "finished");
  private static final List<String> LABELS = List.of("water", "paths", "harbour", "urgent");

  private final Random random = new Random(SEED);
  private final Map<String, String> jobOf = new HashMap<>();
  private final List<String> told = new ArrayList<>();

  /** What people entered in a round, by task and field: on the board and in the ledger. */
  private final Map<String, String> onBoard = new HashMap<>();

  private final Map<String, String> inLedger = new HashMap<>();

  /** Many rounds write more to four tasks in an hour than the demo's bridge may. */
  @BeforeEach
  void mayWriteAsOftenAsItTakes() throws Exception {
    String document = Files.readString(SETUP.resolve("bridges").resolve(BRIDGE + ".yaml"));
    String ceiling = "ceiling: { creates: 100, changes: 50000, same-task: 10000, per: PT1H }\n";
    var put = putBridge(BRIDGE, document.replaceFirst("(?m)^ceiling: .*\\n", ceiling));
    assertThat(put.statusCode()).as(put.body()).isBetween(200, 204);
  }

  @Test
  void bothSidesAgreeInTheEnd() throws Exception {
    for (int i = 0; i < 4; i++) {
      String title = "Round of the " + LABELS.get(i) + " wall";
      String id =
          makeTask("{\"title\":\"" + title + "\",\"lane\":\"wanted\",\"labels\":[\"board\"]}")
              .path("id")
              .asText();
      jobOf.put(id, "");
    }
    quiet();
    for (String task : jobOf.keySet()) {
      jobOf.put(task, jobOf(task).orElseThrow().path("id").asText());
    }
    for (int round = 0; round < ROUNDS; round++) {
      round(round);
    }
  }

  private void round(int round) throws Exception {
    limitOfTheBoardBeginsAnew();
    onBoard.clear();
    inLedger.clear();
    told.add("round " + round);
    trouble();
    for (int i = 2 + random.nextInt(5); i > 0; i--) {
      somebodyActs(round);
    }
    send("DELETE", "http://127.0.0.1:" + BOARD.port() + "/control/faults", "", Map.of());
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    quiet();
    sendAgainWhatFailed();
    for (JsonNode one : disagreements()) {
      check(one);
      answer(one, random.nextBoolean() ? "LEFT" : "RIGHT", "");
    }
    quiet();
    for (Map.Entry<String, String> pair : jobOf.entrySet()) {
      agree(task(pair.getKey()), job(pair.getValue()));
    }
    assertThat(disagreements()).as(() -> told.toString()).isEmpty();
    nothingIsThereTwice();
  }

  private void trouble() throws Exception {
    switch (random.nextInt(6)) {
      case 0 -> fault(LEDGER.port(), "answer-lost", "PATCH", "/api/jobs", 1);
      case 1 -> fault(BOARD.port(), "answer-lost", "PATCH", "/api/tasks", 1);
      case 2 -> fault(BOARD.port(), "error", "GET", "/api/tasks", 1);
      case 3 -> fault(LEDGER.port(), "too-many", "GET", "/api/jobs", 1);
      case 4 -> fault(BOARD.port(), "hook-twice", "POST", "", 2);
      default -> fault(BOARD.port(), "hook-out-of-order", "POST", "", 1);
    }
  }

  private void somebodyActs(int round) throws Exception {
    List<String> tasks = new ArrayList<>(new TreeSet<>(jobOf.keySet()));
    String task = tasks.get(random.nextInt(tasks.size()));
    String job = jobOf.get(task);
    ObjectNode wish = JSON.createObjectNode();
    boolean board = random.nextBoolean();
    switch (random.nextInt(5)) {
      case 0 -> wish.put("title", "Wall " + round + " " + random.nextInt(1000));
      case 1 -> {
        if (board) {
          wish.put("lane", LANES.get(random.nextInt(LANES.size())));
        } else {
          wish.put("status", STATUSES.get(random.nextInt(STATUSES.size())));
        }
      }
      case 2 -> {
        String day = "2026-12-" + (10 + random.nextInt(20));
        wish.put("due", board ? day + "T17:00:00Z" : day);
      }
      case 3 -> {
        String whole = tasks.get(random.nextInt(tasks.size()));
        if (whole.equals(task)) {
          wish.putNull("parent");
        } else {
          wish.put("parent", board ? whole : jobOf.get(whole));
        }
      }
      default -> {
        Set<String> labels = new HashSet<>();
        insist(() -> board ? task(task) : job(job))
            .path("labels")
            .forEach(one -> labels.add(one.asText()));
        String label = LABELS.get(random.nextInt(LABELS.size()));
        if (!labels.remove(label)) {
          labels.add(label);
        }
        labels.forEach(wish.withArray("labels")::add);
      }
    }
    JsonNode unused =
        insist(() -> board ? changeTask(task, wish.toString()) : changeJob(job, wish.toString()));
    told.add((board ? task : job) + " " + wish);
    wish.properties()
        .forEach(
            entry ->
                (board ? onBoard : inLedger)
                    .put(task + " " + entry.getKey(), entry.getValue().asText()));
  }

  /** A person whom a system fails tries again. */
  private static JsonNode insist(Callable<JsonNode> act) throws Exception {
    for (int i = 0; i < 5; i++) {
      try {
        JsonNode answer = act.call();
        if (!answer.has("error")) {
          return answer;
        }
      } catch (IOException broken) {
        // It is met once, and goes away by itself.
        continue;
      }
    }
    throw new IllegalStateException("it fails again and again");
  }

  /** A person only sends again; nothing else is needed. */
  private void sendAgainWhatFailed() throws Exception {
    for (JsonNode trace : traces()) {
      if (trace.path("verdict").asText().equals("FAILED") && !trace.path("resent").asBoolean()) {
        told.add("failed: " + trace.path("reason").asText());
        JsonNode unused = resend(trace);
      }
    }
    quiet();
  }

  /** What is asked about was entered on both sides, and both still hold it. */
  private void check(JsonNode one) throws Exception {
    JsonNode task = task(one.path("left").path("record").asText());
    JsonNode job = job(one.path("right").path("record").asText());
    String field = one.path("field").asText().toLowerCase(java.util.Locale.ROOT);
    if (field.equals("title")) {
      assertThat(one.path("left").path("now").asText()).isEqualTo(task.path("title").asText());
      assertThat(one.path("right").path("now").asText()).isEqualTo(job.path("title").asText());
      assertThat(onBoard)
          .as(() -> told.toString())
          .containsKey(task.path("id").asText() + " title");
      assertThat(inLedger)
          .as(() -> told.toString())
          .containsKey(task.path("id").asText() + " title");
    }
  }

  private void agree(JsonNode task, JsonNode job) {
    String what = told + "\n" + task + "\n" + job;
    assertThat(job.path("title").asText()).as(what).isEqualTo(task.path("title").asText());
    assertThat(LANE_OF.get(job.path("status").asText()))
        .as(what)
        .isEqualTo(task.path("lane").asText());
    assertThat(job.path("due").asText(""))
        .as(what)
        .isEqualTo(task.path("due").asText("").replaceFirst("T.*", ""));
    assertThat(labels(job)).as(what).isEqualTo(labels(task));
    String whole = task.path("parent").asText("");
    assertThat(job.path("parent").asText(""))
        .as(what)
        .isEqualTo(whole.isEmpty() ? "" : jobOf.get(whole));
    // What only one of both sides said is what both say now.
    String id = task.path("id").asText();
    String title = onBoard.get(id + " title");
    if (title != null && !inLedger.containsKey(id + " title")) {
      assertThat(job.path("title").asText()).as(what).isEqualTo(title);
    }
    String other = inLedger.get(id + " title");
    if (other != null && !onBoard.containsKey(id + " title")) {
      assertThat(task.path("title").asText()).as(what).isEqualTo(other);
    }
    String status = inLedger.get(id + " status");
    if (status != null && !onBoard.containsKey(id + " lane")) {
      assertThat(job.path("status").asText()).as(what).isEqualTo(status);
    }
  }

  private static Set<String> labels(JsonNode record) {
    Set<String> labels = new TreeSet<>();
    record.path("labels").forEach(one -> labels.add(one.asText()));
    return labels;
  }

  private void nothingIsThereTwice() throws Exception {
    Map<String, String> seen = new HashMap<>();
    for (JsonNode job : jobs()) {
      if (labels(job).contains("board")) {
        String id = job.path("id").asText();
        seen.merge(job.path("title").asText(), id, (one, two) -> one + " and " + two);
      }
    }
    for (Map.Entry<String, String> pair : jobOf.entrySet()) {
      String title = job(pair.getValue()).path("title").asText();
      assertThat(seen.get(title)).as(() -> told.toString()).doesNotContain(" and ");
    }
  }
}
