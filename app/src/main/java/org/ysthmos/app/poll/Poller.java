package org.ysthmos.app.poll;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.PollSpec;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.poll.PollMapper.NextRow;
import org.ysthmos.app.poll.PollMapper.PollRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.AheadWaits;
import org.ysthmos.app.work.ClaimLost;
import org.ysthmos.app.work.Claims;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WithStage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.app.work.WorkSource;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.Seen;

/**
 * Polls collections for what changed. A page is kept in one change with the place where reading
 * goes on, so a stop anywhere loses no change and takes none twice.
 */
@Component
class Poller implements WithStage, Polling, WorkSource<CollectionRef, PollRow> {

  private static final Logger LOG = LoggerFactory.getLogger(Poller.class);
  private static final int LONGEST_PROBLEM = 2_000;

  private final PollMapper polls;
  private final PollPlan plan;
  private final Systems systems;
  private final PageRows pageRows;
  private final IntakeWriter intake;
  private final AppClock clock;
  private final BackOff backOff;
  private final Claims claims;
  private final WorkSignals.Signal signal;
  private final Listeners listeners;
  private final Stage<CollectionRef, PollRow> stage;

  /** What is known to have a row. */
  private final Set<CollectionRef> followed = ConcurrentHashMap.newKeySet();

  Poller(
      PollMapper polls,
      PollPlan plan,
      Systems systems,
      PageRows pageRows,
      IntakeWriter intake,
      AppClock clock,
      Settings settings,
      Claims claims,
      WorkSignals signals) {
    this.signal = signals.toPoll();
    this.polls = polls;
    this.plan = plan;
    this.systems = systems;
    this.pageRows = pageRows;
    this.intake = intake;
    this.clock = clock;
    this.claims = claims;
    this.backOff = settings.retry().backOff();
    this.listeners = new Listeners(systems, place -> now(place.system(), place.collection()));
    this.stage = new Stage<>("poll", claims, signal, this, settings.work().drain());
  }

  /** Begins to follow what was not followed, and takes back what nobody reads any more. */
  @Override
  public void wake(Set<String> running) {
    Instant now = clock.instant();
    polls.takeBack(now, claims.longest(), running);
    Set<CollectionRef> places = plan.all().keySet();
    listeners.listenTo(places);
    if (followed.containsAll(places)) {
      return;
    }
    polls.all().forEach(row -> followed.add(row.ref()));
    for (CollectionRef place : places) {
      if (followed.add(place)) {
        polls.begin(place.system(), place.collection(), now, firstCursor(place, now));
        LOG.info("{}/{} is polled from now on", place.system(), place.collection());
      }
    }
  }

  /** Where a moment is the cursor, nothing from before is asked for at all. */
  private @Nullable String firstCursor(CollectionRef place, Instant now) {
    return systems
        .collection(place.system(), place.collection())
        .flatMap(SystemCollection::polled)
        .filter(PollSpec::byMoment)
        .map(asked -> now.toString())
        .orElse(null);
  }

  /** What is due; the others are not looked at, however many they are. */
  @Override
  public Collection<CollectionRef> queues() {
    Map<CollectionRef, Duration> planned = plan.all();
    return polls.idle().stream()
        .filter(row -> isDue(row, planned.get(row.ref())))
        .map(NextRow::ref)
        .toList();
  }

  /** Each collection is read by itself, so that none keeps another waiting. */
  @Override
  public Object group(CollectionRef place) {
    return place;
  }

  @Override
  public int room(CollectionRef place, int running) {
    boolean closed =
        systems
            .find(place.system())
            .filter(system -> !system.breaker().admits(clock.instant()))
            .isPresent();
    return running > 0 || closed ? 0 : 1;
  }

  @Override
  public List<PollRow> claim(CollectionRef place, int most) {
    if (polls.claim(place.system(), place.collection(), claims.next(), claims.until()) == 0) {
      return List.of();
    }
    return List.of(Objects.requireNonNull(polls.find(place.system(), place.collection())));
  }

  /**
   * Whether its time has come, or was set by a clock that was ahead.
   *
   * @param interval how often it is polled; null if it is not polled any more
   */
  private boolean isDue(NextRow row, @Nullable Duration interval) {
    if (interval == null) {
      return false;
    }
    Instant now = clock.instant();
    Instant rested = row.restedAt();
    if (rested == null || !row.nextAt().isAfter(now) || AheadWaits.isAhead(rested, now)) {
      return true;
    }
    // The interval may be shorter by now than when it rested; what failed waits for its own time.
    return row.tries() == 0 && !rested.plus(interval).isAfter(now);
  }

  @Override
  public String claimOf(PollRow piece) {
    return String.valueOf(piece.claim());
  }

  @Override
  public void renew(Collection<String> held) {
    polls.renew(held, claims.until());
  }

  /** What broke here stands on Systems and is tried again later, like any failure. */
  @Override
  public void giveBack(PollRow poll, Throwable why) {
    failed(
        poll,
        Failure.of(FailureKind.BROKE_HERE, "Reading it broke here (%s)".formatted(why))
            .withRemedy("The log of the application says more"));
  }

  /** Polls at once, whatever the interval says; false if the collection is not polled at all. */
  @Override
  public boolean now(String system, String collection) {
    boolean polled = polls.now(system, collection, clock.instant()) == 1;
    signal.raise();
    return polled;
  }

  @Override
  public boolean wasThrough(String system, String collection, Instant since) {
    return Optional.ofNullable(polls.find(system, collection))
        .filter(row -> row.state() == PollState.IDLE && row.progress().atRest())
        .map(PollRow::askedAt)
        .filter(asked -> asked.isAfter(since))
        .isPresent();
  }

  @Override
  public boolean isUnderWay() {
    // What is claimed between the two looks counts in the second.
    return !followed.containsAll(plan.all().keySet()) || !queues().isEmpty() || polls.reading() > 0;
  }

  /** Reads to the end of the pass, or until something is in the way. */
  @Override
  public void work(PollRow claimed) {
    PollRow row = claimed;
    SeenItems seen = new SeenItems(polls, row.ref());
    List<Failure> troubles = new ArrayList<>();
    do {
      Optional<Systems.Connected> system = systems.find(row.systemId());
      Optional<SystemCollection> collection =
          systems.collection(row.systemId(), row.collectionId());
      if (system.isEmpty() || collection.isEmpty()) {
        break;
      }
      switch (system
          .get()
          .gateway()
          .changes(row.collectionId(), row.progress().cursor().having(seen), call -> {})) {
        case NotRead notRead -> {
          system.get().note(notRead.failure(), clock.instant());
          failed(row, notRead.failure());
          return;
        }
        case Page page -> {
          system.get().breaker().answered();
          troubles.addAll(page.troubles());
          row = keep(row, system.get(), collection.get(), page, seen);
        }
      }
    } while (stage.isRunning() && !row.progress().atRest());
    // A pass that a stop breaks off goes on at the next start, not an interval later.
    boolean through = row.progress().atRest();
    if (through) {
      tell(row, troubles);
    }
    rest(row, through ? interval(row.ref()) : Duration.ZERO);
  }

  private PollRow keep(
      PollRow row,
      Systems.Connected system,
      SystemCollection collection,
      Page page,
      SeenItems seen) {
    Instant now = clock.instant();
    Page keepable = PageRows.keepable(system.description().name(), page);
    boolean shifting = collection.polled().filter(PollSpec::shifting).isPresent();
    PollRow[] after = {row};
    intake.keepPage(
        pageRows.of(row, collection, keepable, seen, now),
        kept -> {
          int fresh = (int) kept.stream().filter(one -> !one.known()).count();
          after[0] = row.with(row.progress().after(page, fresh, shifting)).asked(now);
          if (polls.progress(after[0]) == 0) {
            throw new ClaimLost(row.systemId() + "/" + row.collectionId());
          }
          for (String readable : seen.meet(page)) {
            intake.readable(row.systemId(), row.collectionId(), readable);
          }
        });
    return after[0];
  }

  /** What is in the way of a part stands on the screens until a pass without it. */
  private void tell(PollRow row, List<Failure> troubles) {
    if (troubles.isEmpty() && row.problem() == null) {
      return;
    }
    String problem =
        troubles.isEmpty()
            ? null
            : Words.limited(
                troubles.stream().map(Words::sentence).distinct().collect(Collectors.joining(" ")),
                LONGEST_PROBLEM);
    polls.trouble(row.systemId(), row.collectionId(), claimOf(row), problem, clock.instant());
  }

  /** Lets what could not be read be read again, and polls at once. */
  @Override
  public boolean readAgain(String system, String collection, String item) {
    String state = Seen.AGAIN + claims.next();
    return polls.again(system, collection, item, state) == 1 && now(system, collection);
  }

  private void failed(PollRow row, Failure failure) {
    if (failure.noRoom()) {
      rest(row, failure.retryAfter().orElseGet(() -> interval(row.ref())));
      return;
    }
    int tries = row.tries() + 1;
    Duration wait =
        backOff.after(tries, failure).or(failure::retryAfter).orElseGet(() -> interval(row.ref()));
    LOG.warn("{}/{} could not be read: {}", row.systemId(), row.collectionId(), failure.message());
    Instant now = clock.instant();
    polls.failed(
        row.systemId(),
        row.collectionId(),
        claimOf(row),
        now.plus(wait),
        tries,
        Words.limited(Words.sentence(failure), LONGEST_PROBLEM),
        now);
  }

  private Duration interval(CollectionRef place) {
    Map<CollectionRef, Duration> all = plan.all();
    return all.getOrDefault(place, Duration.ofMinutes(5));
  }

  private void rest(PollRow row, Duration wait) {
    Instant now = clock.instant();
    polls.rest(row.systemId(), row.collectionId(), claimOf(row), now.plus(wait), now);
  }

  @Override
  public Stage<?, ?> stage() {
    return stage;
  }

  @Override
  public void stop() {
    stage.stop();
    listeners.close();
  }
}
