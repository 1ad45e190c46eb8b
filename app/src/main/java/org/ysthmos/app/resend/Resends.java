package org.ysthmos.app.resend;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.resend.ResendMapper.MeantRow;
import org.ysthmos.app.resend.ResendMapper.NewResend;
import org.ysthmos.app.resend.ResendMapper.NextRow;
import org.ysthmos.app.resend.ResendMapper.ResendRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Resender;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.failure.FailureKind;

/**
 * Sends again together what failed of one kind at one bridge, in the order in which it came. Some
 * are sent in one change with how far it is, so that a kill at any moment sends none twice and none
 * never, and the next start goes on. What fails once more waits for a person as any failure does,
 * and is not sent by the same wish again.
 */
@Component
class Resends {

  private static final Logger LOG = LoggerFactory.getLogger(Resends.class);

  /** How long what was sent again is told of. */
  private static final Duration TOLD = Duration.ofHours(12);

  private final ResendMapper mapper;
  private final Resender resender;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final LiveFeed feed;

  Resends(
      ResendMapper mapper,
      Resender resender,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      LiveFeed feed) {
    this.mapper = mapper;
    this.resender = resender;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * Begins to send again what waits for a person now.
   *
   * @param expected how many a person saw that there are
   * @throws ApiProblem if there are others by now, or if sending them together could make doubles
   */
  ResendRow begin(String bridge, FailureKind kind, int expected, By by) {
    if (kind == FailureKind.ANSWER_UNKNOWN) {
      throw refused(
          "One by one",
          "Nobody knows whether these were made. Look for each over there, and send again those"
              + " that were not.");
    }
    long id = journal.now(() -> beginNow(bridge, kind, expected, by));
    return Objects.requireNonNull(mapper.find(id), "what was begun is gone");
  }

  private long beginNow(String bridge, FailureKind kind, int expected, By by) {
    if (mapper.runningOf(bridge, kind) > 0) {
      throw refused("Under way", "These are being sent again already.");
    }
    MeantRow meant = mapper.meant(bridge, kind);
    Long newest = meant.newest();
    if (newest == null || meant.traces() != expected) {
      throw refused(
          "Others by now",
          "%d wait by now, not %d. Look once more, then send them again."
              .formatted(meant.traces(), expected));
    }
    NewResend begun =
        new NewResend(bridge, kind, newest, meant.traces(), by.name(), clock.instant());
    mapper.begin(begun);
    return begun.id;
  }

  /** Stops; what was sent goes its way, the rest waits as before. */
  void stop(long id) {
    if (journal.now(() -> mapper.end(id, ResendState.STOPPED, null, clock.instant())) == 0) {
      throw refused("Not under way", "This has ended already.");
    }
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }

  /** Sends some of each that runs. */
  @Scheduled(fixedDelay = 250)
  void goOn() {
    if (!room.isEnough()) {
      return;
    }
    for (ResendRow resend : mapper.running()) {
      try {
        if (journal.now(() -> sendSome(resend.id()))) {
          resender.raise();
        }
      } catch (RuntimeException e) {
        LOG.error("what failed at {} cannot be sent again together", resend.bridgeId(), e);
        String problem = Words.limited(String.valueOf(e.getMessage()), 1000);
        journal.run(() -> mapper.end(resend.id(), ResendState.BROKEN, problem, clock.instant()));
      }
      feed.changed(resend.bridgeId(), "");
    }
  }

  /** In a change; whether anything was sent. */
  private boolean sendSome(long id) {
    ResendRow resend = mapper.find(id);
    if (resend == null || resend.state() != ResendState.RUNNING) {
      return false;
    }
    List<NextRow> next = mapper.next(resend);
    if (next.isEmpty()) {
      mapper.end(id, ResendState.SENT, null, clock.instant());
      return false;
    }
    String words = "Sent again with all that failed of this kind, by a " + resend.askedBy();
    long first = Long.MAX_VALUE;
    long last = 0;
    for (NextRow one : next) {
      long fresh = resender.begin(one.id(), name(resend), words);
      first = Math.min(first, fresh);
      last = Math.max(last, fresh);
    }
    mapper.progress(id, next.getLast().seq(), next.size(), first, last);
    return true;
  }

  /** By which the traces are known that came of it. */
  private static String name(ResendRow resend) {
    return "resend " + resend.id();
  }

  /** What was sent again of late, the newest first. */
  List<ResendRow> recent() {
    Instant since = clock.instant().minus(TOLD);
    return mapper.since(since);
  }

  /** What came of it so far. */
  List<ResendMapper.OutcomeRow> outcome(ResendRow resend) {
    return Optional.ofNullable(resend.firstNew())
        .map(first -> mapper.outcome(first, Objects.requireNonNull(resend.lastNew()), name(resend)))
        .orElse(List.of());
  }
}
