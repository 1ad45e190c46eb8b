package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.failure.Failure;

/** Puts deliveries off until a time: what is to be tried, or looked at, once more. */
@Component
class DeliveryPauses {

  private final DeliveryQueue queue;
  private final TraceMapper traces;
  private final DeliveryLog log;
  private final Journal journal;
  private final AppClock clock;

  DeliveryPauses(
      DeliveryQueue queue, TraceMapper traces, DeliveryLog log, Journal journal, AppClock clock) {
    this.queue = queue;
    this.traces = traces;
    this.log = log;
    this.journal = journal;
    this.clock = clock;
  }

  /** Tries again at a time. */
  void again(Attempt attempt, int tries, Failure failure, Doubt doubt, Instant until) {
    Instant now = clock.instant();
    TraceRow trace = log.trace(attempt.delivery());
    String text = failure.retryAfter().isPresent() ? "Waits as told" : "Waits before the next try";
    Line waiting = AttemptWords.waits(now, Duration.between(now, until), text, failure.message());
    log.store(
        attempt,
        trace,
        DeliveryLog.told(attempt, Optional.of(failure)).with(waiting),
        () -> {
          queue.pause(attempt.claimed(), tries, attempt.claimed().breaks(), doubt, until);
          if (!attempt.isRecall()) {
            traces.tried(
                trace.seq(), attempt.claimed().tries(), failure.kind(), Words.sentence(failure));
          }
        });
  }

  /** Looks again later, as what was asked may still be on its way over there. */
  void looksAgain(Attempt attempt, Doubt doubt, Instant until) {
    Instant now = clock.instant();
    Line waiting =
        AttemptWords.waits(
            now,
            Duration.between(now, until),
            "Waits before looking again",
            "What was sent may still be on its way there");
    log.store(
        attempt,
        log.trace(attempt.delivery()),
        DeliveryLog.told(attempt, Optional.empty()).with(waiting),
        () -> uncounted(attempt, doubt, until));
  }

  /** Puts back what found no room for all of its calls; the calls it made are told. */
  void noRoom(Attempt attempt, Doubt doubt, Instant until) {
    log.store(
        attempt,
        log.trace(attempt.delivery()),
        DeliveryLog.told(attempt, Optional.empty()),
        () -> uncounted(attempt, doubt, until));
  }

  /** Puts off what cost no try; inside a change. */
  void uncounted(Attempt attempt, Doubt doubt, Instant until) {
    queue.pause(
        attempt.claimed(), attempt.claimed().tries(), attempt.claimed().breaks(), doubt, until);
  }

  /** Puts back what broke through a fault of ours. */
  void brokeHere(Attempt attempt, int breaks, Doubt doubt, Instant until) {
    journal.run(
        () -> queue.pause(attempt.claimed(), attempt.claimed().tries(), breaks, doubt, until));
  }
}
