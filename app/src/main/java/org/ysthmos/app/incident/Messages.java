package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.incident.AlarmPlan;
import org.ysthmos.core.incident.AlarmText;

/** Sends messages to people, by the ways that the plan of alarms names. */
@Component
class Messages {

  private final IncidentBook book;
  private final IncidentViews views;
  private final Alarms alarms;
  private final Systems systems;
  private final AppClock clock;
  private final String address;

  Messages(
      IncidentBook book,
      IncidentViews views,
      Alarms alarms,
      Systems systems,
      AppClock clock,
      Settings settings) {
    this.book = book;
    this.views = views;
    this.alarms = alarms;
    this.systems = systems;
    this.clock = clock;
    this.address = settings.address().toString();
  }

  /**
   * What became of saying something.
   *
   * @param way the one that worked, as people call it; empty if none did
   * @param problems why the others did not
   */
  record Said(Optional<String> way, String problems) {}

  /**
   * Says something by the first way that works.
   *
   * @param key the same for the same message, so that a system that keeps keys makes one of two
   */
  Said say(AlarmPlan plan, Function<AlarmPlan.Way, String> key, String headline, String text) {
    List<String> problems = new ArrayList<>();
    for (AlarmPlan.Way way : plan.ways()) {
      Optional<String> refused = send(way, key.apply(way), headline, text);
      if (refused.isEmpty()) {
        return new Said(Optional.of(name(way)), "");
      }
      problems.add(name(way) + ": " + refused.get());
    }
    return new Said(Optional.empty(), String.join(" ", problems));
  }

  /** Tries every way with a message that says that it is a trial. */
  List<TrialOutcome> tryAll() {
    return alarms.plan().ways().stream()
        .map(
            way ->
                new TrialOutcome(
                    name(way),
                    send(
                            way,
                            UUID.randomUUID().toString(),
                            "A trial of Ysthmos",
                            "Who reads this would be told of incidents here. Nothing need be done.")
                        .orElse("")))
        .toList();
  }

  /**
   * What trying a way came to.
   *
   * @param way the system and its collection, as people call them
   * @param problem why it did not work; empty if it did
   */
  record TrialOutcome(String way, String problem) {}

  /** Sends a message; gives why it could not be sent. */
  private Optional<String> send(AlarmPlan.Way way, String key, String headline, String text) {
    Systems.Connected system = systems.find(way.system()).orElseThrow();
    Instant now = clock.instant();
    if (!system.breaker().take(now)) {
      return Optional.of("It does not answer just now.");
    }
    SystemCollection collection = systems.collection(way.system(), way.collection()).orElseThrow();
    EffectKind kind = collection.takesMessages() ? EffectKind.MESSAGE : EffectKind.CREATE;
    TaskGateway.Effect effect =
        new TaskGateway.Effect(
            way.collection(), kind, key, Optional.empty(), way.filled(headline, text));
    return switch (system.gateway().deliver(effect, record -> {}, call -> {})) {
      case TaskGateway.Delivered ignored -> {
        system.breaker().answered();
        yield Optional.empty();
      }
      case TaskGateway.Undelivered undelivered -> {
        system.note(undelivered.failure(), now);
        yield Optional.of(Words.sentence(undelivered.failure()));
      }
    };
  }

  /** An incident as messages tell of it. */
  AlarmText.Told told(IncidentRow row) {
    Found.FindingView first = book.found(row).findings().getFirst();
    return new AlarmText.Told(
        row.headline(),
        first.sure(),
        first.speaksFor().isEmpty() ? "" : first.speaksFor().getFirst(),
        views.waits(row),
        first.todo(),
        address + "/incidents/" + row.id());
  }

  private String name(AlarmPlan.Way way) {
    return systems
        .collection(way.system(), way.collection())
        .map(one -> one.shape().systemName() + ", " + one.shape().name())
        .orElse(way.system() + "/" + way.collection());
  }
}
