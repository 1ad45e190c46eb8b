package org.ysthmos.core.guard;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Whether what a bridge writes comes back to it, by way of other bridges or by itself. */
public final class WayBack {

  private WayBack() {}

  /**
   * Where a bridge reads and where it writes.
   *
   * @param from a place, by any name that is the same for the same place
   * @param to a place, likewise
   */
  public record Carries(String bridge, String from, String to) {}

  /**
   * The shortest way from where a bridge writes back to where it reads. Breadth first, in the order
   * of the bridges given.
   *
   * @return the places on the way, beginning and ending with where it reads; empty if there is none
   */
  public static List<String> of(Carries bridge, List<Carries> all) {
    Map<String, String> cameFrom = new HashMap<>();
    Deque<String> next = new ArrayDeque<>(List.of(bridge.to()));
    cameFrom.put(bridge.to(), bridge.from());
    while (!next.isEmpty()) {
      String here = next.removeFirst();
      if (here.equals(bridge.from())) {
        return path(here, bridge, cameFrom);
      }
      for (Carries one : all) {
        if (one.from().equals(here) && cameFrom.putIfAbsent(one.to(), here) == null) {
          next.addLast(one.to());
        }
      }
    }
    return List.of();
  }

  private static List<String> path(String end, Carries bridge, Map<String, String> cameFrom) {
    List<String> back = new ArrayList<>(List.of(end));
    String here = end;
    do {
      here = cameFrom.getOrDefault(here, bridge.from());
      back.add(here);
    } while (!here.equals(bridge.from()));
    Collections.reverse(back);
    return back;
  }
}
