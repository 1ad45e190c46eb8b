package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.likeness.TitleIndex;
import org.ysthmos.core.likeness.TitleLikeness;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * Finds which tasks of two lists are the same, where neither has one on the other side yet. One
 * that tells the id or the page of the other is; of the others the titles say it. A task of which
 * several may be the same is left alone: a person is asked for one pair, not for a choice among
 * many.
 */
public final class FirstMeeting {

  /**
   * A task without another one.
   *
   * @param tells what of the other, or of itself, it tells; see {@link #tells}
   */
  public record Stray(String record, String title, Set<String> tells) {
    public Stray {
      tells = Set.copyOf(tells);
    }
  }

  /**
   * Two that may be the same.
   *
   * @param because what speaks for it, as a sentence without its full stop
   */
  public record Met(Stray left, Stray right, double score, String because) {}

  private FirstMeeting() {}

  /**
   * What a task tells by which it is known on the other side: its id or its page, where a field of
   * the other holds that, or what such a field of its own holds.
   *
   * @param bridge looked at from either side
   */
  public static Set<String> tells(
      CompiledTwoWay bridge, Side side, String id, JsonNode record, World world) {
    if (!(SyncValues.of(bridge, side, id, record, world) instanceof SyncValues.Read read)) {
      return Set.of();
    }
    Set<String> tells = new TreeSet<>();
    for (CompiledTwoWay.Field field : bridge.fields()) {
      boolean ofTask =
          field.at().left().part() != CompiledTwoWay.Part.FIELD
              || field.at().right().part() != CompiledTwoWay.Part.FIELD;
      Value value = read.values().getOrDefault(field.rule().name(), Nothing.NOTHING);
      if (ofTask && value != Nothing.NOTHING) {
        tells.add(field.rule().name() + " " + value.display());
      }
    }
    return tells;
  }

  /** How many of the nearest are asked for, as some of them may be told apart. */
  private static final int NEAREST = 8;

  /** Whether a person said of a left and a right one that they are two. */
  @FunctionalInterface
  public interface ToldApart {
    ToldApart NONE = (left, right) -> false;

    /** By their ids. */
    boolean areTwo(String left, String right);
  }

  /** Each task is in one of them at the most; in the order of the left ones. */
  public static List<Met> of(List<Stray> lefts, List<Stray> rights, ToldApart apart) {
    List<Met> met = new ArrayList<>(byWhatTheyTell(lefts, rights, apart));
    Set<String> gone = new HashSet<>();
    met.forEach(
        one -> {
          gone.add("left " + one.left().record());
          gone.add("right " + one.right().record());
        });
    List<Stray> left =
        lefts.stream().filter(one -> !gone.contains("left " + one.record())).toList();
    List<Stray> right =
        rights.stream().filter(one -> !gone.contains("right " + one.record())).toList();
    met.addAll(byTitle(left, right, apart));
    Map<String, Integer> order = new HashMap<>();
    lefts.forEach(one -> order.put(one.record(), order.size()));
    met.sort(Comparator.comparing(one -> order.get(one.left().record())));
    return met;
  }

  private static List<Met> byWhatTheyTell(List<Stray> lefts, List<Stray> rights, ToldApart apart) {
    Map<String, List<Stray>> ofLeft = tellers(lefts);
    Map<String, List<Stray>> ofRight = tellers(rights);
    Map<String, Met> met = new LinkedHashMap<>();
    Set<String> taken = new HashSet<>();
    ofLeft.forEach(
        (told, those) -> {
          List<Stray> others = ofRight.getOrDefault(told, List.of());
          if (those.size() == 1 && others.size() == 1) {
            Stray left = those.getFirst();
            Stray right = others.getFirst();
            if (!apart.areTwo(left.record(), right.record())
                && !met.containsKey(left.record())
                && taken.add(right.record())) {
              met.put(
                  left.record(),
                  new Met(left, right, 1, "One tells the id or the page of the other"));
            }
          }
        });
    return List.copyOf(met.values());
  }

  private static Map<String, List<Stray>> tellers(List<Stray> strays) {
    Map<String, List<Stray>> tellers = new LinkedHashMap<>();
    for (Stray one : strays) {
      one.tells().stream()
          .sorted()
          .forEach(told -> tellers.computeIfAbsent(told, any -> new ArrayList<>()).add(one));
    }
    return tellers;
  }

  /** Only where each is the nearest of the other, and no other is as near. */
  private static List<Met> byTitle(List<Stray> lefts, List<Stray> rights, ToldApart apart) {
    Map<Stray, Nearest> ofLeft = nearest(lefts, rights, apart);
    Map<Stray, Nearest> ofRight =
        nearest(rights, lefts, (right, left) -> apart.areTwo(left, right));
    List<Met> met = new ArrayList<>();
    ofLeft.forEach(
        (left, near) -> {
          Nearest back = ofRight.get(near.other());
          if (back != null && back.other().equals(left)) {
            met.add(new Met(left, near.other(), near.likeness().score(), near.likeness().words()));
          }
        });
    return met;
  }

  private record Nearest(Stray other, TitleLikeness likeness) {}

  private static Map<Stray, Nearest> nearest(
      List<Stray> these, List<Stray> among, ToldApart apart) {
    TitleIndex<Stray> titles = new TitleIndex<>(Math.max(1, among.size()));
    among.forEach(one -> titles.put(one, one.title()));
    Map<Stray, Nearest> nearest = new LinkedHashMap<>();
    for (Stray one : these) {
      List<TitleIndex.Near<Stray>> near =
          titles.near(one.title(), NEAREST).stream()
              .filter(other -> !apart.areTwo(one.record(), other.key().record()))
              .limit(2)
              .toList();
      boolean alone =
          near.size() == 1
              || (near.size() == 2
                  && near.getFirst().likeness().score() > near.getLast().likeness().score());
      if (alone) {
        nearest.put(one, new Nearest(near.getFirst().key(), near.getFirst().likeness()));
      }
    }
    return nearest;
  }
}
