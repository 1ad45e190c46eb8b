package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/** Those who work here talk, open tickets, and do what became a job or a task. */
final class WorksLife {

  private static final double TICKETS_ON_A_WORKDAY = 4.5;
  private static final double TICKETS_AT_A_WEEKEND = 1.5;
  private static final double MESSAGES_ON_A_WORKDAY = 9;

  /** When the works department goes through its jobs, in hours of a workday. */
  private static final List<Integer> ROUNDS = List.of(8, 9, 10, 11, 12, 14, 15, 16, 17);

  private static final int TICKS_A_DAY = 14;

  /** People who go through a list set several as they now stand, then look up. */
  private static final int AT_ONCE = 3;

  /** Among how many of the oldest the next is chosen. */
  private static final int CHOICE = 10;

  /** The bays of a glasshouse, by which tickets say where something is. */
  private static final int BAYS = 30;

  private final Season season;
  private final Words words;
  private final SplittableRandom random;
  private final List<Happening> happenings = new ArrayList<>();

  private WorksLife(Season season, Words words) {
    this.season = season;
    this.words = words;
    this.random = season.chance("works");
  }

  static List<Happening> plan(Season season, Words words) {
    WorksLife life = new WorksLife(season, words);
    for (LocalDate day : season.dates()) {
      boolean workday = Season.isWorkday(day);
      double tickets = workday ? TICKETS_ON_A_WORKDAY : TICKETS_AT_A_WEEKEND;
      season.moments(day, tickets, Season.STAFF, life.random).forEach(life::ticket);
      if (workday) {
        season
            .moments(day, MESSAGES_ON_A_WORKDAY, Season.STAFF, life.random)
            .forEach(life::message);
        life.rounds(day);
      }
    }
    for (Instant at : Troubles.busyMoments(season)) {
      life.ticket(at.plusSeconds(20));
    }
    return life.happenings;
  }

  private void add(Instant at, String what, Happening.Deed deed) {
    if (season.holds(at)) {
      happenings.add(new Happening(at, what, deed));
    }
  }

  private void ticket(Instant at) {
    List<String> ticket = words.any("tickets", random);
    String code = ticket.get(1);
    String written = random.nextInt(4) == 0 ? code.toLowerCase(java.util.Locale.ROOT) : code;
    String description =
        "House: %s\n%sSince: %s"
            .formatted(
                ticket.get(0),
                code.isEmpty() ? "" : "Fault code: " + written + "\n",
                random.nextBoolean() ? "this morning" : "yesterday");
    Map<String, String> form =
        Map.of(
            "requester",
            words.one("requesters", random),
            "subject",
            ticket.get(0) + " " + ticket.get(2) + ", bay " + (1 + random.nextInt(BAYS)),
            "description",
            description);
    String name = "ticket at " + at;
    add(
        at,
        "a ticket is opened: " + form.get("subject"),
        hands -> hands.remember(name, hands.form("climate-desk", "/tickets", form)));
    status(name, at.plusSeconds(600 + random.nextInt(7200)), "open");
    // Of what became a job they hear when that is done; some settles itself before.
    if (random.nextInt(10) < 2) {
      status(name, at.plusSeconds(20_000 + random.nextInt(200_000)), "solved");
    }
  }

  private void status(String ticket, Instant at, String status) {
    add(
        at,
        "a ticket is " + status,
        hands -> {
          String path = "/tickets/" + hands.number(ticket) + "/status";
          String unused = hands.form("climate-desk", path, Map.of("status", status));
        });
  }

  private void message(Instant at) {
    List<String> message = words.any("messages", random);
    Map<String, String> form =
        Map.of("channel", message.get(0), "author", message.get(1), "text", message.get(2));
    String name = "message at " + at;
    add(
        at,
        message.get(1) + " says: " + message.get(2),
        hands -> hands.remember(name, hands.form("garden-chat", "/messages", form)));
    int marks = Math.max(0, random.nextInt(5) - 2);
    for (int i = 0; i < marks; i++) {
      Map<String, String> mark =
          Map.of(
              "reaction",
              random.nextInt(3) > 0 ? "seedling" : "thanks",
              "by",
              words.one("members", random));
      Instant marked = at.plusSeconds(40 + random.nextInt(5400));
      add(
          marked,
          "somebody marks it with a " + mark.get("reaction"),
          hands -> {
            Map<String, String> fields = new java.util.HashMap<>(mark);
            fields.put("message", hands.number(name));
            String unused = hands.form("garden-chat", "/reactions", fields);
          });
    }
  }

  private void rounds(LocalDate day) {
    for (int hour : ROUNDS) {
      Instant wanted = Season.at(day, hour, 5 + random.nextInt(50));
      Instant at = Troubles.afterTrouble(season, "works-ledger", wanted);
      SplittableRandom own = random.split();
      add(at, "the works department goes on with jobs", hands -> goOnWithJobs(hands, own));
    }
    Instant at = Season.at(day, 15, 20 + random.nextInt(30));
    for (int todo = TICKS_A_DAY; todo > 0; todo -= AT_ONCE) {
      int tasks = Math.min(todo, AT_ONCE);
      SplittableRandom own = random.split();
      add(at, "the grounds crew finishes tasks", hands -> finishTasks(hands, tasks, own));
      at = at.plusSeconds(60 + random.nextInt(180));
    }
  }

  /** Some of the oldest jobs go on from their status to the next. */
  private static void goOnWithJobs(Hands hands, SplittableRandom random)
      throws IOException, InterruptedException {
    List<JsonNode> open =
        hands.jobs().read(hands).stream()
            .filter(job -> !List.of("done", "dropped").contains(job.path("status").asText()))
            .limit(CHOICE)
            .toList();
    for (JsonNode job : some(AT_ONCE, open, random)) {
      String path = "/jobs/" + job.path("id").asText() + "/status";
      String next = next(job.path("status").asText(), random);
      String unused = hands.form("works-ledger", path, Map.of("status", next));
    }
  }

  private static List<JsonNode> some(int most, List<JsonNode> all, SplittableRandom random) {
    List<JsonNode> left = new ArrayList<>(all);
    List<JsonNode> some = new ArrayList<>();
    while (some.size() < most && !left.isEmpty()) {
      some.add(left.remove(random.nextInt(left.size())));
    }
    return some;
  }

  private static String next(String status, SplittableRandom random) {
    return switch (status) {
      case "open" -> "planned";
      case "planned" -> random.nextInt(15) == 0 ? "dropped" : "in-work";
      case "in-work" -> random.nextInt(8) == 0 ? "waiting" : "done";
      default -> "in-work";
    };
  }

  private static void finishTasks(Hands hands, int most, SplittableRandom random)
      throws IOException, InterruptedException {
    String asked = "/api/boards/paths-and-trees/tasks?done=false";
    JsonNode tasks = hands.call("grounds-board", "GET", asked, "").path("items");
    List<JsonNode> oldest = tasks.valueStream().limit(CHOICE).toList();
    for (JsonNode task : some(most, oldest, random)) {
      String path = "/boards/paths-and-trees/tasks/" + task.path("id").asText() + "/tick";
      String unused = hands.form("grounds-board", path, Map.of());
    }
  }
}
