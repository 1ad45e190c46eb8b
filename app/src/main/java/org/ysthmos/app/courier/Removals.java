package org.ysthmos.app.courier;

import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway;

/** Takes tasks away, and looks at those first that are taken back. */
@Component
class Removals {

  /** What is to become of a delivery that came to nothing so far. */
  @FunctionalInterface
  interface Unsettled {
    void settle(Failure failure);
  }

  private final TaskLooks looks;
  private final Recalling recalling;
  private final TakenBackWriter takenBack;
  private final ByOthersWriter others;

  Removals(TaskLooks looks, Recalling recalling, TakenBackWriter takenBack, ByOthersWriter others) {
    this.looks = looks;
    this.recalling = recalling;
    this.takenBack = takenBack;
    this.others = others;
  }

  /** What somebody changed stays where it is, unless a person said that it goes all the same. */
  boolean isSettledByALook(
      Attempt attempt, Systems.Connected system, String record, Unsettled unsettled) {
    DeliveryRow delivery = attempt.delivery();
    if (recalling.evenIfChanged(delivery.seq())) {
      return false;
    }
    switch (looks.look(
        delivery.systemId(), delivery.collectionId(), record, attempt.calls()::add)) {
      case TaskLooks.Same same -> {
        return false;
      }
      case TaskLooks.Changed changed -> {
        system.breaker().answered();
        takenBack.staysAsChanged(attempt);
      }
      case TaskLooks.Gone nothing -> {
        system.breaker().answered();
        takenBack.removed(attempt, false);
      }
      case TaskLooks.Unseen unseen -> unsettled.settle(unseen.failure());
    }
    return true;
  }

  /** Takes the task of a delivery away. */
  void remove(Attempt attempt, Systems.Connected system, String record, Unsettled unsettled) {
    switch (system
        .gateway()
        .remove(
            attempt.delivery().collectionId(),
            record,
            attempt.synced().flatMap(SyncedPairs.Sending::tag),
            attempt.calls()::add)) {
      case TaskGateway.Removed removed -> {
        system.breaker().answered();
        if (attempt.synced().isPresent()) {
          others.removed(attempt);
        } else if (attempt.isRecall()) {
          takenBack.removed(attempt, true);
        } else {
          others.takenAway(attempt);
        }
      }
      case TaskGateway.NotRemoved not when isOvertaken(attempt, not.failure()) -> {
        system.breaker().answered();
        others.overtaken(attempt, not.failure());
      }
      case TaskGateway.NotRemoved not -> unsettled.settle(not.failure());
    }
  }

  /** Whether somebody changed a task of a pair after it was read. */
  static boolean isOvertaken(Attempt attempt, Failure failure) {
    return attempt.synced().isPresent() && failure.kind() == FailureKind.CHANGED_MEANWHILE;
  }
}
