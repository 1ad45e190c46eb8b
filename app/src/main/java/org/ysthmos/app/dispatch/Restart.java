package org.ysthmos.app.dispatch;

import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.delivery.DeliveryRules;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.Promise;

/**
 * What was taken in before this start. The data may have been restored from a copy, and what stands
 * in it as to be done may have been done by the application that went on after the copy was taken.
 */
@Component
class Restart {

  private final long newestBefore;
  private final Systems systems;
  private final AppClock clock;
  private final DeliveryRules rules;
  private final boolean restored;

  Restart(EventMapper events, Systems systems, AppClock clock, Settings settings) {
    this.newestBefore = events.newestSeq();
    this.systems = systems;
    this.clock = clock;
    this.rules = settings.retry().rules();
    this.restored = settings.restored();
  }

  /** Whether an event was taken in before this start. */
  boolean isFromBefore(EventRow event) {
    return event.seq() <= newestBefore;
  }

  /**
   * The doubt about what is to be made in a collection. Where it can be looked for, one look
   * settles it. Where nothing can be looked for, it is not asked of a person after each start, but
   * only if we are told that the data was restored.
   */
  Doubt lookOnce(String system, String collection) {
    Promise promise =
        systems.collection(system, collection).map(SystemCollection::promise).orElse(Promise.NONE);
    boolean searched = promise == Promise.FOUND_BY_KEY || promise == Promise.KNOWN_BY_KEY;
    return searched || restored ? rules.onceBeforeSending(clock.instant()) : Doubt.NONE;
  }
}
