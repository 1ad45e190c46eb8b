package org.ysthmos.app.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.chore.KeptChores;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceQueue.Claimed;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Side;

/** What an event of a bridge that goes both ways waits for, and for how long. */
class EventWaitsTest {

  private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

  private final Systems systems = mock();
  private final SyncedPairs synced = mock();
  private final DeliveryQueue deliveries = mock();
  private final AppClock clock = mock();
  private final TraceRow trace = mock();
  private final BridgeVersion bridge = mock();
  private final EventWaits waits =
      new EventWaits(systems, synced, deliveries, mock(KeptChores.class), clock);

  @BeforeEach
  void jobThatIsInNoPair() {
    CompiledTwoWay both = mock();
    when(both.from()).thenReturn(Side.RIGHT);
    when(bridge.between()).thenReturn(Optional.of(both));
    when(bridge.chores()).thenReturn(Optional.empty());
    when(clock.instant()).thenReturn(NOW);
    when(trace.bridgeId()).thenReturn("shores");
    when(trace.queue()).thenReturn("shores");
    when(trace.receivedAt()).thenReturn(NOW.minusSeconds(60));
    when(systems.writtenIn(any())).thenReturn(Set.of("jobs"));
    when(synced.find("shores", Side.RIGHT, "l1")).thenReturn(SyncedPairs.Seen.NONE);
    making(Optional.empty());
  }

  private void making(Optional<Instant> known) {
    when(deliveries.making(anyString(), anyString(), anyString(), anyLong(), any()))
        .thenReturn(known);
  }

  private Optional<Duration> waited() {
    Event event =
        new Event(
            "e1", "ledger", "jobs", "created", "l1", NOW, JsonNodeFactory.instance.objectNode());
    return waits
        .until(new Claimed(trace, null, 0, 0, "c1"), bridge, mock(EventRow.class), event)
        .map(until -> Duration.between(NOW, until));
  }

  @Test
  void whatNothingStandsInTheWayOfIsDecidedNow() {
    assertThat(waited()).isEmpty();
  }

  /** Ten looks a second, for as long as a system does not answer, would keep all others waiting. */
  @Test
  void looksAgainWhenTheCreateThatItMayTellOfIsTriedNext() {
    making(Optional.of(NOW.plusSeconds(40)));
    assertThat(waited()).contains(Duration.ofMillis(40_100));
    making(Optional.of(NOW));
    assertThat(waited()).contains(Duration.ofMillis(100));
  }

  @Test
  void recordOfAPairWaitsForNoCreate() {
    making(Optional.of(NOW.plusSeconds(40)));
    when(synced.find("shores", Side.RIGHT, "l1"))
        .thenReturn(new SyncedPairs.Seen(1, Optional.of(mock(SyncedPair.class))));
    assertThat(waited()).isEmpty();
  }

  @Test
  void waitsForOurOwnWritingButNotForLong() {
    when(deliveries.isSendingTo("ledger", "jobs", "l1", 0)).thenReturn(true);
    assertThat(waited()).isEmpty();
    when(trace.receivedAt()).thenReturn(NOW.minusSeconds(4));
    assertThat(waited()).contains(Duration.ofMillis(100));
  }
}
