package org.ysthmos.core.guard;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

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
   * A way back.
   *
   * @param places on the way, beginning and ending with where the bridge reads; empty if there is
   *     none
   * @param bridges those that carry along it, the bridge first
   */
  public record Way(List<String> places, List<String> bridges) {
    public Way {
      places = List.copyOf(places);
      bridges = List.copyOf(bridges);
    }
  }

  /**
   * The shortest way from where a bridge writes back to where it reads. Breadth first, in the order
   * of the bridges given.
   */
  public static Way of(Carries bridge, List<Carries> all) {
    Map<String, Carries> cameBy = new HashMap<>();
    Deque<String> next = new ArrayDeque<>(List.of(bridge.to()));
    cameBy.put(bridge.to(), bridge);
    while (!next.isEmpty()) {
      String here = next.removeFirst();
      if (here.equals(bridge.from())) {
        return way(bridge, cameBy);
      }
      for (Carries one : all) {
        if (one.from().equals(here) && cameBy.putIfAbsent(one.to(), one) == null) {
          next.addLast(one.to());
        }
      }
    }
    return new Way(List.of(), List.of());
  }

  private static Way way(Carries bridge, Map<String, Carries> cameBy) {
    List<String> places = new ArrayList<>(List.of(bridge.from()));
    List<String> bridges = new ArrayList<>();
    Carries by;
    String here = bridge.from();
    do {
      by = Objects.requireNonNull(cameBy.get(here), "a place that was reached");
      here = by.from();
      places.add(here);
      bridges.add(by.bridge());
    } while (!by.equals(bridge));
    return new Way(places.reversed(), bridges.reversed());
  }
}
