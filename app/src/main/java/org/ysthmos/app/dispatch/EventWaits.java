package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.chore.KeptChores;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceQueue.Claimed;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Side;

/** What an event waits for before it is decided, as it would be taken for what it is not. */
@Component
class EventWaits {

  /** How soon it is looked again, at the earliest. */
  private static final Duration SOON = Duration.ofMillis(100);

  /** How long the event of a record waits for the answers to what is being sent to it. */
  private static final Duration LONGEST_FOR_OWN_WRITES = Duration.ofSeconds(5);

  private final Systems systems;
  private final SyncedPairs synced;
  private final DeliveryQueue deliveries;
  private final KeptChores chores;
  private final AppClock clock;

  EventWaits(
      Systems systems,
      SyncedPairs synced,
      DeliveryQueue deliveries,
      KeptChores chores,
      AppClock clock) {
    this.systems = systems;
    this.synced = synced;
    this.deliveries = deliveries;
    this.chores = chores;
    this.clock = clock;
  }

  /** When it is to be looked at again; empty if it can be decided now. */
  Optional<Instant> until(Claimed claimed, BridgeVersion bridge, EventRow row, Event event) {
    Instant now = clock.instant();
    if (mayBeOfWhatIsBeingSent(claimed, event, now) || comesAfterATime(bridge, row, now)) {
      return Optional.of(now.plus(SOON));
    }
    return mayBeMadeByIt(claimed, bridge, event, now).map(known -> known.plus(SOON));
  }

  /**
   * Whether the event may tell of our own writing whose answer is not here yet. It waits for that,
   * but not for long: a target that does not answer must not keep back what others did there. One
   * that is to hear our own writing waits too, as it must be known what caused its events.
   */
  private boolean mayBeOfWhatIsBeingSent(Claimed claimed, Event event, Instant now) {
    return now.isBefore(claimed.trace().receivedAt().plus(LONGEST_FOR_OWN_WRITES))
        && systems.writtenIn(event).stream()
            .anyMatch(
                collection ->
                    deliveries.isSendingTo(
                        event.system(), collection, event.record(), claimed.trace().seq()));
  }

  /**
   * When more will be known of a task that a bridge which goes both ways makes just now, of which
   * the event may tell. However long the answer takes it waits for that, as it would be made a
   * second time where it came from.
   */
  private Optional<Instant> mayBeMadeByIt(
      Claimed claimed, BridgeVersion bridge, Event event, Instant now) {
    return bridge
        .between()
        .filter(both -> isUnknown(claimed.trace().bridgeId(), both.from(), event))
        .flatMap(
            both ->
                deliveries.making(
                    claimed.trace().queue(),
                    event.system(),
                    event.collection(),
                    claimed.trace().seq(),
                    now));
  }

  /** Whether a time of its row came before it, so that it comes as the row was then. */
  private boolean comesAfterATime(BridgeVersion bridge, EventRow row, Instant now) {
    return bridge.chores().isPresent()
        && bridge.definition().from().events().contains(row.kind())
        && chores.isDueBefore(bridge.definition().id(), row, now);
  }

  private boolean isUnknown(String bridge, Side side, Event event) {
    return synced.find(bridge, side, event.record()).pair().isEmpty();
  }
}
