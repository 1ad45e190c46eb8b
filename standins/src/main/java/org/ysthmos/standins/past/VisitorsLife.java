package org.ysthmos.standins.past;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;

/** Visitors report hazards, more of them at weekends; some say more later. */
final class VisitorsLife {

  static final DateTimeFormatter AS_WRITTEN =
      DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);

  private static final double REPORTS_ON_A_WORKDAY = 13;
  private static final double REPORTS_AT_A_WEEKEND = 24;

  /** The hour at which the garden closes in summer. */
  private static final int CLOSES = 20;

  /** The posts along the paths, by which visitors say where something is. */
  private static final int POSTS = 60;

  private static final String AT = ", ";

  private static final int REPORTS_FOR_ONE_TOLD_TWICE = 60;

  private final Season season;
  private final Words words;
  private final SplittableRandom random;
  private final List<Happening> happenings = new ArrayList<>();

  private VisitorsLife(Season season, Words words) {
    this.season = season;
    this.words = words;
    this.random = season.chance("visitors");
  }

  static List<Happening> plan(Season season, Words words) {
    VisitorsLife life = new VisitorsLife(season, words);
    for (LocalDate day : season.dates()) {
      double mean = Season.isWorkday(day) ? REPORTS_ON_A_WORKDAY : REPORTS_AT_A_WEEKEND;
      for (Instant at : season.moments(day, mean, Season.VISITORS, life.random)) {
        life.report(at);
      }
    }
    Troubles.busyMoments(season).forEach(life::report);
    return life.happenings;
  }

  private void report(Instant at) {
    int before = happenings.size();
    reported(at);
    if (season.isSilent(at)) {
      // Drawn all the same, so that what comes later is as it would be.
      happenings.subList(before, happenings.size()).clear();
    }
  }

  private void reported(Instant at) {
    Map<String, String> answers = new LinkedHashMap<>();
    answers.put("place", words.one("places", random));
    String problem = "Post " + (1 + random.nextInt(POSTS)) + AT + words.one("hazards", random);
    answers.put("problem", problem);
    answers.put("seenOn", seenOn(at));
    answers.put("danger", danger());
    answers.put("mail", words.one("visitors", random));
    boolean photo = random.nextInt(100) < 45;
    answers.put(
        "photo", photo ? "https://photos.tidewrack.example/h/" + (100 + random.nextInt(900)) : "");
    String name = "report at " + at;
    told(at, name, answers);
    if (random.nextInt(REPORTS_FOR_ONE_TOLD_TWICE) == 0) {
      byAnother(answers, at.plusSeconds(600 + random.nextInt(4 * 3600)));
    }
    int then = random.nextInt(100);
    if (then < 9) {
      edited(name, at.plusSeconds(90 + random.nextInt(3600)), problem);
    } else if (then < 13) {
      toldAgain(name, at.plusSeconds(5 + random.nextInt(120)));
    }
  }

  private void told(Instant at, String name, Map<String, String> answers) {
    happenings.add(
        new Happening(
            at,
            "a visitor reports: " + answers.get("problem"),
            hands -> hands.remember(name, hands.form("visitor-desk", "/reports", answers))));
  }

  /** Another visitor meets the same and writes it in words of their own. */
  private void byAnother(Map<String, String> answers, Instant at) {
    if (season.holds(at) && !season.isSilent(at) && at.atZone(Season.ZONE).getHour() < CLOSES) {
      Map<String, String> others = new LinkedHashMap<>(answers);
      String problem = answers.getOrDefault("problem", "");
      others.put("problem", random.nextBoolean() ? problem + "!" : slipped(problem));
      others.put("mail", words.one("visitors", random));
      told(at, "report by another at " + at, others);
    }
  }

  /** With one letter written twice. */
  private String slipped(String text) {
    int at = text.indexOf(AT) + AT.length() + 1;
    at += random.nextInt(text.length() - at);
    return text.substring(0, at) + text.charAt(at - 1) + text.substring(at);
  }

  private void edited(String name, Instant at, String problem) {
    String more = problem + " " + words.one("second thoughts", random);
    if (season.holds(at)) {
      happenings.add(
          new Happening(
              at,
              "the visitor says more: " + more,
              hands ->
                  hands.call(
                      "visitor-desk",
                      "PATCH",
                      "/api/submissions/" + hands.number(name),
                      "{\"problem\":\"" + more + "\"}")));
    }
  }

  private void toldAgain(String name, Instant at) {
    if (season.holds(at)) {
      happenings.add(
          new Happening(
              at,
              "the desk tells the same report again",
              hands ->
                  hands.call(
                      "visitor-desk",
                      "POST",
                      "/api/submissions/" + hands.number(name) + "/announcements",
                      "")));
    }
  }

  /** As people write it; a few write what no rule can read. */
  private String seenOn(Instant at) {
    if (random.nextInt(100) < 4) {
      return words.one("unreadable days", random);
    }
    int before = Math.max(0, random.nextInt(6) - 3);
    return AS_WRITTEN.format(at.minus(Duration.ofDays(before)).atZone(Season.ZONE));
  }

  /** From 1 to 10; a few find that too little, or say nothing. */
  private String danger() {
    int drawn = random.nextInt(100);
    if (drawn == 0) {
      return "11";
    }
    if (drawn == 1) {
      return "";
    }
    int first = 1 + random.nextInt(10);
    int second = 1 + random.nextInt(10);
    return Integer.toString((first + second + 1) / 2);
  }
}
