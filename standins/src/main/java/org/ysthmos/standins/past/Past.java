package org.ysthmos.standins.past;

import java.io.IOException;
import java.io.PrintStream;
import java.io.Reader;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.stream.Collectors;

/**
 * Gives a demo its past: what people did in the garden in the last days is carried out on the
 * stand-ins, one after the other, with the clocks of both sides set to when it was. What the
 * application shows afterwards was all computed by it.
 */
public final class Past {

  private static final long SEED = 20_261;
  private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM", Locale.UK);

  private Past() {}

  /** Everything that happens in a season, in order. */
  static List<Happening> plan(Season season) {
    Words words = Words.read();
    List<Happening> all = new ArrayList<>();
    all.addAll(VisitorsLife.plan(season, words));
    all.addAll(OfficeLife.plan(season, words));
    all.addAll(WorksLife.plan(season, words));
    all.addAll(CrewsLife.plan(season, words));
    all.addAll(Troubles.plan(season));
    all.addAll(SpecialistLife.plan(season, words));
    all.sort(Comparator.comparing(Happening::at));
    return all.stream().map(one -> one.at(season.together(one.at()))).toList();
  }

  /**
   * Carries out a season.
   *
   * @param standIns the settings of the stand-ins
   * @param app the application, whose clock stands at the season's beginning
   * @param end nothing happens at or after it
   * @param out where each day is told
   * @throws IOException if a side does not answer or does not come to rest
   * @throws InterruptedException if it is stopped
   */
  public static void make(Properties standIns, URI app, int days, Instant end, PrintStream out)
      throws IOException, InterruptedException {
    Season season = new Season(end, days, SEED);
    try (Hands hands = new Hands(standIns, app)) {
      try {
        carryOut(season, hands, out);
      } finally {
        hands.releaseClocks();
      }
      hands.quiet();
    }
  }

  private static void carryOut(Season season, Hands hands, PrintStream out)
      throws IOException, InterruptedException {
    hands.clocks(season.begin().plusSeconds(60));
    hands.quiet();
    Map<LocalDate, List<Happening>> byDay =
        plan(season).stream()
            .collect(
                Collectors.groupingBy(
                    one -> one.at().atZone(Season.ZONE).toLocalDate(),
                    java.util.TreeMap::new,
                    Collectors.toList()));
    int day = 0;
    Instant now = Instant.MIN;
    for (Map.Entry<LocalDate, List<Happening>> one : byDay.entrySet()) {
      out.printf("  %s (%d of %d)%n", DAY.format(one.getKey()), ++day, byDay.size());
      for (Happening happening : one.getValue()) {
        if (!happening.at().equals(now)) {
          hands.quiet();
          now = happening.at();
          hands.goOnTo(now);
        }
        happening.deed().carryOut(hands);
      }
    }
    hands.quiet();
  }

  public static void main(String[] args) throws InterruptedException {
    System.exit(run(args, System.out, System.err));
  }

  private static int run(String[] args, PrintStream out, PrintStream err)
      throws InterruptedException {
    if (args.length < 3 || args.length > 4) {
      err.println("Usage: STANDINS.properties APPLICATION-ADDRESS DAYS [END]");
      return 2;
    }
    Properties settings = new Properties();
    try (Reader in = Files.newBufferedReader(Path.of(args[0]))) {
      settings.load(in);
      Instant end = args.length == 4 ? Instant.parse(args[3]) : Instant.now();
      make(settings, URI.create(args[1]), Integer.parseInt(args[2]), end, out);
      return 0;
    } catch (IOException | IllegalArgumentException | IllegalStateException | DateTimeException e) {
      err.println("The past of the demo stays incomplete: " + e.getMessage());
      return 1;
    }
  }
}
