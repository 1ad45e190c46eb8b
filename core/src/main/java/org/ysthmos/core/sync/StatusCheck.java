package org.ysthmos.core.sync;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.sync.StatusFinding.Lost;
import org.ysthmos.core.sync.StatusFinding.NeverReached;
import org.ysthmos.core.sync.StatusFinding.NotMapped;
import org.ysthmos.core.sync.StatusFinding.NotSeen;

/** Explains a table of statuses before it is used: what of it will surprise people. */
public final class StatusCheck {

  private final StatusTable table;
  private final Set<String> lefts;
  private final Set<String> rights;

  private StatusCheck(StatusTable table, Collection<String> lefts, Collection<String> rights) {
    this.table = table;
    this.lefts = new LinkedHashSet<>(lefts);
    this.rights = new LinkedHashSet<>(rights);
  }

  /**
   * @param lefts all statuses of {@link Side#LEFT}
   * @param rights all statuses of {@link Side#RIGHT}
   */
  public static List<StatusFinding> of(
      StatusTable table, Collection<String> lefts, Collection<String> rights) {
    StatusCheck check = new StatusCheck(table, lefts, rights);
    List<StatusFinding> found = new ArrayList<>();
    for (Side side : Side.values()) {
      check.mapped(side, found);
      check.seen(side, found);
      check.kept(side, found);
    }
    return List.copyOf(found);
  }

  private Set<String> all(Side side) {
    return side == Side.LEFT ? lefts : rights;
  }

  private static Statuses pair(Side side, String status, String across) {
    return side == Side.LEFT ? new Statuses(status, across) : new Statuses(across, status);
  }

  private void mapped(Side side, List<StatusFinding> found) {
    for (String status : all(side)) {
      if (table.across(side, status).isEmpty()) {
        found.add(new NotMapped(side, status));
      }
      if (all(side).size() > 1 && !isReached(side, status)) {
        found.add(new NeverReached(side, status));
      }
    }
  }

  /** Whether some change across brings a side from another status to this one. */
  private boolean isReached(Side side, String status) {
    return all(side.across()).stream()
        .filter(across -> table.across(side.across(), across).filter(status::equals).isPresent())
        .anyMatch(
            across ->
                all(side).stream()
                    .filter(other -> !other.equals(status))
                    .anyMatch(other -> !table.agree(pair(side, other, across))));
  }

  private void seen(Side side, List<StatusFinding> found) {
    for (String across : all(side.across())) {
      for (String from : all(side)) {
        for (String to : all(side)) {
          if (!from.equals(to)
              && table.agree(pair(side, from, across))
              && table.agree(pair(side, to, across))) {
            found.add(new NotSeen(side, from, to, across));
          }
        }
      }
    }
  }

  /** Of each pair that agrees the shortest round trip by which it is lost. */
  private void kept(Side side, List<StatusFinding> found) {
    for (String status : all(side)) {
      for (String across : all(side.across())) {
        Statuses pair = pair(side, status, across);
        if (table.agree(pair)) {
          lost(side, pair).ifPresent(found::add);
        }
      }
    }
  }

  /** Breadth first over all that changes across may come to. */
  private Optional<Lost> lost(Side side, Statuses from) {
    String across = from.of(side.across());
    Map<Statuses, List<String>> ways = new HashMap<>(Map.of(from, List.of()));
    Deque<Statuses> next = new ArrayDeque<>(List.of(from));
    while (!next.isEmpty()) {
      Statuses now = next.remove();
      List<String> way = ways.getOrDefault(now, List.of());
      for (String over : all(side.across())) {
        Statuses then = table.settle(now.with(side.across(), over), side.across());
        if (over.equals(across) && !then.of(side).equals(from.of(side))) {
          return Optional.of(new Lost(side, from.of(side), across, way, then.of(side)));
        }
        if (!ways.containsKey(then)) {
          List<String> longer = new ArrayList<>(way);
          longer.add(over);
          ways.put(then, longer);
          next.add(then);
        }
      }
    }
    return Optional.empty();
  }
}
