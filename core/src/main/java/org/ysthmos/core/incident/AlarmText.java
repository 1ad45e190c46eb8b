package org.ysthmos.core.incident;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collector;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What is said of incidents in a message: of one in full, of several one after the other. */
public final class AlarmText {

  /** More than these are counted only, so that a message stays one that people read. */
  private static final int MOST = 10;

  private AlarmText() {}

  /**
   * An incident that is told of.
   *
   * @param headline its likeliest cause, without a full stop
   * @param sure how sure that is, in words
   * @param because what speaks most for it; empty if nothing does
   * @param waits what waits for it and where; empty if nothing does
   * @param todo what a person can do
   * @param page the address of its page
   */
  public record Told(
      String headline, String sure, String because, String waits, String todo, String page) {}

  /** In a line. */
  public static String headline(List<Told> told) {
    return told.size() == 1
        ? told.getFirst().headline()
        : "%d incidents: %s"
            .formatted(told.size(), first(told).map(Told::headline).collect(joining(told)));
  }

  /** In full. */
  public static String text(List<Told> told) {
    String text = first(told).map(AlarmText::one).collect(Collectors.joining("\n\n"));
    int more = told.size() - MOST;
    return more > 0 ? text + "\n\nAnd " + more + " more; Watch shows them all." : text;
  }

  /** A digest in a line. */
  public static String digestHeadline(int open, int closed) {
    String opens =
        open == 0
            ? "No incident is open"
            : open == 1 ? "One incident is open" : open + " incidents are open";
    return closed == 0 ? opens : "%s, %d closed since the last digest".formatted(opens, closed);
  }

  /**
   * A digest in full.
   *
   * @param closed what closed since the last, as headlines
   */
  public static String digest(List<Told> open, List<String> closed) {
    List<String> parts = new ArrayList<>();
    if (!open.isEmpty()) {
      parts.add(text(open));
    }
    if (!closed.isEmpty()) {
      int more = closed.size() - MOST;
      String named = closed.stream().limit(MOST).collect(Collectors.joining("\n"));
      parts.add("Closed since:\n" + named + (more > 0 ? "\nAnd " + more + " more." : ""));
    }
    return String.join("\n\n", parts);
  }

  private static Stream<Told> first(List<Told> told) {
    return told.stream().limit(MOST);
  }

  private static Collector<CharSequence, ?, String> joining(List<Told> told) {
    return Collectors.joining("; ", "", told.size() > MOST ? "; …" : "");
  }

  private static String one(Told one) {
    String waits = one.waits().isEmpty() ? "" : ": " + one.waits();
    String because = one.because().isEmpty() ? "" : "\n" + one.because();
    return "%s (%s)%s.%s\nWhat to do: %s\n%s"
        .formatted(one.headline(), one.sure(), waits, because, one.todo(), one.page());
  }
}
