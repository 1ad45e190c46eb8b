package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Value;

/**
 * Carries deliveries to their systems. A delivery is written down as being sent before it is sent;
 * one whose answer never came is looked for by its key before it is tried again.
 */
@Component
class Courier implements SmartLifecycle {

  private static final int WORKERS = 8;

  /** How long a request may still be under way in the other system after we were stopped. */
  private static final Duration SETTLE = Duration.ofSeconds(2);

  private final DeliveryMapper deliveries;
  private final DeliveryWriter writer;
  private final Systems systems;
  private final Pairs pairs;
  private final AppClock clock;
  private final BackOff backOff;
  private final Stage<DeliveryRow> stage;

  Courier(
      DeliveryMapper deliveries,
      DeliveryWriter writer,
      Systems systems,
      Pairs pairs,
      AppClock clock,
      Settings settings,
      WorkSignals signals) {
    this.deliveries = deliveries;
    this.writer = writer;
    this.systems = systems;
    this.pairs = pairs;
    this.clock = clock;
    this.backOff = settings.retry().backOff();
    this.stage =
        new Stage<>(
            "courier",
            WORKERS,
            signals.toDeliver(),
            this::ready,
            delivery -> hasRoom(delivery) && deliveries.claim(delivery.id()) == 1,
            this::carry,
            this::handBack);
  }

  /** What can be tried now; a system without room keeps nobody else waiting. */
  private List<DeliveryRow> ready(int limit) {
    Instant now = clock.instant();
    List<String> full =
        systems.all().stream()
            .filter(system -> isFull(system, now))
            .map(system -> system.description().id())
            .toList();
    return deliveries.ready(now, full, limit);
  }

  private boolean hasRoom(DeliveryRow delivery) {
    return systems
        .find(delivery.systemId())
        .filter(system -> isFull(system, clock.instant()))
        .isEmpty();
  }

  /** Whether a system leaves no room for all calls that a task there can take. */
  private static boolean isFull(Systems.Connected system, Instant now) {
    int calls =
        system.description().collections().values().stream()
            .mapToInt(SystemCollection::mostCalls)
            .max()
            .orElse(1);
    return !system.gateway().lane().wait(calls, now).isZero();
  }

  /** What broke may have been sent: its key is looked for before it is tried again. */
  private void handBack(DeliveryRow delivery) {
    Duration pause = Duration.ofSeconds(5L << Math.min(delivery.tries(), 6));
    deliveries.again(delivery.id(), true, clock.instant().plus(pause));
  }

  private void carry(DeliveryRow delivery) {
    Optional<Systems.Connected> system = systems.find(delivery.systemId());
    if (system.isEmpty()) {
      Failure failure =
          Failure.of(FailureKind.NOT_FOUND, "There is no system “" + delivery.systemId() + "”");
      writer.failed(new Carried(delivery, delivery.systemId(), List.of()), failure);
      return;
    }
    String name = system.get().description().name();
    TaskGateway gateway = system.get().gateway();
    List<RemoteCall> calls = new ArrayList<>();
    Optional<String> record = Optional.ofNullable(delivery.recordId());
    if (record.isEmpty() && delivery.uncertain()) {
      switch (gateway.findByKey(delivery.collectionId(), delivery.idempotencyKey(), calls::add)) {
        case TaskGateway.Searched searched -> {
          record = searched.record();
          record.ifPresent(found -> writer.made(delivery, found));
        }
        case TaskGateway.Unsearched unsearched -> {
          settle(new Carried(delivery, name, calls), unsearched.failure(), true);
          return;
        }
      }
    }
    deliver(delivery, name, gateway, record, calls);
  }

  private void deliver(
      DeliveryRow delivery,
      String systemName,
      TaskGateway gateway,
      Optional<String> record,
      List<RemoteCall> calls) {
    SequencedMap<String, Value> fields = pairs.fields(delivery.fields());
    var effect =
        new TaskGateway.Effect(
            delivery.collectionId(), delivery.idempotencyKey(), delivery.creates(), record, fields);
    TaskGateway.Outcome outcome =
        gateway.deliver(effect, made -> writer.made(delivery, made), calls::add);
    Carried carried = new Carried(delivery, systemName, calls);
    switch (outcome) {
      case TaskGateway.Delivered delivered -> writer.delivered(carried, fields, delivered);
      case TaskGateway.Undelivered undelivered ->
          settle(
              carried,
              undelivered.failure(),
              undelivered.failure().kind() == FailureKind.ANSWER_UNKNOWN);
    }
  }

  private void settle(Carried carried, Failure failure, boolean uncertain) {
    if (failure.held()) {
      // Another took the room meanwhile. What an earlier try left unknown stays so.
      writer.held(carried, clock.instant().plus(failure.retryAfter().orElse(Duration.ZERO)));
      return;
    }
    Optional<Duration> wait = backOff.after(carried.delivery().tries() + 1, failure);
    if (wait.isPresent()) {
      Instant next = clock.instant().plus(wait.get());
      writer.again(carried, failure, uncertain, wait.get(), next);
    } else {
      writer.failed(carried, failure);
    }
  }

  /** A delivery with the calls made for it in this try. */
  record Carried(DeliveryRow delivery, String systemName, List<RemoteCall> calls) {}

  @Override
  public void start() {
    deliveries.releaseAll(clock.instant().plus(SETTLE));
    stage.start();
  }

  @Override
  public void stop() {
    stage.stop();
  }

  @Override
  public boolean isRunning() {
    return stage.isRunning();
  }
}
