package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Drift;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * Holds the tasks of one side, as its system lists them, against what that side stored when both
 * last agreed. Two tasks that each hold what they held then are alike, so that most of a full check
 * costs no call beyond the lists; only what stands out is looked at together with its other one.
 */
public final class SideCheck {

  /** What one look at a listed task comes to. */
  public sealed interface Outcome {}

  /** It holds what it held when both last agreed. */
  public record Alike() implements Outcome {}

  /** It is to be looked at together with its other one: it changed, has none, or cannot be told. */
  public record Closer() implements Outcome {}

  /** It has no part in this. */
  public record Aside(String because) implements Outcome {}

  private static final Outcome ALIKE = new Alike();
  private static final Outcome CLOSER = new Closer();

  private final CompiledTwoWay both;
  private final Side side;
  private final World world;

  /**
   * @param bridge as it looks to an event of the side
   */
  public SideCheck(BridgeVersion bridge, World world) {
    this.both = bridge.between().orElseThrow();
    this.side = both.from();
    this.world = world;
  }

  /**
   * @param listed an event with the task as its system lists it
   */
  public Outcome of(Event listed, Optional<World.SyncedPair> pair) {
    return pair.map(known -> known(listed, known)).orElseGet(() -> unknown(listed));
  }

  private Outcome known(Event listed, World.SyncedPair pair) {
    if (pair.parted().isPresent()) {
      return new Aside("its pair was parted: " + pair.parted().get());
    }
    if (pair.records().of(side.across()).isEmpty()) {
      return CLOSER;
    }
    return switch (SyncValues.of(both, side, listed.record(), listed.data(), world)) {
      case SyncValues.Unread unread -> CLOSER;
      case SyncValues.Read read ->
          both.fields().stream().anyMatch(field -> changed(field, pair, read.values()))
              ? CLOSER
              : ALIKE;
    };
  }

  /** Whether a field is not as it was, and that matters to the other side or is put right here. */
  private boolean changed(
      CompiledTwoWay.Field field, World.SyncedPair pair, Map<String, Value> now) {
    String name = field.rule().name();
    boolean matters =
        field.rule().direction().carries(side)
            || (field.rule().direction() != Direction.ONCE && field.rule().drift() != Drift.LEAVE);
    return matters && !now.getOrDefault(name, Nothing.NOTHING).equals(pair.agreed().of(side, name));
  }

  private Outcome unknown(Event listed) {
    CompiledTwoWay.CompiledPlace place = both.place(side);
    if (!place.rule().begins()) {
      return new Aside("what begins here is not made on the other side");
    }
    return switch (place.when().ask(Reading.of(listed, world), null)) {
      case CompiledCondition.Unknown unknown -> CLOSER;
      case CompiledCondition.Known known -> known.met() ? CLOSER : new Aside(known.because());
    };
  }

  /**
   * Where something stands in a task that was read by itself and not in the list: a list that tells
   * less cannot be held against anything.
   *
   * @return the addresses, as they stand in the bridge
   */
  public List<String> lacks(JsonNode listed, JsonNode read) {
    return addresses()
        .filter(at -> !at.in(read).isMissingNode() && at.in(listed).isMissingNode())
        .map(Pointer::toString)
        .toList();
  }

  private Stream<Pointer> addresses() {
    Set<Pointer> all = new LinkedHashSet<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      if (field.at().of(side).part() == CompiledTwoWay.Part.FIELD) {
        all.add(field.at().of(side).read());
      }
    }
    for (BoundField asked : both.place(side).when().reads()) {
      if (asked.reader() instanceof BoundField.OfEvent inRecord) {
        all.add(inRecord.pointer());
      }
    }
    return all.stream();
  }
}
