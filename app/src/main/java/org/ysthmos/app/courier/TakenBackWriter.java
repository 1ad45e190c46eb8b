package org.ysthmos.app.courier;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.work.WorkSignals;

/** Stores what became of deliveries that take a task away. */
@Component
class TakenBackWriter {

  private final DeliveryQueue queue;
  private final DeliveryMapper deliveries;
  private final TraceQueue traceQueue;
  private final Recalling recalling;
  private final DeliveryLog log;
  private final AppClock clock;
  private final WorkSignals signals;

  TakenBackWriter(
      DeliveryQueue queue,
      DeliveryMapper deliveries,
      TraceQueue traceQueue,
      Recalling recalling,
      DeliveryLog log,
      AppClock clock,
      WorkSignals signals) {
    this.queue = queue;
    this.deliveries = deliveries;
    this.traceQueue = traceQueue;
    this.recalling = recalling;
    this.log = log;
    this.clock = clock;
    this.signals = signals;
  }

  /**
   * A task was taken away, which ends nothing but this delivery.
   *
   * @param wasThere false if others removed it before
   */
  void removed(Attempt attempt, boolean wasThere) {
    DeliveryRow delivery = attempt.delivery();
    log.store(
        attempt,
        log.trace(delivery),
        DeliveryLog.told(attempt, Optional.empty()),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.MADE, delivery.recordId(), clock.instant());
          if (attempt.isRecall()) {
            recalling.went(delivery, wasThere);
            traceQueue.pairIsFree(attempt.traceQueue(), delivery.matchHash());
          }
        });
    log.tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
  }

  /** What was to be taken back stays, as somebody changed it since. */
  void staysAsChanged(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    Line stays =
        AttemptWords.plain(
            clock.instant(),
            Mark.DONE,
            "Not taken back: somebody changed it since",
            "It stays until a person says that it goes all the same");
    log.store(
        attempt,
        log.trace(delivery),
        DeliveryLog.told(attempt, Optional.empty()).with(stays),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.LEFT, delivery.recordId(), null);
          recalling.stays(delivery, "Somebody changed it since");
          traceQueue.pairIsFree(attempt.traceQueue(), delivery.matchHash());
        });
    signals.toDecide().raise();
  }
}
