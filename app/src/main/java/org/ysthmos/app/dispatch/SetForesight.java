package org.ysthmos.app.dispatch;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Anchor;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Value;

/**
 * What would become of the tasks of a set if their anchor were another day, by the deciding that
 * would do it. Tasks are looked at where they stand; nothing is stored and nothing is sent.
 */
@Component
public class SetForesight {

  /** A field that would be written, as people read it; {@code before} is empty if nothing was. */
  public record MovedField(String name, String before, String after) {}

  /**
   * A task of the set.
   *
   * @param title as it would be called
   * @param because why it would be left as it is; may be empty
   * @param fields what would be written; none if it is left, or taken away
   * @param removed whether it would be taken away
   */
  public record MovedTask(
      String member, String title, String because, List<MovedField> fields, boolean removed) {}

  /**
   * @param problem why it cannot be told; empty if it can
   */
  public record MovedView(String problem, List<MovedTask> tasks) {}

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM uuuu", Locale.ENGLISH);
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("EEE d MMM uuuu, HH:mm", Locale.ENGLISH);

  private final EngineWorld.Sources sources;
  private final Settings settings;
  private final AppClock clock;

  SetForesight(EngineWorld.Sources sources, Settings settings, AppClock clock) {
    this.sources = sources;
    this.settings = settings;
    this.clock = clock;
  }

  /**
   * @param row the last event of the record that the set is of
   */
  public MovedView of(BridgeVersion bridge, EventRow row, Anchor instead) {
    EngineWorld world = new EngineWorld(sources, clock, row);
    Decision decision =
        Decider.decide(bridge, ReceivedEvents.event(row), world, Mode.PLAIN, instead);
    if (!decision.failures().isEmpty()) {
      return new MovedView(Words.capital(decision.failures().getFirst().message()), List.of());
    }
    return new MovedView(
        Words.capital(decision.because()),
        decision.tasks().stream()
            .filter(task -> !task.then())
            .map(task -> task(bridge, task, world))
            .toList());
  }

  private MovedTask task(BridgeVersion bridge, TaskDecision task, World world) {
    Map<String, Value> before =
        world
            .pair(bridge.definition().id(), task.key())
            .map(World.PairState::agreed)
            .orElse(Map.of());
    List<MovedField> fields = new ArrayList<>();
    task.delivery()
        .filter(delivery -> !delivery.removes())
        .ifPresent(
            delivery ->
                delivery
                    .fields()
                    .forEach(
                        (key, value) ->
                            fields.add(
                                new MovedField(
                                    bridge.target().field(key).map(FieldShape::name).orElse(key),
                                    shown(bridge, key, before.get(key)),
                                    shown(bridge, key, value)))));
    return new MovedTask(
        task.member(),
        shown(
            bridge, bridge.target().titleField(), task.fields().get(bridge.target().titleField())),
        task.because(),
        fields,
        task.delivery().filter(delivery -> delivery.removes()).isPresent());
  }

  private String shown(BridgeVersion bridge, String key, @Nullable Value value) {
    return switch (value) {
      case null -> "";
      case Day day -> DAY.format(day.date());
      case Moment moment -> MOMENT.format(moment.instant().atZone(settings.zone()));
      default ->
          bridge.target().field(key).map(field -> field.shown(value)).orElse(value.display());
    };
  }
}
