package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;

/** What ends with a delivery, whatever came of it. */
@Component
class DeliveryEnd {

  private final DeliveryQueue queue;
  private final TraceQueue traceQueue;
  private final TraceEnds ends;
  private final Dependents dependents;

  DeliveryEnd(DeliveryQueue queue, TraceQueue traceQueue, TraceEnds ends, Dependents dependents) {
    this.queue = queue;
    this.traceQueue = traceQueue;
    this.ends = ends;
    this.dependents = dependents;
  }

  /**
   * The pair is free, as no two deliveries for one are under way; what belongs under the task goes
   * or fails with it; and the trace ends with its last delivery.
   *
   * @param made the task that was made or changed; empty if it failed
   */
  void ended(Attempt attempt, TraceRow trace, Instant now, Optional<String> made) {
    DeliveryRow delivery = attempt.delivery();
    traceQueue.pairIsFree(attempt.traceQueue(), delivery.matchHash());
    boolean others = queue.isDelivering(trace.seq());
    if (others) {
      if (made.isPresent() || delivery.effectName() != null) {
        // What comes next does not depend on what came before it, but on the task alone.
        dependents.letGo(delivery, made.orElse(""));
      } else {
        dependents.fail(delivery);
      }
      others = queue.isDelivering(trace.seq());
    }
    boolean isUnderWay = trace.verdict() == null && !attempt.isRecall();
    if (isUnderWay && !others) {
      ends.endDelivered(trace, now);
    }
  }
}
