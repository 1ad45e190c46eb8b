package org.ysthmos.app.practice;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mockito.InOrder;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;

/** In which order a runaway for practice begins. */
class RunawayControllerTest {

  private final PracticeBridges practice = mock();
  private final PracticeSwitches switches = mock();
  private final Bridges bridges = mock();
  private final Ceilings ceilings = mock();
  private final RunawayController controller =
      new RunawayController(
          practice, switches, bridges, ceilings, mock(WorkSignals.class), mock(LiveFeed.class));

  /** What waits at a held bridge is made the moment it is let go: that counts already. */
  @Test
  void countsBeginAnewBeforeAnythingIsLetGo() {
    Bridges.Live first = mock(RETURNS_DEEP_STUBS);
    when(practice.ids()).thenReturn(List.of("there", "back"));
    when(bridges.live("there")).thenReturn(Optional.of(first));
    when(first.version().definition().from().system()).thenReturn("board");

    controller.begin();

    InOrder order = inOrder(ceilings, practice, switches);
    order.verify(ceilings).clear("there");
    order.verify(ceilings).clear("back");
    order.verify(practice).letGo(By.PERSON);
    order.verify(switches).call(eq("board"), eq("POST"), any());
  }
}
