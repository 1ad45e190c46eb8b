package org.ysthmos.app.dispatch;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.sync.SyncedLooks;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.FirstMeeting;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.SideCheck;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What a look at both tasks of a pair would come to now: both are read for real, nothing is stored
 * and nothing is written.
 */
@Component
public class DryLook {

  /**
   * What would come of it.
   *
   * @param writes what would be written, each side in a sentence
   * @param tells by what the task may be known on the other side, if it is made there
   */
  public record Came(Decision decision, List<String> writes, Set<String> tells) {}

  private final EngineWorld.Sources sources;
  private final AppClock clock;

  DryLook(EngineWorld.Sources sources, AppClock clock) {
    this.sources = sources;
    this.clock = clock;
  }

  /**
   * @param bridge one that goes both ways
   * @param side on which the record is
   */
  public Came at(BridgeVersion bridge, Side side, String record, Look look) {
    CompiledTwoWay both = bridge.between().orElseThrow();
    EventRow row = SyncedLooks.event(both.place(side), record, look, clock.instant());
    EngineWorld world = new EngineWorld(sources, clock, row);
    Decision decision = Decider.decide(bridge, ReceivedEvents.event(row), world, Mode.PLAIN);
    List<String> writes = new ArrayList<>();
    for (TaskDecision task : decision.tasks()) {
      task.delivery()
          .ifPresent(
              delivery -> writes.add(sentence(both, Synced.sideOf(task.member()), delivery)));
    }
    Set<String> tells =
        decision.verdict() == Verdict.CREATE
            ? decision.answers().stream()
                .filter(answer -> answer.lookup().equals(Synced.word(side)))
                .flatMap(answer -> answer.records().stream())
                .findFirst()
                .map(task -> FirstMeeting.tells(both, side, record, task, world))
                .orElse(Set.of())
            : Set.of();
    return new Came(decision, writes, tells);
  }

  private static String sentence(CompiledTwoWay both, Side side, PlannedDelivery delivery) {
    Map<String, FieldShape> shapes = new HashMap<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      shapes.put(field.at().of(side).shape().key(), field.at().of(side).shape());
    }
    List<String> fields = new ArrayList<>();
    delivery.fields().forEach((key, value) -> fields.add(written(key, shapes.get(key), value)));
    return "%s: %s".formatted(both.place(side).shape().systemName(), String.join(", ", fields));
  }

  private static String written(String key, @Nullable FieldShape shape, Value value) {
    String name = shape == null ? key : shape.name();
    if (value == Nothing.NOTHING) {
      return name + " is emptied";
    }
    return "%s “%s”".formatted(name, shape == null ? value.display() : shape.shown(value));
  }

  /** Holds listed tasks of a side against what was agreed. */
  public Listed listed(BridgeVersion bridge, Side side) {
    CompiledTwoWay both = bridge.between().orElseThrow();
    EventRow row = SyncedLooks.event(both.place(side), "", Look.PLAIN, clock.instant());
    SideCheck check = new SideCheck(bridge, new EngineWorld(sources, clock, row));
    return new Listed(check, row, bridge.definition().id(), side);
  }

  /**
   * What one listed task came to.
   *
   * @param pair the hash of its pair; empty if it is in none
   */
  public record Held(SideCheck.Outcome outcome, Optional<String> pair) {}

  /** The tasks of one list. */
  public final class Listed {
    private final SideCheck check;
    private final EventRow row;
    private final String bridge;
    private final Side side;

    private Listed(SideCheck check, EventRow row, String bridge, Side side) {
      this.check = check;
      this.row = row;
      this.bridge = bridge;
      this.side = side;
    }

    /** Where something stands in a task and not in the list. */
    public List<String> lacks(JsonNode listed, JsonNode read) {
      return check.lacks(listed, read);
    }

    public Held of(String record, JsonNode task) {
      var pair = sources.synced().find(bridge, side, record).pair();
      Event listed =
          new Event(
              row.sourceId(),
              row.systemId(),
              row.collectionId(),
              row.kind(),
              record,
              row.happenedAt(),
              task);
      return new Held(check.of(listed, pair), pair.map(known -> known.key().hash()));
    }
  }
}
