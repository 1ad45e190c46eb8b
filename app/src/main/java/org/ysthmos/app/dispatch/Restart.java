package org.ysthmos.app.dispatch;

import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.gap.Gaps;
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
  private final Gaps gaps;
  private final boolean restored;

  Restart(EventMapper events, Systems systems, AppClock clock, Gaps gaps, Settings settings) {
    this.newestBefore = events.newestSeq();
    this.systems = systems;
    this.clock = clock;
    this.gaps = gaps;
    this.rules = settings.retry().rules();
    this.restored = settings.restored();
  }

  /**
   * The doubt about what is to be made of an event. Where it can be looked for, one look settles
   * it. Where nothing can be looked for, it is not asked of a person after each start, but only
   * where we know that the data was restored, or are told so.
   *
   * @param tried whether an earlier try failed
   */
  Doubt about(EventRow event, boolean tried, String system, String collection) {
    Instant now = clock.instant();
    Optional<Instant> carried = gaps.carriedSince(event);
    if (carried.isPresent()) {
      return rules.onceBeforeSending(now, carried.get());
    }
    boolean before = event.seq() <= newestBefore;
    boolean looks = (before || tried || gaps.isRecent()) && isSearched(system, collection);
    return looks || (before && restored) ? rules.onceBeforeSending(now) : Doubt.NONE;
  }

  private boolean isSearched(String system, String collection) {
    Promise promise =
        systems.collection(system, collection).map(SystemCollection::promise).orElse(Promise.NONE);
    return promise == Promise.FOUND_BY_KEY || promise == Promise.KNOWN_BY_KEY;
  }
}
