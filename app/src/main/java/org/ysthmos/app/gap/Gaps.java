package org.ysthmos.app.gap;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.app.store.DiskForce;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.delivery.Doubt;

/**
 * The spans of time that are missing here, and what may have been carried across in them by the
 * application whose copy this is.
 *
 * <p>What a restored copy lacks is taken down before anything else begins, in one change with what
 * follows of it: all that is polled is polled anew, and what waits to be made is in doubt.
 */
@Component
public class Gaps {

  private static final Logger LOG = LoggerFactory.getLogger(Gaps.class);

  /**
   * For so long what is made is looked for first where that can be asked: a change of a record may
   * be the first that is heard of it here. Common practice, no source.
   */
  static final Duration LOOKED_FOR = Duration.ofDays(90);

  /** A gap with what makes up for it. */
  private record Known(Gap gap, List<GapPlace> places, List<GapCheck> checks) {
    boolean isMadeUpFor() {
      return gap.begun()
          && places.stream().noneMatch(GapPlace::isAwaited)
          && checks.stream().allMatch(GapCheck::begun);
    }
  }

  private final GapMapper mapper;
  private final Journal journal;
  private final AppClock clock;
  private volatile List<Known> known;

  Gaps(
      GapMapper mapper,
      EventMapper events,
      Journal journal,
      TransactionTemplate transaction,
      DiskForce disk,
      AppClock clock,
      Settings settings) {
    this.mapper = mapper;
    this.journal = journal;
    this.clock = clock;
    RestoredMark.of(settings.data())
        .ifPresent(
            mark -> {
              transaction.executeWithoutResult(
                  status -> takeDown(mark, events.newestSeq(), settings));
              disk.force();
              forget(RestoredMark.in(settings.data()));
            });
    this.known = read();
  }

  private void takeDown(RestoredMark mark, long newest, Settings settings) {
    if (mapper.known(mark.id()) > 0) {
      return;
    }
    Instant now = clock.instant();
    mapper.add(mark, newest);
    mapper.pollAll(now);
    if (settings.retry().rules().onceBeforeSending(now, mark.taken())
        instanceof Doubt.Open(Instant since, int looks)) {
      mapper.doubtAll(since, looks);
    }
    LOG.warn(
        "the data was restored: nothing is known here of {} to {}; what can be read again is",
        mark.taken(),
        mark.restored());
  }

  private static void forget(Path mark) {
    try {
      Files.delete(mark);
    } catch (IOException e) {
      throw new UncheckedIOException("cannot remove " + mark + ", which was taken down", e);
    }
  }

  private List<Known> read() {
    return mapper.since(clock.instant().minus(LOOKED_FOR)).stream()
        .map(gap -> new Known(gap, mapper.places(gap.id()), mapper.checks(gap.id())))
        .toList();
  }

  /**
   * Since when the application that went on after the copy was taken may have made what is to be
   * made of an event: one of the copy, of the missing time, or read to make up for it. Empty if it
   * cannot have.
   */
  public Optional<Instant> carriedSince(EventRow event) {
    return known.stream()
        .filter(one -> mayHaveBeenCarried(one, event))
        .map(one -> one.gap().from())
        .min(Instant::compareTo);
  }

  private static boolean mayHaveBeenCarried(Known one, EventRow event) {
    if (event.seq() <= one.gap().newestEvent() || event.happenedAt().isBefore(one.gap().until())) {
      return true;
    }
    if (event.origin() != Origin.POLLED) {
      return false;
    }
    if (!one.gap().begun()) {
      return true;
    }
    return one.places().stream()
        .filter(place -> place.system().equals(event.systemId()))
        .filter(place -> place.collection().equals(event.collectionId()))
        .map(place -> Optional.ofNullable(place.readUntil()))
        .anyMatch(until -> until.filter(last -> event.seq() > last).isEmpty());
  }

  /** Whether so little time went by since that all that is made is looked for first. */
  public boolean isRecent() {
    return !known.isEmpty()
        && known.getFirst().gap().until().plus(LOOKED_FOR).isAfter(clock.instant());
  }

  /** Those of which something is still to be said, the newest first. */
  public List<Gap> open() {
    return known.stream().map(Known::gap).filter(gap -> gap.seenAt() == null).toList();
  }

  /** Those that are not made up for yet, whatever a person said of them. */
  public List<Gap> unfinished() {
    return known.stream().filter(one -> !one.isMadeUpFor()).map(Known::gap).toList();
  }

  /** Where events of the missing time came from. */
  public List<GapPlace> places(Gap gap) {
    return of(gap).flatMap(one -> one.places().stream()).toList();
  }

  /** The bridges whose pairs are checked because of it. */
  public List<GapCheck> checks(Gap gap) {
    return of(gap).flatMap(one -> one.checks().stream()).toList();
  }

  private Stream<Known> of(Gap gap) {
    return known.stream().filter(one -> one.gap().id() == gap.id());
  }

  /** Takes down what makes up for it. */
  public void begin(Gap gap, Collection<GapPlace> places, Collection<String> checks) {
    change(
        () -> {
          places.forEach(place -> mapper.addPlace(gap.id(), place));
          checks.forEach(bridge -> mapper.addCheck(gap.id(), bridge));
          mapper.begun(gap.id());
        });
  }

  /** A place was read again, up to an event of ours. */
  public void read(Gap gap, GapPlace place, long event) {
    change(() -> mapper.read(gap.id(), place.system(), place.collection(), event));
  }

  /** A check of a bridge was begun. */
  public void checkBegun(Gap gap, GapCheck begun) {
    change(() -> mapper.checkBegun(gap.id(), begun.bridge()));
  }

  /**
   * A person says that no more is to be said of it.
   *
   * @return false if there is none of which something is
   */
  public boolean seen(long gap, By by) {
    List<Boolean> was = new ArrayList<>();
    change(() -> was.add(mapper.seen(gap, by.name(), clock.instant()) == 1));
    return was.getLast();
  }

  private synchronized void change(Runnable change) {
    journal.run(change);
    known = read();
  }
}
