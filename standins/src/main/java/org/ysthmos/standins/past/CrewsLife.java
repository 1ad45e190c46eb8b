package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/**
 * The crews work on their board, and the works department in its ledger, on the same tasks. Towards
 * the end they call some of them otherwise at the same time, each in their own words.
 */
final class CrewsLife {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final double TASKS_ON_A_WORKDAY = 1.5;
  private static final List<String> PEOPLE = List.of("bu-14", "bu-41", "bu-42");
  private static final int HOUR = 3600;

  /** How many are called otherwise on both sides on the last days. */
  private static final int DISAGREEMENTS = 3;

  private final Season season;
  private final Words words;
  private final SplittableRandom random;
  private final List<Happening> happenings = new ArrayList<>();
  private int tasks;

  private CrewsLife(Season season, Words words) {
    this.season = season;
    this.words = words;
    this.random = season.chance("crews");
  }

  static List<Happening> plan(Season season, Words words) {
    CrewsLife life = new CrewsLife(season, words);
    for (LocalDate day : season.dates()) {
      if (Season.isWorkday(day)) {
        season.moments(day, TASKS_ON_A_WORKDAY, Season.STAFF, life.random).forEach(life::task);
      }
    }
    life.disagree();
    return life.happenings;
  }

  private void add(Instant at, String what, Happening.Deed deed) {
    if (season.holds(at)) {
      happenings.add(new Happening(at, what, deed));
    }
  }

  /** While the board takes none, it is made there later. */
  private String task(Instant wanted) {
    Instant at = Troubles.afterTrouble(season, "grounds-board", wanted);
    List<String> work = words.any("works", random);
    String name = "works task " + ++tasks;
    ObjectNode task = JSON.createObjectNode().put("title", work.getFirst());
    task.put("lane", "wanted")
        .put("due", at.plusSeconds((5L + random.nextInt(9)) * 24 * HOUR).toString());
    task.withArray("assignees").add(PEOPLE.get(random.nextInt(PEOPLE.size())));
    task.withArray("labels").add("board").add(work.get(1));
    add(
        at,
        "the crews want: " + work.getFirst(),
        hands -> {
          JsonNode made =
              hands.call("grounds-board", "POST", "/api/boards/works/tasks", task.toString());
          hands.remember(name, made.path("id").asText());
        });
    Instant then = at.plusSeconds(HOUR + random.nextInt(8 * HOUR));
    onTheBoard(name, then, "lane", "doing");
    if (random.nextInt(3) == 0) {
      inTheLedger(name, then.plusSeconds(HOUR), "status", "waiting");
      inTheLedger(name, then.plusSeconds(9L * HOUR), "status", "in-work");
    }
    Instant done = then.plusSeconds(20L * HOUR + random.nextInt(60 * HOUR));
    if (random.nextBoolean()) {
      onTheBoard(name, done, "lane", "finished");
    } else {
      inTheLedger(name, done, "status", "done");
    }
    return name;
  }

  /** The same time of the next day on which people work. */
  private static Instant onAWorkday(Instant at) {
    ZonedDateTime when = at.atZone(Season.ZONE);
    while (!Season.isWorkday(when.toLocalDate())) {
      when = when.plusDays(1);
    }
    return when.toInstant();
  }

  private void onTheBoard(String task, Instant at, String field, String value) {
    add(
        onAWorkday(at),
        "the crews put a task to " + value,
        hands -> {
          String path = "/boards/works/tasks/" + hands.number(task) + "/" + field;
          String unused = hands.form("grounds-board", path, Map.of(field, value));
        });
  }

  private void inTheLedger(String task, Instant at, String field, String value) {
    add(
        onAWorkday(at),
        "the works department puts a job to " + value,
        hands -> {
          String job = jobOf(hands, task);
          if (!job.isEmpty()) {
            String unused =
                hands.form("works-ledger", "/jobs/" + job + "/" + field, Map.of(field, value));
          }
        });
  }

  /** The job that stands for a task; empty if there is none. */
  private static String jobOf(Hands hands, String task) throws IOException, InterruptedException {
    JsonNode pairs = hands.engine("GET", "/api/kept-pairs?id=" + hands.number(task), "");
    return pairs.path(0).path("right").path("record").asText("");
  }

  private void disagree() {
    List<String> titles = List.of("in oak", "with new bolts", "before the storm");
    for (int i = 0; i < DISAGREEMENTS; i++) {
      Instant wanted = season.end().minusSeconds((4L + 5L * i) * HOUR);
      Instant at = Troubles.afterTrouble(season, "grounds-board", wanted);
      String name = task(at);
      Instant then = at.plusSeconds(HOUR / 2);
      retitle(name, then, titles.get(i));
    }
  }

  private void retitle(String task, Instant at, String how) {
    add(
        at,
        "both call a task otherwise",
        hands -> {
          String id = hands.number(task);
          String job = jobOf(hands, task);
          if (job.isEmpty()) {
            return;
          }
          String title =
              hands.call("grounds-board", "GET", "/api/tasks/" + id, "").path("title").asText();
          String unusedPage =
              hands.form(
                  "works-ledger", "/jobs/" + job + "/title", Map.of("title", title + ", " + how));
          String unused =
              hands.form(
                  "grounds-board",
                  "/boards/works/tasks/" + id + "/title",
                  Map.of("title", "Once more: " + title));
        });
  }
}
