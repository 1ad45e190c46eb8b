package org.ysthmos.app.reread;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.fullcheck.FullCheckStart;
import org.ysthmos.app.gap.Gap;
import org.ysthmos.app.gap.GapCheck;
import org.ysthmos.app.gap.GapPlace;
import org.ysthmos.app.gap.GapPlace.Way;
import org.ysthmos.app.gap.Gaps;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.poll.PollPlan;
import org.ysthmos.app.poll.Polling;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;

/** What makes up for time that is missing, and what it waits for. */
class RereadingTest {

  private static final Instant UNTIL = Instant.parse("2026-11-29T08:00:00Z");
  private static final Gap GAP = new Gap(1, UNTIL.minusSeconds(60), UNTIL, 100, true, null);
  private static final GapCheck CHECK = new GapCheck("both", false);

  private final Gaps gaps = mock(Gaps.class);
  private final Bridges bridges = mock(Bridges.class);
  private final Polling polling = mock(Polling.class);
  private final FullCheckStart checks = mock(FullCheckStart.class);
  private final EventMapper events = mock(EventMapper.class);
  private final Rereading rereading =
      new Rereading(
          gaps, bridges, mock(PollPlan.class), polling, checks, events, mock(LiveFeed.class));

  @BeforeEach
  void bridgeOfALedger() {
    BridgeVersion view = mock(BridgeVersion.class, RETURNS_DEEP_STUBS);
    BridgeDefinition.From from = mock(BridgeDefinition.From.class);
    when(from.system()).thenReturn("ledger");
    when(from.collection()).thenReturn("jobs");
    when(view.definition().from()).thenReturn(from);
    Bridges.Live live = mock(Bridges.Live.class, RETURNS_DEEP_STUBS);
    when(live.version().views()).thenReturn(List.of(view));
    when(bridges.live("both")).thenReturn(Optional.of(live));
    when(gaps.unfinished()).thenReturn(List.of(GAP));
    when(gaps.checks(GAP)).thenReturn(List.of(CHECK));
    when(events.newestSeq()).thenReturn(150L);
  }

  private static GapPlace polled(String system, String collection) {
    return new GapPlace(system, collection, Way.POLLED, null);
  }

  @Test
  void aPlaceIsReadOnceAPassEndedAfterTheRestore() {
    GapPlace place = polled("register", "pledges");
    when(gaps.places(GAP)).thenReturn(List.of(place));
    rereading.goOn();
    verify(gaps, never()).read(any(), any(), eq(150L));
    when(polling.wasThrough("register", "pledges", UNTIL)).thenReturn(true);
    rereading.goOn();
    verify(gaps).read(GAP, place, 150L);
  }

  @Test
  void aCheckWaitsForThePlacesOfItsBridgeAlone() {
    when(gaps.places(GAP)).thenReturn(List.of(polled("ledger", "jobs")));
    rereading.goOn();
    verify(checks, never()).begin(any(), any());
    // One that is down for days keeps no other waiting.
    when(gaps.places(GAP)).thenReturn(List.of(polled("register", "pledges")));
    rereading.goOn();
    verify(checks).begin(eq("both"), any());
    verify(gaps).checkBegun(GAP, CHECK);
  }
}
