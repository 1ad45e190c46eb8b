package org.ysthmos.app.fullcheck;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.contains;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.dispatch.DryLook;
import org.ysthmos.app.fullcheck.FullCheckMapper.CheckRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;

/** What a check does while it cannot go on. */
class FullCheckReaderTest {

  private static final int SOON = 5_000;

  private final FullChecks checks = mock(FullChecks.class);
  private final FullCheckMapper mapper = mock(FullCheckMapper.class);
  private final CloserLooks closer = mock(CloserLooks.class);
  private final Systems systems = mock(Systems.class);
  private final Systems.Connected system = mock(Systems.Connected.class, RETURNS_DEEP_STUBS);
  private final Journal journal = mock(Journal.class);
  private final DiskRoom room = mock(DiskRoom.class);
  private final AppClock clock = mock(AppClock.class);
  private final FullCheckReader reader =
      new FullCheckReader(
          checks,
          mapper,
          mock(ListedPages.class),
          closer,
          mock(Meetings.class),
          mock(DryLook.class),
          systems,
          journal,
          room,
          clock,
          mock(LiveFeed.class));

  private static CheckRow looking(int tries) {
    return new CheckRow(
        7,
        "shores",
        CheckState.LOOKING,
        20,
        "person",
        Instant.EPOCH,
        null,
        10,
        10,
        10,
        0,
        3,
        null,
        "",
        "",
        tries,
        null);
  }

  @BeforeEach
  void bridgeWhoseSystemDoesNotAnswer() {
    doAnswer(
            call -> {
              call.<Runnable>getArgument(0).run();
              return null;
            })
        .when(journal)
        .run(any());
    BridgeVersion bridge = mock(BridgeVersion.class);
    CompiledTwoWay both = mock(CompiledTwoWay.class, RETURNS_DEEP_STUBS);
    when(both.place(any()).rule().system()).thenReturn("board");
    when(both.place(any()).shape().systemName()).thenReturn("Board");
    when(bridge.between()).thenReturn(Optional.of(both));
    when(checks.bridge("shores")).thenReturn(Optional.of(bridge));
    when(systems.find("board")).thenReturn(Optional.of(system));
    when(system.breaker().admits(any())).thenReturn(false);
    when(clock.instant()).thenReturn(Instant.EPOCH);
    when(room.isEnough()).thenReturn(true);
  }

  private void runs(CheckRow check) {
    when(checks.goingOn()).thenReturn(List.of(check), List.of());
    reader.start();
    reader.raise();
  }

  @AfterEach
  void stop() {
    reader.stop();
  }

  /** Else each of thousands of tasks would be waited for in vain. */
  @Test
  void nothingIsLookedAtWhileItsSystemDoesNotAnswerAndItSaysSo() {
    runs(looking(0));
    verify(mapper, timeout(SOON)).inVain(7, 20, "Board does not answer.");
    verifyNoInteractions(closer);
    verify(checks, never()).become(any(), any(), any());
  }

  @Test
  void checkThatTriedHalfAnHourEndsWithWhy() {
    CheckRow last = looking(11);
    runs(last);
    verify(checks, timeout(SOON)).become(last, CheckState.FAILED, "Board does not answer.");
    verify(mapper, never()).inVain(anyLong(), anyInt(), any());
  }

  @Test
  void whatBreaksHereIsToldAndTriedAgain() throws Exception {
    when(system.breaker().admits(any())).thenReturn(true);
    when(closer.goOn(any(), any())).thenThrow(new IllegalStateException("poison"));
    runs(looking(3));
    verify(mapper, timeout(SOON)).inVain(eq(7L), eq(20), contains("poison"));
  }

  @Test
  void checkOfABridgeThatIsNotLiveAnyMoreEnds() {
    when(checks.bridge("shores")).thenReturn(Optional.empty());
    CheckRow check = looking(0);
    runs(check);
    verify(checks, timeout(SOON)).become(eq(check), eq(CheckState.FAILED), contains("not live"));
  }
}
