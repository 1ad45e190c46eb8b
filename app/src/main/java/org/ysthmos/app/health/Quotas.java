package org.ysthmos.app.health;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.guard.EffectCounts;
import org.ysthmos.app.health.QuotaMapper.QuotaRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.load.QuotaCourse;

/** Follows how systems fill: how full each was hour by hour, and which bridges fill it. */
@Component
class Quotas {

  private static final Duration HOUR = Duration.ofHours(1);

  /** How far back it is shown and kept. */
  static final Duration SHOWN = Duration.ofDays(14);

  private static final Duration KEPT = Duration.ofDays(90);

  /**
   * How a system fills.
   *
   * @param points how full it was, in the order of time
   * @param course at which pace; empty while that is not known
   * @param fillers the bridges that made something there in that time, the one with most first
   */
  record Filling(List<QuotaRow> points, Optional<QuotaCourse> course, List<Filler> fillers) {}

  /** How many tasks a bridge made in the time that is shown. */
  record Filler(String bridge, String name, long made) {}

  private final QuotaMapper mapper;
  private final Health health;
  private final Systems systems;
  private final Bridges bridges;
  private final EffectCounts effects;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final Map<String, Instant> newest = new ConcurrentHashMap<>();

  Quotas(
      QuotaMapper mapper,
      Health health,
      Systems systems,
      Bridges bridges,
      EffectCounts effects,
      Journal journal,
      DiskRoom room,
      AppClock clock) {
    this.mapper = mapper;
    this.health = health;
    this.systems = systems;
    this.bridges = bridges;
    this.effects = effects;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
  }

  /** Looks at each system whose hour is over, as the clock of the application goes. */
  @Scheduled(
      initialDelayString = "${ysthmos.health.quota}",
      fixedDelayString = "${ysthmos.health.quota}")
  void follow() {
    for (Systems.Connected system : systems.all()) {
      String id = system.description().id();
      Instant now = clock.instant();
      if (isDue(id, now) && room.isEnough()) {
        // Whatever it says, it is not asked again before the next hour.
        newest.put(id, now);
        if (health.lookAtQuota(id).orElse(null) instanceof QuotaReading.Filled filled) {
          note(id, now, filled);
        }
      }
    }
  }

  /** A clock that was set back must not keep it from being looked at. */
  private boolean isDue(String system, Instant now) {
    Instant last =
        newest.computeIfAbsent(
            system, any -> Optional.ofNullable(mapper.newest(system)).orElse(Instant.EPOCH));
    return Duration.between(last, now).abs().compareTo(HOUR) >= 0;
  }

  private void note(String system, Instant now, QuotaReading.Filled filled) {
    journal.runSoon(
        () -> {
          mapper.forget(system, now.minus(KEPT));
          mapper.add(system, now, filled.used(), filled.most());
        });
  }

  /** How a system fills, as far as it was looked at. */
  Filling filling(String system) {
    Instant since = clock.instant().minus(SHOWN);
    List<QuotaRow> points = mapper.since(system, since);
    Optional<QuotaCourse> course =
        points.isEmpty()
            ? Optional.empty()
            : QuotaCourse.of(
                points.stream().map(row -> new QuotaCourse.Point(row.at(), row.used())).toList(),
                points.getLast().most());
    List<Filler> fillers =
        bridges.live().stream()
            .map(live -> live.version().definition())
            .filter(bridge -> bridge.to().system().equals(system))
            .map(
                bridge ->
                    new Filler(
                        bridge.id(),
                        bridge.name(),
                        effects.since(bridge.id(), EffectKind.CREATE, since)))
            .filter(filler -> filler.made() > 0)
            .sorted(Comparator.comparingLong(Filler::made).reversed())
            .toList();
    return new Filling(points, course, fillers);
  }
}
