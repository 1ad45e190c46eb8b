package org.ysthmos.core.testkit;

import java.util.List;
import java.util.Random;

/** Titles of tasks as people write them, and the same as others write them. */
public final class Titles {

  private static final List<String> PLACES =
      List.of(
          "Elm Walk",
          "Rose Garden",
          "Fern House",
          "North gate",
          "Lily pond",
          "Orchard",
          "Café",
          "Herb beds",
          "Alpine house",
          "Visitor desk",
          "Tool shed",
          "Long border");
  private static final List<String> THINGS =
      List.of(
          "branch across the path",
          "broken bench",
          "lamp does not light",
          "gutter leaks",
          "slippery steps",
          "pump is noisy",
          "label is missing",
          "door does not close",
          "nest of wasps",
          "paint is flaking",
          "handrail is loose",
          "drain is blocked");
  private static final List<String> MORE =
      List.of("", "", " near the entrance", " since Monday", " again", " by the wall", " (urgent)");

  private Titles() {}

  public static String title(Random random) {
    String thing = of(THINGS, random);
    String place = of(PLACES, random);
    String number = random.nextInt(3) == 0 ? " " + random.nextInt(400) : "";
    String more = of(MORE, random);
    return random.nextBoolean()
        ? place + number + ": " + thing + more
        : thing + more + ", " + place + number;
  }

  private static String of(List<String> some, Random random) {
    return some.get(random.nextInt(some.size()));
  }

  /** The same with a few slips of the fingers. */
  public static String typed(String title, Random random) {
    StringBuilder typed = new StringBuilder(title);
    for (int slips = random.nextInt(5); slips > 0 && !typed.isEmpty(); slips--) {
      int at = random.nextInt(typed.length());
      switch (random.nextInt(4)) {
        case 0 -> typed.deleteCharAt(at);
        case 1 -> typed.insert(at, (char) ('a' + random.nextInt(26)));
        case 2 -> typed.setCharAt(at, (char) ('a' + random.nextInt(26)));
        default -> typed.setCharAt(at, Character.toUpperCase(typed.charAt(at)));
      }
    }
    return typed.toString();
  }
}
