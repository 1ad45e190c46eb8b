package org.ysthmos.standins.past;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;

/** Schools write, friends pledge, records are kept and exhibitions prepared. */
final class OfficeLife {

  private static final double MAILS_ON_A_WORKDAY = 7;
  private static final double MAILS_AT_A_WEEKEND = 2;
  private static final double PLEDGES_A_DAY = 2.6;
  private static final double DOCUMENTS_ON_A_WORKDAY = 4;

  /** Of a hundred. */
  private static final int MAILS_THAT_ASK = 75;

  /** Into how many shares what the garden wishes for is parted. */
  private static final int SHARES = 400;

  private final Season season;
  private final Words words;
  private final SplittableRandom random;
  private final Set<String> keptDocuments = new HashSet<>();
  private final List<Happening> happenings = new ArrayList<>();

  private OfficeLife(Season season, Words words) {
    this.season = season;
    this.words = words;
    this.random = season.chance("office");
  }

  static List<Happening> plan(Season season, Words words) {
    OfficeLife life = new OfficeLife(season, words);
    for (LocalDate day : season.dates()) {
      boolean workday = Season.isWorkday(day);
      double mails = workday ? MAILS_ON_A_WORKDAY : MAILS_AT_A_WEEKEND;
      season.moments(day, mails, Season.STAFF, life.random).forEach(life::mail);
      season.moments(day, PLEDGES_A_DAY, Season.VISITORS, life.random).forEach(life::pledge);
      if (workday) {
        season
            .moments(day, DOCUMENTS_ON_A_WORKDAY, Season.STAFF, life.random)
            .forEach(life::document);
      }
    }
    life.exhibitions();
    life.rounds();
    life.friends();
    return life.happenings;
  }

  private void add(Instant at, String what, Happening.Deed deed) {
    if (season.holds(at)) {
      happenings.add(new Happening(at, what, deed));
    }
  }

  private void mail(Instant at) {
    List<String> school = words.any("schools", random);
    boolean asks = random.nextInt(100) < MAILS_THAT_ASK;
    List<String> text = words.any(asks ? "school mails" : "mails without a request", random);
    Map<String, String> mail =
        Map.of(
            "folder", school.get(0),
            "name", school.get(1),
            "from", school.get(2),
            "subject", text.get(0) + (asks ? ", class " + theirClass() : ""),
            "text", text.get(1),
            "list", asks && random.nextBoolean() ? text.get(2) : "");
    String name = "mail at " + at;
    add(
        at,
        school.get(1) + " writes: " + text.get(0),
        hands -> hands.remember(name, hands.form("post-room", "/mails", mail)));
    if (asks) {
      Instant flagged = at.plusSeconds(300 + random.nextInt(6 * 3600));
      add(
          flagged,
          "somebody flags: " + text.get(0),
          hands -> {
            Map<String, String> flag =
                Map.of("folder", school.get(0), "id", hands.number(name), "on", "yes");
            String unused = hands.form("post-room", "/flags", flag);
          });
    }
  }

  private String theirClass() {
    return (1 + random.nextInt(9)) + Character.toString('A' + random.nextInt(4));
  }

  private void pledge(Instant at) {
    List<String> pledge = words.any("pledges", random);
    Map<String, String> answers =
        Map.of(
            "what",
            pledge.get(0) + ", share " + (1 + random.nextInt(SHARES)),
            "amount",
            pledge.get(1),
            "mail",
            words.one("visitors", random),
            "stewardMail",
            random.nextInt(5) == 0 ? "" : words.one("stewards", random),
            "payerMail",
            random.nextInt(3) == 0 ? words.one("payers", random) : "");
    String name = "pledge at " + at;
    add(
        at,
        "a friend pledges: " + pledge.getFirst(),
        hands -> hands.remember(name, hands.form("friends-register", "/pledges", answers)));
    if (random.nextInt(8) == 0) {
      int amount = 10 * (5 + random.nextInt(40));
      add(
          at.plusSeconds(900 + random.nextInt(80_000)),
          "the friend pledges another amount",
          hands ->
              hands.call(
                  "friends-register",
                  "PATCH",
                  "/api/pledges/" + hands.number(name),
                  "{\"amount\":\"" + amount + "\"}"));
    }
  }

  /** Each joins on a day of their own. */
  private void friends() {
    List<List<String>> all = words.all("friends");
    List<LocalDate> days = season.dates();
    for (int i = 0; i < all.size() && i * 2 + 1 < days.size(); i++) {
      List<String> friend = all.get(i);
      Map<String, String> form =
          Map.of(
              "name", friend.get(0),
              "mail", friend.get(1),
              "kind", friend.get(2),
              "ownerMail", words.one("stewards", random),
              "payerMail", friend.get(1));
      add(
          Season.at(days.get(i * 2 + 1), 10, random.nextInt(60)),
          friend.getFirst() + " becomes a friend",
          hands -> {
            String unused = hands.form("friends-register", "/people", form);
          });
    }
  }

  private void document(Instant at) {
    if (random.nextInt(12) == 0) {
      List<String> note = words.any("notes", random);
      keep(at, "records/" + note.get(0), "note", "", note.get(1));
      return;
    }
    String plant = words.one("documents", random);
    boolean revised = !keptDocuments.add(plant);
    keep(
        at,
        "records/" + plant + ".txt",
        "plant record",
        revised && random.nextInt(3) > 0 ? "yes" : "no",
        plant.replaceFirst(".*/", "").replace('-', ' ') + ", bed " + (1 + random.nextInt(40)));
  }

  private void keep(Instant at, String path, String kind, String approved, String text) {
    Map<String, String> document =
        Map.of("path", path, "kind", kind, "approved", approved, "text", text);
    add(
        at,
        "a record is kept: " + path,
        hands -> {
          String unused = hands.form("leaf-library", "/documents", document);
        });
  }

  /** Each is thought of some days before it is given its opening day; one is put off. */
  private void exhibitions() {
    List<List<String>> all = words.all("exhibitions");
    List<LocalDate> days = season.dates().stream().filter(Season::isWorkday).toList();
    for (int i = 0; i < all.size() && i * 5 + 1 < days.size(); i++) {
      List<String> show = all.get(i);
      LocalDate day = days.get(i * 5 + 1);
      Instant thoughtOf = Season.at(day, 9, 5 + random.nextInt(50));
      Map<String, String> row =
          Map.of(
              "title", show.get(0),
              "opens", "",
              "curator", show.get(1),
              "house", show.get(2),
              "handbook", show.get(3));
      add(
          thoughtOf,
          "an exhibition is thought of: " + show.getFirst(),
          hands ->
              hands.remember(
                  show.getFirst(), hands.form("chore-table", "/sheets/exhibitions/rows", row)));
      opens(show.getFirst(), thoughtOf.plus(Duration.ofDays(2)), day.plusDays(75));
      if (i == 1) {
        opens(show.getFirst(), thoughtOf.plus(Duration.ofDays(9)), day.plusDays(89));
      }
    }
  }

  /** The rounds of the garden stand in their table from the first whole day on. */
  private void rounds() {
    LocalDate first = season.dates().get(1);
    LocalDate monday = first.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
    List<List<String>> all = words.all("rounds");
    for (int i = 0; i < all.size(); i++) {
      List<String> round = all.get(i);
      boolean fromDone = round.get(2).contains("done");
      Map<String, String> row =
          Map.of(
              "round", round.get(0),
              "place", round.get(1),
              "every", round.get(2),
              "first", fromDone ? "" : monday.toString(),
              "lead", round.get(3),
              "lastDone", fromDone ? first.minusDays(8).toString() : "",
              "crew", round.get(4),
              "note", round.get(5));
      add(
          Season.at(first, 8, 5).plusSeconds(40L * i),
          "a round is written down: " + round.getFirst(),
          hands -> {
            String unused = hands.form("chore-table", "/sheets/rounds/rows", row);
          });
    }
  }

  private void opens(String show, Instant at, LocalDate on) {
    String cells = "{\"opens\":\"" + VisitorsLife.AS_WRITTEN.format(on) + "\"}";
    add(
        at,
        show + " is to open on " + on,
        hands ->
            hands.call(
                "chore-table",
                "PATCH",
                "/api/sheets/exhibitions/rows/" + hands.number(show),
                cells));
  }
}
