package org.ysthmos.app.gap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.transaction.TransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.gap.GapPlace.Way;
import org.ysthmos.app.store.DiskForce;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.delivery.DeliveryRules;

/** Which events may have been carried across while time was missing. */
class GapsTest {

  private static final Instant TAKEN = Instant.parse("2026-11-29T08:00:00Z");
  private static final Instant RESTORED = TAKEN.plus(Duration.ofHours(2));
  private static final Instant LATER = RESTORED.plus(Duration.ofHours(1));
  private static final long NEWEST = 100;

  @TempDir private Path data;
  private final GapMapper mapper = mock(GapMapper.class);
  private final EventMapper events = mock(EventMapper.class);
  private final AppClock clock = mock(AppClock.class);
  private final Settings settings = mock(Settings.class);
  private final TransactionTemplate transaction = mock(TransactionTemplate.class);

  @BeforeEach
  void begin() {
    Settings.Retry retry = mock(Settings.Retry.class);
    when(retry.rules()).thenReturn(new DeliveryRules(List.of(Duration.ofSeconds(30))));
    when(settings.retry()).thenReturn(retry);
    when(settings.data()).thenReturn(data);
    when(clock.instant()).thenReturn(LATER);
    when(events.newestSeq()).thenReturn(NEWEST);
    doAnswer(
            call -> {
              call.<Consumer<TransactionStatus>>getArgument(0)
                  .accept(mock(TransactionStatus.class));
              return null;
            })
        .when(transaction)
        .executeWithoutResult(any());
  }

  private Gaps gaps() {
    return new Gaps(
        mapper, events, mock(Journal.class), transaction, mock(DiskForce.class), clock, settings);
  }

  private Gaps having(GapPlace... places) {
    when(mapper.since(LATER.minus(Gaps.LOOKED_FOR)))
        .thenReturn(List.of(new Gap(1, TAKEN, RESTORED, NEWEST, true, null)));
    when(mapper.places(1)).thenReturn(List.of(places));
    return gaps();
  }

  private static EventRow event(long seq, Instant happened, Origin origin) {
    return new EventRow(
        seq, "desk", "s" + seq, "reports", "created", "r", happened, LATER, origin, new byte[0]);
  }

  @Test
  void whatTheCopyHoldsOrHappenedMeanwhileMayHaveBeenCarried() {
    Gaps gaps = having(new GapPlace("desk", "reports", Way.TOLD, null));
    assertThat(gaps.carriedSince(event(NEWEST, LATER, Origin.TOLD))).contains(TAKEN);
    assertThat(gaps.carriedSince(event(NEWEST + 1, RESTORED.minusNanos(1), Origin.DUE)))
        .contains(TAKEN);
    assertThat(gaps.carriedSince(event(NEWEST + 1, RESTORED, Origin.TOLD))).isEmpty();
  }

  @Test
  void whatIsPolledMayHaveBeenUntilItsPlaceWasReadAgain() {
    Gaps unread = having(new GapPlace("desk", "reports", Way.POLLED, null));
    assertThat(unread.carriedSince(event(150, LATER, Origin.POLLED))).contains(TAKEN);
    Gaps read = having(new GapPlace("desk", "reports", Way.POLLED, 150L));
    assertThat(read.carriedSince(event(150, LATER, Origin.POLLED))).contains(TAKEN);
    assertThat(read.carriedSince(event(151, LATER, Origin.POLLED))).isEmpty();
    Gaps another = having(new GapPlace("desk", "letters", Way.POLLED, null));
    assertThat(another.carriedSince(event(151, LATER, Origin.POLLED))).isEmpty();
  }

  @Test
  void allIsLookedForForAWhile() {
    Gaps gaps = having();
    assertThat(gaps.isRecent()).isTrue();
    when(clock.instant()).thenReturn(RESTORED.plus(Gaps.LOOKED_FOR));
    assertThat(gaps.isRecent()).isFalse();
    assertThat(gaps().isRecent()).isFalse();
  }

  /** Somebody in a hurry is done with it before it is made up for; that goes on all the same. */
  @Test
  void whatAPersonIsDoneWithIsStillMadeUpFor() {
    when(mapper.since(LATER.minus(Gaps.LOOKED_FOR)))
        .thenReturn(List.of(new Gap(1, TAKEN, RESTORED, NEWEST, true, LATER)));
    when(mapper.places(1)).thenReturn(List.of(new GapPlace("desk", "reports", Way.POLLED, null)));
    assertThat(gaps().open()).isEmpty();
    assertThat(gaps().unfinished()).hasSize(1);
    when(mapper.places(1)).thenReturn(List.of(new GapPlace("desk", "reports", Way.POLLED, 150L)));
    when(mapper.checks(1)).thenReturn(List.of(new GapCheck("both", false)));
    assertThat(gaps().unfinished()).hasSize(1);
    when(mapper.checks(1)).thenReturn(List.of(new GapCheck("both", true)));
    assertThat(gaps().unfinished()).isEmpty();
  }

  @Test
  void theMarkIsTakenDownOnceAndGoes() throws Exception {
    RestoredMark mark = new RestoredMark("m", TAKEN, RESTORED);
    mark.write(RestoredMark.in(data));
    var unused = gaps();
    verify(mapper).add(mark, NEWEST);
    verify(mapper).pollAll(LATER);
    // A key of a call that the other may have sent two hours ago is as old as that.
    verify(mapper).doubtAll(TAKEN, 0);
    assertThat(RestoredMark.in(data)).doesNotExist();
  }

  @Test
  void oneThatWasTakenDownBeforeAKillIsNotTakenDownAgain() throws Exception {
    new RestoredMark("m", TAKEN, RESTORED).write(RestoredMark.in(data));
    when(mapper.known("m")).thenReturn(1);
    var unused = gaps();
    verify(mapper, never()).add(any(), org.mockito.ArgumentMatchers.anyLong());
    verify(mapper, never()).doubtAll(any(), anyInt());
    assertThat(RestoredMark.in(data)).doesNotExist();
  }

  @Test
  void withAMarkThatCannotBeReadNothingStarts() throws Exception {
    Files.writeString(RestoredMark.in(data), "{\"id\":\"m\"");
    assertThatThrownBy(this::gaps)
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("restore the backup once more");
  }
}
