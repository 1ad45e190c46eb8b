package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.Failure;

/** Puts traces off, or ends them, of which nothing is carried out. */
@Component
class Undecided {

  private final TraceMapper traces;
  private final TraceQueue queue;
  private final TraceEnds ends;
  private final Stories stories;
  private final Journal journal;
  private final AppClock clock;
  private final LiveFeed feed;

  Undecided(
      TraceMapper traces,
      TraceQueue queue,
      TraceEnds ends,
      Stories stories,
      Journal journal,
      AppClock clock,
      LiveFeed feed) {
    this.traces = traces;
    this.queue = queue;
    this.ends = ends;
    this.stories = stories;
    this.journal = journal;
    this.clock = clock;
    this.feed = feed;
  }

  /** Puts a trace off without counting a try. */
  void postpone(TraceQueue.Claimed claimed, Instant until) {
    journal.runSoon(() -> queue.pause(claimed, claimed.tries(), claimed.breaks(), until));
  }

  /** Puts a trace off that broke through a fault of ours. */
  void brokeHere(TraceQueue.Claimed claimed, int breaks, Instant until) {
    journal.runSoon(() -> queue.pause(claimed, claimed.tries(), breaks, until));
  }

  /** Gives a trace up that broke too often through a fault of ours. */
  void giveUp(TraceQueue.Claimed claimed, Failure failure) {
    fail(claimed, "Given up: ", failure);
  }

  /** A trace of what could not be read ends. */
  void setAside(TraceQueue.Claimed claimed, Failure failure) {
    fail(claimed, "Set aside: ", failure);
  }

  private void fail(TraceQueue.Claimed claimed, String how, Failure failure) {
    Instant now = clock.instant();
    byte[] part =
        stories.pack(
            TraceStory.EMPTY.with(
                line(now, Mark.FAILED, how + failure.kind().words(), Words.sentence(failure))));
    journal.runSoon(
        () -> {
          stories.add(claimed.trace().seq(), part);
          ends.fail(claimed, List.of(new TraceEnds.Failed("", "", failure)), now);
        });
    feed.changed(claimed.trace().bridgeId(), claimed.trace().id());
  }

  private static Line line(Instant at, Mark mark, String what, String detail) {
    return new Line(at, 0, mark, what, detail, "", "", null);
  }

  /** A trace ends with no effect. */
  void passBy(TraceQueue.Claimed claimed, String because) {
    Instant now = clock.instant();
    byte[] part =
        stories.pack(TraceStory.EMPTY.with(line(now, Mark.DONE, "Passed by", because + ".")));
    journal.runSoon(
        () -> {
          stories.add(claimed.trace().seq(), part);
          ends.end(claimed, Verdict.PASSED_BY, because, now);
        });
    feed.changed(claimed.trace().bridgeId(), claimed.trace().id());
  }

  /** Puts a trace off after a try that failed for now. */
  void waitAfter(DecisionWriter.Deciding deciding, int tries, Failure failure, Instant until) {
    Instant now = clock.instant();
    Duration pause = Duration.between(now, until);
    Line waiting =
        new Line(
            now,
            pause.toNanos() / 1000,
            Mark.WAITING,
            "Waits " + DecisionWords.span(pause) + " before the next try",
            failure.message(),
            "",
            "",
            null);
    byte[] part = stories.pack(TraceStory.EMPTY.withAll(deciding.world().lines()).with(waiting));
    journal.runSoon(
        () -> {
          TraceQueue.Claimed claimed = deciding.claimed();
          queue.pause(claimed, tries, claimed.breaks(), until);
          stories.add(claimed.trace().seq(), part);
          traces.tried(claimed.trace().seq(), tries, failure.kind(), Words.sentence(failure));
        });
    feed.changed(deciding.trace().bridgeId(), deciding.trace().id());
  }
}
