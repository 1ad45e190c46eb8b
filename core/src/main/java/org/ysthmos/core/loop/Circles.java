package org.ysthmos.core.loop;

import java.util.ArrayList;
import java.util.Arrays;
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

  /** Each as the places of its arms. */
  private final List<List<Integer>> found = new ArrayList<>();

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
    int own = Arm.of(bridge).size();
    for (int length = 1; length <= LONGEST; length++) {
      for (int first = 0; first < own; first++) {
        circles.walk(
            new ArrayList<>(List.of(first)),
            new HashSet<>(Set.of(circles.arms.get(first).id())),
            length,
            circles.back(first));
      }
    }
    return circles.found.stream()
        .map(way -> CircleJudge.judge(way.stream().map(circles.arms::get).toList(), tells))
        .toList();
  }

  private boolean leads(int from, int to) {
    return arms.get(from).leadsTo(arms.get(to), tells);
  }

  /** Over how many further arms each leads back to an arm at least; -1 for those that do not. */
  private int[] back(int first) {
    int[] back = new int[arms.size()];
    Arrays.fill(back, -1);
    List<Integer> reached = List.of(first);
    for (int further = 0; further < LONGEST && !reached.isEmpty(); further++) {
      List<Integer> before = new ArrayList<>();
      for (int arm = 0; arm < back.length; arm++) {
        int from = arm;
        if (back[arm] < 0 && reached.stream().anyMatch(next -> leads(from, next))) {
          before.add(arm);
        }
      }
      for (int arm : before) {
        back[arm] = further;
      }
      reached = before;
    }
    return back;
  }

  /** Only where the way can still lead back in time, so that what does not is not walked at all. */
  private void walk(List<Integer> way, Set<String> passed, int length, int[] back) {
    int last = way.getLast();
    if (found.size() >= MOST || back[last] < 0 || way.size() + back[last] > length) {
      return;
    }
    if (way.size() == length) {
      found.add(List.copyOf(way));
      return;
    }
    for (int next = 0; next < arms.size(); next++) {
      String bridge = arms.get(next).id();
      if (!passed.contains(bridge) && leads(last, next)) {
        way.add(next);
        passed.add(bridge);
        walk(way, passed, length, back);
        passed.remove(bridge);
        way.removeLast();
      }
    }
  }
}
