package org.ysthmos.core.loop;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeVersion;

/** Finds the circles through a bridge, each without going through any bridge twice. */
public final class Circles {

  /** A longer way round passes through more bridges than any one person set up together. */
  private static final int LONGEST = 8;

  /** So many are enough to refuse a bridge by, or to look through. */
  private static final int MOST = 20;

  private final Tells tells;
  private final List<Arm> arms = new ArrayList<>();
  private final List<List<Arm>> found = new ArrayList<>();

  private Circles(List<BridgeVersion> bridges, Tells tells) {
    this.tells = tells;
    bridges.forEach(bridge -> arms.addAll(Arm.of(bridge)));
  }

  /**
   * The circles through a bridge, the shortest first.
   *
   * @param others all other bridges that are live
   */
  public static List<Circle> through(
      BridgeVersion bridge, List<BridgeVersion> others, Tells tells) {
    List<BridgeVersion> all = new ArrayList<>(List.of(bridge));
    others.stream()
        .filter(one -> !one.definition().id().equals(bridge.definition().id()))
        .forEach(all::add);
    Circles circles = new Circles(all, tells);
    for (int length = 1; length <= LONGEST; length++) {
      for (Arm first : Arm.of(bridge)) {
        circles.walk(new ArrayList<>(List.of(first)), new HashSet<>(Set.of(first.id())), length);
      }
    }
    return circles.found.stream().map(way -> CircleJudge.judge(way, tells)).toList();
  }

  private void walk(List<Arm> way, Set<String> passed, int length) {
    Arm last = way.getLast();
    if (way.size() == length) {
      if (found.size() < MOST && last.leadsTo(way.getFirst(), tells)) {
        found.add(List.copyOf(way));
      }
      return;
    }
    for (Arm next : arms) {
      if (!passed.contains(next.id()) && last.leadsTo(next, tells)) {
        way.add(next);
        passed.add(next.id());
        walk(way, passed, length);
        passed.remove(next.id());
        way.removeLast();
      }
    }
  }
}
