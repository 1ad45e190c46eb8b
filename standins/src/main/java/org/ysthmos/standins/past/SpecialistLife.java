package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/** What the one who looks after the bridges does in the application itself. */
final class SpecialistLife {

  /** From when on what is to be answered is left to whoever opens the demo. */
  private static final Duration LEFT_OPEN = Duration.ofDays(7);

  private static final String CEILING_TOO_LOW = "climate-job";

  private static final int MISTAKEN_DAYS_BACK = 10;

  private static final int ROUNDS_HELD_DAYS_BACK = 13;

  private static final int ROUNDS_HELD_FOR = 5;
  private static final String CEILING = "(?m)^ceiling: .*$";
  private static final String TOO_LOW = "ceiling: { creates: 1, per: PT12H }";
  private static final String AS_BEFORE = "ceiling: { creates: 40, per: PT1H }";

  private final Season season;
  private final List<Happening> happenings = new ArrayList<>();

  private SpecialistLife(Season season) {
    this.season = season;
  }

  static List<Happening> plan(Season season, Words words) {
    SpecialistLife life = new SpecialistLife(season);
    life.register(words);
    words.all("tests").forEach(life::test);
    for (LocalDate day : season.dates()) {
      Instant afternoon = Season.at(day, 17, 10);
      if (Season.isWorkday(day) && afternoon.isBefore(season.end().minus(LEFT_OPEN))) {
        life.add(afternoon, "possible duplicates are answered", SpecialistLife::answerDuplicates);
      }
      life.add(Season.at(day, 8, 20), "numbers that are none are mended", SpecialistLife::numbers);
    }
    LocalDate last = season.end().atZone(Season.ZONE).toLocalDate();
    LocalDate mistaken = last.minusDays(MISTAKEN_DAYS_BACK);
    while (!Season.isWorkday(mistaken)) {
      mistaken = mistaken.minusDays(1);
    }
    life.add(
        Season.at(mistaken, 7, 30),
        "a ceiling is set too low by mistake",
        hands -> {
          JsonNode unused = ceiling(hands, TOO_LOW);
        });
    life.add(
        Season.at(mistaken.plusDays(1), 9, 0),
        "the ceiling is as before",
        SpecialistLife::putRight);
    life.roundsHeld(last.minusDays(ROUNDS_HELD_DAYS_BACK));
    return life.happenings;
  }

  /** Whose each bridge is, as far as somebody said. */
  private void register(Words words) {
    Instant first = season.begin().plus(Duration.ofMinutes(5));
    for (List<String> owned : words.all("owners")) {
      add(
          first,
          owned.getFirst() + " is said to be whose",
          hands -> {
            String path = "/api/register/bridges/" + owned.getFirst();
            JsonNode unused = hands.engine("PUT", path, card(owned));
          });
    }
    add(
        first,
        "a view of the register is kept",
        hands -> {
          JsonNode unused =
              hands.engine(
                  "PUT",
                  "/api/register/views",
                  "{\"name\":\"By department\",\"query\":\"group=department\"}");
        });
  }

  private static String card(List<String> owned) {
    ObjectNode card = JsonNodeFactory.instance.objectNode();
    card.put("owner", owned.get(1)).put("standIn", owned.get(2)).put("department", owned.get(3));
    card.put("judged", owned.get(4).isEmpty() ? null : owned.get(4));
    return card.put("basedOn", 0).toString();
  }

  /** What is tested of a bridge again and again, and how it went where somebody did. */
  private void test(List<String> planned) {
    String path = "/api/bridges/" + planned.getFirst() + "/tests";
    LocalDate first =
        season.end().atZone(Season.ZONE).toLocalDate().minusDays(Long.parseLong(planned.get(5)));
    ObjectNode wish = JsonNodeFactory.instance.objectNode();
    wish.put("what", planned.get(1)).put("how", planned.get(2)).put("owner", "");
    wish.put("everyDays", planned.get(3).isEmpty() ? null : Integer.valueOf(planned.get(3)));
    wish.put("rule", planned.get(4).isEmpty() ? null : planned.get(4));
    wish.put("firstOn", first.toString()).put("basedOn", 0);
    add(
        season.begin().plus(Duration.ofMinutes(6)),
        "a test of " + planned.getFirst() + " is planned",
        hands -> {
          JsonNode unused = hands.engine("POST", path, wish.toString());
        });
    if (!planned.get(6).isEmpty()) {
      add(
          Season.at(first, 15, 20),
          planned.getFirst() + " is tested",
          hands -> {
            String id = hands.engine("GET", path, "").path(0).path("id").asText();
            ObjectNode result = JsonNodeFactory.instance.objectNode().put("passed", true);
            JsonNode unused =
                hands.engine(
                    "POST",
                    path + "/" + id + "/results",
                    result.put("words", planned.get(6)).toString());
          });
    }
  }

  /** Rounds that come meanwhile are made up for. */
  private void roundsHeld(LocalDate from) {
    if (!season.holds(Season.at(from, 18, 0))) {
      return;
    }
    String path = "/api/bridges/garden-rounds/hold";
    add(
        Season.at(from, 18, 0),
        "the rounds are held while their table is put in order",
        hands -> {
          String because = "{\"because\":\"The table of rounds is put in order\"}";
          JsonNode unused = hands.engine("PUT", path, because);
        });
    add(
        Season.at(from.plusDays(ROUNDS_HELD_FOR), 9, 30),
        "the rounds go on",
        hands -> {
          JsonNode unused = hands.engine("DELETE", path, "");
        });
  }

  private void add(Instant at, String what, Happening.Deed deed) {
    if (season.holds(at)) {
      happenings.add(new Happening(at, what, deed));
    }
  }

  /** What two visitors reported is the same; what comes every week in the same words is not. */
  private static void answerDuplicates(Hands hands) throws IOException, InterruptedException {
    for (JsonNode one : hands.engine("GET", "/api/duplicates", "").path("items")) {
      boolean same = one.path("bridge").asText().equals("hazard-to-grounds");
      String path = "/api/duplicates/" + one.path("id").asText() + "/answer";
      JsonNode unused = hands.engine("POST", path, "{\"same\":" + same + "}");
      hands.passes(Duration.ofSeconds(20));
    }
  }

  /** Reports that say no number are mended where they came from. */
  private static void numbers(Hands hands) throws IOException, InterruptedException {
    String since = hands.now().minus(Duration.ofDays(7)).toString();
    JsonNode failed = hands.engine("GET", "/api/traces?verdict=needs-you&since=" + since, "");
    for (JsonNode trace : failed.path("traces")) {
      String reason = trace.path("reason").asText();
      if (reason.contains("how dangerous") || reason.startsWith("Priority")) {
        JsonNode unused =
            hands.call(
                "visitor-desk",
                "PATCH",
                "/api/submissions/" + trace.path("record").asText(),
                "{\"danger\":\"5\"}");
        hands.passes(Duration.ofSeconds(40));
      }
    }
  }

  private static JsonNode ceiling(Hands hands, String ceiling)
      throws IOException, InterruptedException {
    String path = "/api/bridges/" + CEILING_TOO_LOW;
    String document = hands.engine("GET", path, "").path("document").asText();
    hands.document(path + "/document", document.replaceAll(CEILING, ceiling));
    return hands.engine("GET", path, "");
  }

  private static void putRight(Hands hands) throws IOException, InterruptedException {
    JsonNode bridge = ceiling(hands, AS_BEFORE);
    if (!bridge.at("/bridge/heldSince").isNull()) {
      JsonNode unused = hands.engine("DELETE", "/api/bridges/" + CEILING_TOO_LOW + "/hold", "");
    }
  }
}
