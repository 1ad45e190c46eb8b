package org.ysthmos.app.duplicate;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.duplicate.DuplicateMapper.DuplicateRow;
import org.ysthmos.app.duplicate.DuplicateMapper.State;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.PairMapper;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/** What a person is asked about is left out once one of both is done. */
class DuplicateLooksTest {

  private static final Sides.There OPEN =
      new Sides.There(JsonNodeFactory.instance.objectNode(), false);
  private static final Sides.There DONE =
      new Sides.There(JsonNodeFactory.instance.objectNode(), true);

  private final DuplicateMapper mapper = mock();
  private final PairMapper pairs = mock();
  private final Sides sides = mock();
  private final Journal journal = mock();
  private final DuplicateLooks looks =
      new DuplicateLooks(
          mapper,
          mock(KnownTitles.class),
          mock(TitlesAtStart.class),
          pairs,
          mock(Pairs.class),
          mock(TraceMapper.class),
          mock(Bridges.class),
          sides,
          journal,
          mock(DiskRoom.class),
          mock(LiveFeed.class));
  private final DuplicateRow row = mock();

  @BeforeEach
  void oneIsOpen() {
    doAnswer(
            call -> {
              call.<Runnable>getArgument(0).run();
              return null;
            })
        .when(journal)
        .runSoon(any());
    when(row.id()).thenReturn(7L);
    when(row.bridgeId()).thenReturn("hazard");
    when(row.matchHash()).thenReturn("a1");
    when(row.systemId()).thenReturn("board");
    when(row.collectionId()).thenReturn("tasks");
    when(row.otherRecord()).thenReturn("gb-1");
    when(row.other()).thenReturn(new KnownTask.Told("gb-1"));
    when(mapper.newest(eq(State.OPEN), anyLong(), anyInt())).thenReturn(List.of(row));
    PairRow ours = mock();
    when(ours.targetRecord()).thenReturn("gb-2");
    when(pairs.find("hazard", "a1")).thenReturn(ours);
    reads(OPEN, OPEN);
  }

  private void reads(Sides.Read other, Sides.Read ours) {
    when(sides.read(any(), eq("gb-1"))).thenReturn(other);
    when(sides.read(any(), eq("gb-2"))).thenReturn(ours);
  }

  @Test
  void bothOpenStay() {
    looks.lookAgain();
    verify(mapper, never()).drop(anyLong());
  }

  @Test
  void eitherOfThemDoneOrGoneIsLeftOut() {
    for (Sides.Read over : List.of(DONE, new Sides.Gone())) {
      reads(over, OPEN);
      looks.lookAgain();
      reads(OPEN, over);
      looks.lookAgain();
    }
    verify(mapper, times(4)).drop(7);
  }

  /** However many there are, each has its turn. */
  @Test
  void someAtATimeAndAllInTurn() {
    when(mapper.newest(State.OPEN, Long.MAX_VALUE, DuplicateLooks.FEW))
        .thenReturn(Collections.nCopies(DuplicateLooks.FEW, row));
    when(mapper.newest(State.OPEN, 7, DuplicateLooks.FEW)).thenReturn(List.of());
    looks.lookAgain();
    looks.lookAgain();
    looks.lookAgain();
    verify(mapper, times(2)).newest(State.OPEN, Long.MAX_VALUE, DuplicateLooks.FEW);
    verify(mapper).newest(State.OPEN, 7, DuplicateLooks.FEW);
  }

  @Test
  void whatCannotBeReadAndWhatWaitsStay() {
    reads(new Sides.Unread(Failure.of(FailureKind.UNREACHABLE, "No route")), OPEN);
    looks.lookAgain();
    reads(DONE, DONE);
    when(row.waits()).thenReturn(true);
    looks.lookAgain();
    verify(mapper, never()).drop(anyLong());
  }
}
