package org.ysthmos.app.reference;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.ysthmos.core.calendar.WorkingCalendar;

/** What became another in a calendar, in words. */
public final class CalendarChange {

  private CalendarChange() {}

  /** For example {@code 3 holidays added}; what is the same is left out. */
  public static String words(WorkingCalendar before, WorkingCalendar after) {
    List<String> parts = new ArrayList<>();
    if (!before.name().equals(after.name())) {
      parts.add("called “" + after.name() + "”");
    }
    if (!before.weekdays().equals(after.weekdays())) {
      parts.add("other weekdays");
    }
    count(parts, before.holidays().entrySet(), after.holidays().entrySet(), "holiday");
    count(parts, new HashSet<>(before.closures()), new HashSet<>(after.closures()), "closure");
    if (!Objects.equals(before.enteredUntil(), after.enteredUntil())) {
      parts.add(
          after.enteredUntil() == null
              ? "not said any more up to when it is entered"
              : "entered up to " + after.enteredUntil());
    }
    return parts.isEmpty() ? "nothing changed" : String.join("; ", parts);
  }

  private static <T> void count(List<String> parts, Set<T> was, Set<T> is, String noun) {
    Set<T> added = new HashSet<>(is);
    added.removeAll(was);
    Set<T> removed = new HashSet<>(was);
    removed.removeAll(is);
    if (!added.isEmpty()) {
      parts.add(counted(added.size(), noun) + " added");
    }
    if (!removed.isEmpty()) {
      parts.add(counted(removed.size(), noun) + " taken out");
    }
  }

  private static String counted(int count, String noun) {
    return count + " " + noun + (count == 1 ? "" : "s");
  }
}
