package org.ysthmos.app.keep;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventIndex;
import org.ysthmos.app.search.SeenIndex;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceEnds;

/**
 * Removes what is older than it is kept, in batches so small that nobody who writes beside it waits
 * for long. The counts of what is removed stay.
 */
@Component
public class Purger {

  private static final Logger LOG = LoggerFactory.getLogger(Purger.class);
  private static final int BATCH = 200;

  /** How many batches are removed at a time, before others are let at the disk for a while. */
  private static final int BATCHES = 50;

  /** For how long it is kept what came of each place. */
  private static final Duration BY_PLACE = Duration.ofDays(70);

  private final PurgeMapper mapper;
  private final SeenIndex seen;
  private final Journal journal;
  private final EventIndex index;
  private final DiskRoom room;
  private final KeepSettings keep;
  private final AppClock clock;

  Purger(
      PurgeMapper mapper,
      SeenIndex seen,
      EventIndex index,
      Journal journal,
      DiskRoom room,
      KeepSettings keep,
      AppClock clock) {
    this.mapper = mapper;
    this.seen = seen;
    this.index = index;
    this.room = room;
    this.journal = journal;
    this.keep = keep;
    this.clock = clock;
  }

  /** Removes some of it; the rest goes at the next times. */
  @Scheduled(initialDelay = 60_000, fixedDelay = 60_000)
  public void purge() {
    if (room.isNone()) {
      // To remove something, something must be written.
      return;
    }
    Instant now = clock.instant();
    int traces = 0;
    for (int i = 0; i < BATCHES; i++) {
      List<Long> old = mapper.traces(now.minus(keep.traces()), BATCH);
      if (old.isEmpty()) {
        break;
      }
      journal.runSoon(() -> remove(old));
      traces += old.size();
    }
    int events = 0;
    for (int i = 0; i < BATCHES; i++) {
      List<Long> old = mapper.events(now.minus(keep.events()), BATCH);
      if (old.isEmpty()) {
        break;
      }
      journal.runSoon(
          () -> {
            mapper.removeEvents(old);
            index.remove(old);
          });
      events += old.size();
    }
    int stories = stories(now.minus(keep.stories()));
    Instant before = now.minus(keep.traces());
    journal.runSoon(() -> remove(before));
    long counted = TraceEnds.slot(now.minus(BY_PLACE));
    journal.runSoon(() -> removeCounts(counted));
    if (traces + events + stories > 0) {
      LOG.info(
          "{} traces, {} events and {} stories were kept long enough and are removed",
          traces,
          events,
          stories);
    }
  }

  /** Of so many places more is not kept than what is usual is learned from. */
  private void removeCounts(long before) {
    int unused = mapper.removePlaceCounts(before) + mapper.removePlaceEffects(before);
  }

  /** What people did and what was counted goes with the traces that it was about. */
  private void remove(Instant before) {
    if (mapper.removeRecalls(before) > 0) {
      int unused = mapper.removeRecallItems();
    }
    if (mapper.removeResends(before) > 0) {
      int unused = mapper.removeResendItems();
    }
    if (mapper.removeRehearsals(before) > 0) {
      int unused = mapper.removeRehearsalDifferences();
    }
    if (mapper.removeIncidents(before) > 0) {
      int unused = mapper.removeIncidentLines();
    }
    int unused =
        mapper.removeFailureCounts(TraceEnds.slot(before)) + mapper.removeDuplicates(before);
  }

  private int stories(Instant before) {
    int removed = 0;
    long from = 0;
    for (int i = 0; i < BATCHES; i++) {
      List<Long> old = mapper.stories(from, before, BATCH);
      if (old.isEmpty()) {
        break;
      }
      journal.runSoon(() -> mapper.removeStories(old.stream().distinct().toList()));
      removed += (int) old.stream().distinct().count();
      from = old.getLast();
    }
    return removed;
  }

  private void remove(List<Long> traces) {
    mapper.removeStories(traces);
    mapper.removeDecided(traces);
    mapper.removeFailures(traces);
    mapper.removeDeliveries(traces);
    mapper.removeTries(traces);
    mapper.removeVersions(traces);
    mapper.removeCauses(traces);
    mapper.removeSteps(traces);
    mapper.removePlaces(traces);
    mapper.removeWords(traces);
    mapper.removeTraces(traces);
    Long oldest = mapper.oldestTrace();
    if (oldest != null) {
      seen.forgetBefore(oldest);
    }
  }
}
