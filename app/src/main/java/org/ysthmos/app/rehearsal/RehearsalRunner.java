package org.ysthmos.app.rehearsal;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.PastMapper.Span;
import org.ysthmos.app.rehearsal.PastMapper.Which;
import org.ysthmos.app.rehearsal.RehearsalMapper.RehearsalRow;
import org.ysthmos.app.store.Chunks;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.trace.DecidedThen;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.rehearsal.Rehearsal;
import org.ysthmos.core.rehearsal.Rehearsed;
import org.ysthmos.core.rehearsal.Tally;

/**
 * Carries rehearsals through, one after the other. One that a stop or a kill broke off begins anew
 * at the next start and is soon where it was: what it asked is kept until it ends, and deciding
 * costs little.
 */
@Component
class RehearsalRunner implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(RehearsalRunner.class);

  private static final Duration BETWEEN = Duration.ofSeconds(5);

  /** One that was broken off so often is not begun again: it may be what breaks. */
  private static final int MOST_STARTS = 5;

  /** How often at most it is written down how far one is. */
  private static final Duration TOLD_EVERY = Duration.ofMillis(300);

  private final Rehearsals rehearsals;
  private final RehearsalMapper mapper;
  private final Past past;
  private final AskedNow.Sources asking;
  private final Catalog catalog;
  private final Journal journal;
  private final DiskRoom room;
  private final LiveFeed feed;
  private final Path pairs;
  private final WorkSignals.Signal signal = new WorkSignals.Signal();
  private final KeptThread thread;

  RehearsalRunner(
      Rehearsals rehearsals,
      RehearsalMapper mapper,
      Past past,
      AskedNow.Sources asking,
      Catalog catalog,
      Journal journal,
      DiskRoom room,
      LiveFeed feed,
      Settings settings) {
    this.rehearsals = rehearsals;
    this.mapper = mapper;
    this.past = past;
    this.asking = asking;
    this.catalog = catalog;
    this.journal = journal;
    this.room = room;
    this.feed = feed;
    this.pairs = settings.data().resolve("rehearsal.pairs");
    this.thread =
        KeptThread.ofRounds(
            "rehearsals", signal, () -> BETWEEN, this::goOn, "rehearsals could not go on");
  }

  /** A rehearsal began. */
  void raise() {
    signal.raise();
  }

  private void goOn() {
    for (RehearsalRow row : mapper.running()) {
      if (!thread.isRunning() || !room.isEnough()) {
        return;
      }
      goOn(row);
      feed.changed(row.bridgeId(), "");
    }
  }

  private void goOn(RehearsalRow row) {
    if (row.starts() >= MOST_STARTS) {
      fail(row, "It began %d times and was broken off each time.".formatted(row.starts()));
      return;
    }
    try {
      new Run(row).toItsEnd();
    } catch (AskedNow.Stopped | Journal.Full stopped) {
      // Of one that a person stopped the end is written already; else the next start goes on.
      LOG.info("rehearsal {} is broken off", row.id());
    } catch (AskedNow.NotAnswered | DocumentException e) {
      fail(row, String.valueOf(e.getMessage()));
    } catch (RuntimeException | Error e) {
      LOG.error("rehearsal {} broke", row.id(), e);
      fail(row, "It broke here (%s). The log of the application says more.".formatted(e));
    }
  }

  private void fail(RehearsalRow row, String why) {
    boolean unused = rehearsals.end(row, RehearsalState.FAILED, Words.limited(why, 1000));
  }

  /** One rehearsal from its beginning. */
  private final class Run {

    private final RehearsalRow row;
    private final BridgeVersion bridge;
    private final Tally tally = new Tally();
    private final Differences differences;
    private long toldAt = System.nanoTime();
    private int passed;

    Run(RehearsalRow row) {
      this.row = row;
      Integer version = row.version();
      this.bridge = BridgeCompiler.compile(row.document(), version == null ? 1 : version, catalog);
      this.differences = new Differences(row.id());
    }

    void toItsEnd() {
      Which which = past.which(row, bridge);
      Span span = past.span(which, row.most());
      if (!began(span)) {
        return;
      }
      Long first = span.firstSeq();
      Long last = span.lastSeq();
      if (first != null && last != null && !all(between(which, first, last))) {
        return;
      }
      if (tell()) {
        boolean unused = rehearsals.end(row, RehearsalState.ENDED, null);
      }
    }

    private boolean began(Span span) {
      Instant first = past.receivedAt(span.firstSeq());
      Instant last = past.receivedAt(span.lastSeq());
      return journal.now(
          () -> {
            int unused = mapper.removeDifferences(row.id());
            return mapper.counted(row.id(), span.events(), first, last) > 0;
          });
    }

    private static Which between(Which which, long first, long last) {
      return new Which(which.system(), which.collections(), which.kinds(), first, last);
    }

    /** False if it does not go on. */
    private boolean all(Which which) {
      AskedNow asked = new AskedNow(asking, row.id(), this::isWanted);
      try (PagesAhead pages = new PagesAhead(past, row.bridgeId(), which);
          DiskChain chain = new DiskChain(pairs, seq -> past.decided(row.bridgeId(), seq))) {
        Rehearsal rehearsal = new Rehearsal(bridge, row.answers(), chain, asked);
        while (true) {
          List<PastEvent> page = pages.next();
          if (page.isEmpty()) {
            return true;
          }
          for (PastEvent one : page) {
            chain.at(one.row().seq());
            decide(one, rehearsal, asked);
          }
          if (!thread.isRunning() || (isTimeToTell() && !tell())) {
            return false;
          }
        }
      }
    }

    private void decide(PastEvent one, Rehearsal rehearsal, AskedNow asked) {
      Optional<Event> event = one.event();
      passed++;
      if (event.isPresent()) {
        asked.at(one.row());
        Rehearsed rehearsed = rehearsal.next(event.get(), one.then().map(DecidedThen.Known::then));
        tally.add(rehearsed);
        differences.add(one, rehearsed);
      }
    }

    /** Whether a person still wants it; asked while it waits for others. */
    private boolean isWanted() {
      return thread.isRunning() && (!isTimeToTell() || tell());
    }

    private boolean isTimeToTell() {
      return System.nanoTime() - toldAt > TOLD_EVERY.toNanos();
    }

    /** Writes down how far it is; false if it was stopped. */
    private boolean tell() {
      toldAt = System.nanoTime();
      List<RehearsalMapper.DifferenceRow> fresh = differences.fresh(past::named);
      String counted = TallyJson.of(tally).write();
      boolean goesOn =
          journal.soon(
              () -> {
                boolean runs =
                    mapper.progress(row.id(), passed, Math.toIntExact(tally.differing()), counted)
                        > 0;
                if (runs) {
                  Chunks.each(fresh, mapper::addDifferences);
                }
                return runs;
              });
      feed.changed(row.bridgeId(), "");
      return goesOn;
    }
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
