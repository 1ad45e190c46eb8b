package org.ysthmos.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.Reconciler;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.StatusTable;
import org.ysthmos.core.sync.SyncField;
import org.ysthmos.core.sync.TaskNow;
import org.ysthmos.core.sync.Way;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * What is to be written where, of 1,000 pairs with twelve fields: nine in ten have nothing changed,
 * the rest one to three. The yardstick only holds the four maps of values against each other.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class ReconcileBench {

  private static final int PAIRS = 1_000;
  private static final int FIELDS = 12;

  private record Pair(Agreed agreed, TaskNow left, TaskNow right) {}

  private final List<Pair> pairs = new ArrayList<>();
  private Reconciler reconciler = new Reconciler(List.of());
  private int next;

  @Setup
  public void fill() {
    Random random = new Random(5);
    StatusTable statuses =
        new StatusTable(
            Map.of("to-do", "planned", "doing", "started", "done", "finished"),
            Map.of("planned", "to-do", "started", "doing", "waiting", "doing", "finished", "done"));
    List<SyncField> fields = new ArrayList<>();
    fields.add(field("status", BothChanged.LATER_WINS, Way.of(statuses)));
    fields.add(field("labels", BothChanged.MERGE, Way.SAME));
    for (int i = fields.size(); i < FIELDS; i++) {
      fields.add(field("field" + i, BothChanged.ASK, Way.SAME));
    }
    reconciler = new Reconciler(fields);
    for (int i = 0; i < PAIRS; i++) {
      pairs.add(pair(fields, random));
    }
  }

  private static SyncField field(String name, BothChanged both, Way way) {
    return new SyncField(name, Direction.BOTH, both, Drift.LEAVE, way);
  }

  private static Pair pair(List<SyncField> fields, Random random) {
    Map<String, Value> left = new LinkedHashMap<>();
    for (SyncField field : fields) {
      left.put(
          field.name(), Text.of(field.name() + " of the old lighthouse " + random.nextInt(99)));
    }
    left.put("status", Text.of("doing"));
    left.put("labels", ListValue.ofTexts("paths", "north", "urgent"));
    Map<String, Value> right = new HashMap<>(left);
    right.put("status", Text.of("started"));
    Agreed agreed = new Agreed(left, right);
    if (random.nextInt(10) == 0) {
      for (int changes = 1 + random.nextInt(3); changes > 0; changes--) {
        Map<String, Value> side = random.nextBoolean() ? left : right;
        String name = fields.get(2 + random.nextInt(FIELDS - 2)).name();
        side.put(name, Text.of("changed " + random.nextInt(99)));
      }
      left.put("labels", ListValue.ofTexts("paths", "urgent", "rain"));
    }
    return new Pair(
        agreed, new TaskNow(left, Optional.empty()), new TaskNow(right, Optional.empty()));
  }

  private Pair pair() {
    next = (next + 1) % PAIRS;
    return pairs.get(next);
  }

  @Benchmark
  public int reconcile() {
    Pair pair = pair();
    var came = reconciler.reconcile(pair.agreed(), pair.left(), pair.right(), Map.of());
    return came.writes(Side.LEFT).size() + came.writes(Side.RIGHT).size();
  }

  @Benchmark
  public boolean compareMaps() {
    Pair pair = pair();
    return pair.left().fields().equals(pair.agreed().left())
        && pair.right().fields().equals(pair.agreed().right());
  }
}
