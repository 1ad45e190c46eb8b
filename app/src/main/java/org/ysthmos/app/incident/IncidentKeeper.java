package org.ysthmos.app.incident;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.health.Health;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.EachAlone;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.incident.CauseFinder;
import org.ysthmos.core.incident.Evidence;
import org.ysthmos.core.incident.IncidentKey;

/**
 * Opens, changes and closes incidents by what is seen, one look after the other. A look that took
 * long is followed by a rest nine times as long, so that looking never takes more than a tenth of
 * the time, however much waits.
 */
@Component
public class IncidentKeeper implements WithThread {

  private static final Logger LOG = LoggerFactory.getLogger(IncidentKeeper.class);

  /** What nobody signals, such as a system that answers again, is seen after this time. */
  private static final Duration BETWEEN = Duration.ofSeconds(2);

  /** What is known of a system that refuses is not older than this. */
  private static final Duration LOOKED_LATELY = Duration.ofMinutes(10);

  private static final int RESTS = 9;

  /** A look that took less is followed by no rest: few things wait. */
  private static final Duration QUICK = Duration.ofMillis(20);

  /**
   * What was concluded from.
   *
   * @param newest the newest trace that failed so
   * @param failed how many waited that failed so
   * @param stands whether anything stands still for it
   * @param bridges those it concerns
   */
  private record Basis(long newest, int failed, boolean stands, Set<String> bridges, Instant at) {

    /** Whether nothing else could be concluded from it, but for what systems may say by now. */
    boolean isAsGoodAs(Basis before) {
      return newest <= before.newest
          && failed <= before.failed
          && stands == before.stands
          && bridges.equals(before.bridges)
          && !before.at.isAfter(at)
          && !before.at.isBefore(at.minus(LOOKED_LATELY));
    }
  }

  private final IncidentBook book;
  private final Telling telling;
  private final Digests digests;
  private final Symptoms symptoms;
  private final EvidenceGathering evidence;
  private final SymptomMapper mapper;
  private final Health health;
  private final Systems systems;
  private final WorkSignals.Signal signal;
  private final DiskRoom room;
  private final LiveFeed feed;
  private final AppClock clock;

  /** What each was concluded from: it is concluded anew when that is otherwise. */
  private final Map<String, Basis> concludedFrom = new HashMap<>();

  private final Map<String, Instant> lookedAt = new HashMap<>();
  private final ExecutorService looking =
      Executors.newSingleThreadExecutor(
          Thread.ofPlatform().name("incident-looks").daemon().factory());
  private final AtomicInteger looksUnderWay = new AtomicInteger();
  private final Set<String> freshlyLooked = ConcurrentHashMap.newKeySet();
  private volatile Optional<String> problem = Optional.empty();
  private volatile long seen;
  private final KeptThread thread;

  IncidentKeeper(
      IncidentBook book,
      Telling telling,
      Digests digests,
      Symptoms symptoms,
      EvidenceGathering evidence,
      SymptomMapper mapper,
      Health health,
      Systems systems,
      WorkSignals signals,
      DiskRoom room,
      LiveFeed feed,
      AppClock clock) {
    this.book = book;
    this.telling = telling;
    this.digests = digests;
    this.symptoms = symptoms;
    this.evidence = evidence;
    this.mapper = mapper;
    this.health = health;
    this.systems = systems;
    this.signal = signals.toWatch();
    this.room = room;
    this.feed = feed;
    this.clock = clock;
    this.thread = new KeptThread("incidents", signal, this::loop);
  }

  /** Whether something may have changed that was not looked at yet. */
  public boolean isUnderWay() {
    return thread.isRunning()
        && (seen < signal.times()
            || looksUnderWay.get() > 0
            || telling.isUnderWay()
            || digests.isUnderWay());
  }

  /** When somebody is to be told of an incident next; empty if nobody is. */
  public Optional<Instant> next() {
    return Stream.of(telling.next(), digests.next())
        .flatMap(Optional::stream)
        .min(Instant::compareTo);
  }

  /** Why incidents cannot be looked at; empty if they can. */
  public Optional<String> problem() {
    return problem;
  }

  /** Why nobody could be told of incidents; empty if all is told or will be. */
  public Optional<String> tellingProblem() {
    return telling.problem().or(digests::problem);
  }

  private void loop() {
    while (thread.isRunning()) {
      try {
        signal.await(BETWEEN);
        long times = signal.times();
        Duration took = Duration.ZERO;
        if (room.isEnough()) {
          took = look();
          telling.goOn();
          digests.goOn();
          problem = Optional.empty();
        }
        seen = times;
        rest(took);
      } catch (InterruptedException unwanted) {
        LOG.warn("looking for incidents was interrupted and goes on");
      } catch (Throwable e) {
        // Nobody else would see what fails from here on, so the thread lives on, and Watch says it.
        LOG.error("incidents cannot be looked at", e);
        problem = Optional.of(String.valueOf(e.getMessage()));
        seen = signal.times();
      }
    }
  }

  private static void rest(Duration took) throws InterruptedException {
    if (took.compareTo(QUICK) >= 0) {
      Duration rest = took.multipliedBy(RESTS);
      Thread.sleep(rest.compareTo(BETWEEN) > 0 ? BETWEEN : rest);
    }
  }

  /**
   * One look: what is seen opens or changes, what is not seen any more closes.
   *
   * @return how long it took to see what there is, which is what grows with all that waits
   */
  private Duration look() {
    long began = System.nanoTime();
    List<Symptoms.Symptom> now = symptoms.now();
    Duration took = Duration.ofNanos(System.nanoTime() - began);
    Map<String, IncidentRow> open = new HashMap<>();
    book.open().forEach(row -> open.put(row.cause(), row));
    Set<String> fresh = Set.copyOf(freshlyLooked);
    freshlyLooked.removeAll(fresh);
    Set<String> causes = now.stream().map(one -> one.key().text()).collect(Collectors.toSet());
    List<IncidentRow> over =
        open.values().stream().filter(row -> !causes.contains(row.cause())).toList();
    EachAlone.of(over, this::gone);
    EachAlone.of(
        now,
        one -> {
          String cause = one.key().text();
          seen(one, Optional.ofNullable(open.get(cause)), fresh.contains(cause));
        });
    return took;
  }

  private void gone(IncidentRow row) {
    book.gone(row);
    concludedFrom.remove(row.cause());
    feed.changed("", "");
  }

  private void seen(Symptoms.Symptom symptom, Optional<IncidentRow> open, boolean fresh) {
    String cause = symptom.key().text();
    Basis basis =
        new Basis(
            symptom.newest(),
            symptom.failed(),
            symptom.standing() > 0,
            Set.copyOf(symptom.bridges()),
            clock.instant());
    Basis before = concludedFrom.get(cause);
    if (open.isPresent() && before == null) {
      // What was concluded before this start stands until its system was looked at.
      concludedFrom.put(cause, basis);
      lookAtItsSystem(symptom);
      before = basis;
    }
    boolean same =
        open.isPresent()
            && (symptom.isOnlySentAgain()
                || (!fresh && basis.isAsGoodAs(Objects.requireNonNull(before))));
    if (same && open.get().waiting() == symptom.waiting()) {
      return;
    }
    Found found = same ? book.found(open.get()) : conclude(symptom);
    if (open.isEmpty()) {
      IncidentRow unused = book.seen(symptom, found, symptoms.since(symptom.key()));
      lookAtItsSystem(symptom);
    } else {
      book.changed(open.get(), symptom, found);
    }
    if (!same) {
      concludedFrom.put(cause, basis);
    }
    feed.changed("", "");
  }

  private Found conclude(Symptoms.Symptom symptom) {
    IncidentKey key = symptom.key();
    boolean ofSystem =
        key.family() == IncidentKey.Family.REFUSED || key.family() == IncidentKey.Family.AWAY;
    Evidence all = evidence.of(symptom, ofSystem ? symptoms.writing(key.of()) : List.of());
    return Found.of(CauseFinder.conclude(all), all);
  }

  /** Small questions to a system that refuses say more; one that does not answer is let be. */
  private void lookAtItsSystem(Symptoms.Symptom symptom) {
    IncidentKey key = symptom.key();
    if (key.family() != IncidentKey.Family.AWAY) {
      systemsOf(key).forEach(system -> lookAt(system, key.text()));
    }
  }

  /** The connected systems that an incident is about. */
  private List<String> systemsOf(IncidentKey key) {
    List<String> of =
        switch (key.family()) {
          case REFUSED, AWAY -> List.of(key.of());
          case ALIKE -> mapper.systems(key.text());
          case RHYTHM -> symptoms.system(key.of()).stream().toList();
          case HELD -> List.of();
        };
    return of.stream().filter(system -> systems.find(system).isPresent()).toList();
  }

  private void lookAt(String system, String cause) {
    Instant now = clock.instant();
    Instant before = lookedAt.get(system);
    boolean lately = before != null && !before.isBefore(now.minus(LOOKED_LATELY));
    boolean ahead = before != null && before.isAfter(now);
    if (lately && !ahead) {
      return;
    }
    lookedAt.put(system, now);
    looksUnderWay.incrementAndGet();
    looking.execute(
        () -> {
          try {
            health.lookAt(system);
            boolean unused = freshlyLooked.add(cause);
          } catch (RuntimeException e) {
            // The next look says the same; an incident is open that a person reads.
            LOG.warn("system {} could not be looked at", system, e);
          } finally {
            signal.raise();
            looksUnderWay.decrementAndGet();
          }
        });
  }

  /** A person wants to know how it is now. */
  void lookAgain(IncidentRow row) {
    IncidentKey key = IncidentKey.parse(row.cause());
    systemsOf(key).forEach(health::lookAt);
    boolean unused = freshlyLooked.add(row.cause());
    signal.raise();
  }

  @Override
  public KeptThread thread() {
    return thread;
  }

  @Override
  public void stop() {
    looking.shutdown();
    WithThread.super.stop();
  }
}
