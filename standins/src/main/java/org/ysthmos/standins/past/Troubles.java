package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Stream;

/** What went wrong, and who put it right. */
final class Troubles {

  /**
   * A system does not do what it should for a while.
   *
   * @param daysBack how many days before the end
   * @param calls how many calls it meets at most
   * @param lasts until somebody puts it right
   */
  private record Trouble(
      int daysBack,
      int hour,
      int minute,
      String standIn,
      String kind,
      String method,
      String below,
      int calls,
      Duration lasts,
      String field) {}

  private static final int ALL = 9999;

  private static final List<Trouble> ALL_TROUBLES =
      List.of(
          trouble(27, 11, 5, "grounds-board", "down", "", "/api", ALL, 7),
          trouble(25, 9, 30, "works-ledger", "too-many", "POST", "/api", 6, 30),
          trouble(22, 14, 10, "grounds-board", "answer-lost", "POST", "/api", 3, 90),
          trouble(20, 10, 0, "friends-register", "token-expired", "GET", "/api", ALL, 95),
          trouble(18, 13, 20, "visitor-desk", "truncated", "GET", "/api", 3, 60),
          trouble(16, 12, 0, "grounds-board", "down", "", "/api", ALL, 55),
          trouble(13, 11, 30, "grounds-board", "forbidden", "PUT", "/api/tasks", 4, 240),
          trouble(11, 10, 15, "works-ledger", "error", "", "/api", 5, 60),
          trouble(9, 15, 0, "garden-chat", "down", "", "/api", ALL, 12),
          new Trouble(
              7,
              12,
              30,
              "works-ledger",
              "field-renamed",
              "POST",
              "/api/jobs",
              ALL,
              Duration.ofMinutes(80),
              "id:number"),
          trouble(6, 11, 0, "visitor-desk", "hook-twice", "", "", 3, 180),
          trouble(6, 14, 30, "climate-desk", "hook-out-of-order", "", "", 2, 180),
          trouble(5, 9, 45, "works-ledger", "token-expired", "", "/api", ALL, 50),
          trouble(3, 13, 5, "grounds-board", "quota-full", "POST", "/api/boards", ALL, 70),
          trouble(2, 10, 50, "leaf-library", "error", "", "/dav", 4, 30),
          trouble(1, 11, 40, "grounds-board", "forbidden", "PUT", "/api/tasks", 3, 300));

  /** From when on failures are left to whoever opens the demo. */
  private static final Duration LEFT_OPEN = Duration.ofHours(70);

  private final Season season;
  private final List<Happening> happenings = new ArrayList<>();

  private Troubles(Season season) {
    this.season = season;
  }

  private static Trouble trouble(
      int daysBack,
      int hour,
      int minute,
      String standIn,
      String kind,
      String method,
      String below,
      int calls,
      int minutes) {
    return new Trouble(
        daysBack,
        hour,
        minute,
        standIn,
        kind,
        method,
        below,
        calls,
        Duration.ofMinutes(minutes),
        "");
  }

  static List<Happening> plan(Season season) {
    Troubles troubles = new Troubles(season);
    for (Trouble trouble : ALL_TROUBLES) {
      Instant begins = begins(season, trouble, 0);
      troubles.add(
          begins,
          trouble.standIn() + " is in trouble: " + trouble.kind(),
          hands ->
              hands.fault(
                  trouble.standIn(),
                  trouble.kind(),
                  trouble.method(),
                  trouble.below(),
                  trouble.calls(),
                  trouble.field()));
      troubles.add(
          begins.plus(trouble.lasts()),
          trouble.standIn() + " is put right",
          hands -> hands.mended(trouble.standIn()));
    }
    SplittableRandom random = season.chance("troubles");
    for (LocalDate day : season.dates()) {
      Instant morning = Season.at(day, 8, 35 + random.nextInt(20));
      Instant afternoon = Season.at(day, 16, 35 + random.nextInt(20));
      for (Instant look : List.of(morning, afternoon)) {
        if (Season.isWorkday(day) && look.isBefore(season.end().minus(LEFT_OPEN))) {
          troubles.add(look, "somebody looks after what failed", Troubles::lookAfter);
        }
      }
    }
    return troubles.happenings;
  }

  /** When many come at once while something is in trouble, as it happens. */
  static List<Instant> busyMoments(Season season) {
    return ALL_TROUBLES.stream()
        .flatMap(trouble -> Stream.of(1, 3, 5).map(minutes -> begins(season, trouble, minutes)))
        .filter(season::holds)
        .toList();
  }

  /** A moment, or one soon after the trouble of a stand-in in which it lies. */
  static Instant afterTrouble(Season season, String standIn, Instant at) {
    return ALL_TROUBLES.stream()
        .filter(trouble -> trouble.standIn().equals(standIn))
        .filter(trouble -> !at.isBefore(begins(season, trouble, 0)))
        .map(trouble -> begins(season, trouble, 0).plus(trouble.lasts()))
        .filter(at::isBefore)
        .findFirst()
        .map(end -> end.plus(Duration.ofMinutes(5)))
        .orElse(at);
  }

  private static Instant begins(Season season, Trouble trouble, int minutesLater) {
    LocalDate last = season.end().atZone(Season.ZONE).toLocalDate();
    return Season.at(last.minusDays(trouble.daysBack()), trouble.hour(), trouble.minute())
        .plus(Duration.ofMinutes(minutesLater));
  }

  private void add(Instant at, String what, Happening.Deed deed) {
    if (season.holds(at)) {
      happenings.add(new Happening(at, what, deed));
    }
  }

  /**
   * Reports that say no day are mended where they came from; everything else is sent again, as what
   * was in its way has been put right.
   */
  private static void lookAfter(Hands hands) throws IOException, InterruptedException {
    JsonNode failed =
        hands.engine("GET", "/api/traces?verdict=needs-you&since=" + weekBefore(hands), "");
    for (JsonNode trace : failed.path("traces")) {
      boolean report = trace.path("bridge").asText().equals("hazard-to-grounds");
      if (report && trace.path("failureKind").asText().equals("mapping error")) {
        String day = VisitorsLife.AS_WRITTEN.format(hands.now().atZone(Season.ZONE));
        JsonNode unused =
            hands.call(
                "visitor-desk",
                "PATCH",
                "/api/submissions/" + trace.path("record").asText(),
                "{\"seenOn\":\"" + day + "\",\"danger\":\"5\"}");
      } else {
        String path = "/api/traces/" + trace.path("id").asText() + "/resend";
        JsonNode unused = hands.engine("POST", path, "");
      }
      hands.passes(Duration.ofSeconds(40));
    }
  }

  private static Instant weekBefore(Hands hands) throws IOException, InterruptedException {
    return hands.now().minus(Duration.ofDays(7));
  }
}
