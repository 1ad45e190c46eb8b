package org.ysthmos.app.poll;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.Asked;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.poll.PollMapper.PollRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.time.Ids;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.Stage;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.poll.PollProgress;

/**
 * Asks collections what changed. A page is kept in one transaction with the place where reading
 * goes on, so a stop anywhere loses no change and takes none twice.
 */
@Component
class Poller implements SmartLifecycle, Asking {

  private static final Logger LOG = LoggerFactory.getLogger(Poller.class);
  private static final int READERS = 4;
  private static final int LONGEST_PROBLEM = 2_000;

  private final PollMapper polls;
  private final PollPlan plan;
  private final Systems systems;
  private final EventMapper events;
  private final IntakeWriter intake;
  private final AppClock clock;
  private final BackOff backOff;
  private final WorkSignals.Signal signal;
  private final Listeners listeners;
  private final Stage<PollRow> stage;

  Poller(
      PollMapper polls,
      PollPlan plan,
      Systems systems,
      EventMapper events,
      IntakeWriter intake,
      AppClock clock,
      Settings settings,
      WorkSignals signals) {
    this.signal = signals.toAsk();
    this.polls = polls;
    this.plan = plan;
    this.systems = systems;
    this.events = events;
    this.intake = intake;
    this.clock = clock;
    this.backOff = settings.retry().backOff();
    this.listeners = new Listeners(systems, place -> now(place.system(), place.collection()));
    this.stage =
        new Stage<>(
            "poll",
            READERS,
            signal,
            limit -> due(),
            poll -> polls.claim(poll) == 1,
            this::read,
            poll -> rest(poll, clock.instant().plusSeconds(5)));
  }

  private List<PollRow> due() {
    Instant now = clock.instant();
    List<PollRow> due = new ArrayList<>();
    Set<PollPlan.Place> places = plan.all().keySet();
    listeners.listenTo(places);
    for (PollPlan.Place place : places) {
      PollRow row = polls.find(place.system(), place.collection());
      if (row == null) {
        polls.begin(place.system(), place.collection(), now, firstMark(place, now));
        LOG.info("{}/{} is asked for changes from now on", place.system(), place.collection());
      } else if (row.state().equals("idle") && !row.nextAt().isAfter(now)) {
        due.add(row);
      }
    }
    return due;
  }

  /** Where a moment is the mark, nothing from before is asked for at all. */
  private @Nullable String firstMark(PollPlan.Place place, Instant now) {
    return systems
        .collection(place.system(), place.collection())
        .flatMap(SystemCollection::asked)
        .filter(Asked::byMoment)
        .map(asked -> now.toString())
        .orElse(null);
  }

  /** Asks at once, whatever the interval says; false if the collection is not asked at all. */
  @Override
  public boolean now(String system, String collection) {
    boolean asked = polls.now(system, collection, clock.instant()) == 1;
    signal.raise();
    return asked;
  }

  @Override
  public boolean underWay() {
    Instant now = clock.instant();
    return plan.all().keySet().stream()
        .map(place -> polls.find(place.system(), place.collection()))
        .anyMatch(
            row -> row == null || row.state().equals("reading") || !row.nextAt().isAfter(now));
  }

  /** Reads to the end of the pass, or until something is in the way. */
  private void read(PollRow claimed) {
    PollRow row = claimed;
    try {
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
            .changes(row.collectionId(), row.progress().place(), call -> {})) {
          case NotRead notRead -> {
            failed(row, notRead.failure());
            return;
          }
          case Page page -> {
            Optional<Failure> unkept = Keepable.problem(system.get().description().name(), page);
            if (unkept.isPresent()) {
              failed(row, unkept.get());
              return;
            }
            row = keep(row, collection.get(), page);
          }
        }
      } while (stage.isRunning() && !row.progress().atRest());
      // A pass that a stop breaks off goes on at the next start, not an interval later.
      boolean through = row.progress().atRest();
      rest(row, clock.instant().plus(through ? interval(row) : Duration.ZERO));
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    } catch (ExecutionException e) {
      throw new IllegalStateException("a page of changes could not be kept", e.getCause());
    }
  }

  private PollRow keep(PollRow row, SystemCollection collection, Page page)
      throws InterruptedException, ExecutionException {
    Instant now = clock.instant();
    boolean shifting = collection.asked().filter(Asked::shifting).isPresent();
    List<EventRow> rows =
        page.records().stream()
            .filter(record -> PollProgress.counts(record, row.begunAt()))
            .map(record -> event(row, collection, record, now))
            .toList();
    PollRow[] after = {row};
    intake
        .keepAsked(
            rows,
            kept -> {
              int fresh = (int) kept.stream().filter(one -> !one.known()).count();
              after[0] = row.with(row.progress().after(page, fresh, shifting)).asked(now);
              polls.progress(after[0]);
            })
        .get();
    return after[0];
  }

  private EventRow event(PollRow row, SystemCollection collection, Changed record, Instant now) {
    boolean known = events.countOf(row.systemId(), row.collectionId(), record.id()) > 0;
    String kind = PollProgress.kind(record, row.begunAt(), known);
    return new EventRow(
        Ids.at(now),
        row.systemId(),
        PolledEvent.id(row.collectionId(), record.id(), record.version()),
        row.collectionId(),
        kind,
        record.id(),
        record.changed().orElse(now),
        now,
        PolledEvent.data(collection, record, kind).toString().getBytes(StandardCharsets.UTF_8),
        false);
  }

  private void failed(PollRow row, Failure failure) {
    if (failure.held()) {
      rest(row, clock.instant().plus(failure.retryAfter().orElseGet(() -> interval(row))));
      return;
    }
    int tries = row.tries() + 1;
    Duration wait =
        backOff.after(tries, failure).or(failure::retryAfter).orElseGet(() -> interval(row));
    LOG.warn("{}/{} could not be read: {}", row.systemId(), row.collectionId(), failure.message());
    polls.failed(
        row.systemId(),
        row.collectionId(),
        clock.instant().plus(wait),
        tries,
        Words.limited(Words.sentence(failure), LONGEST_PROBLEM));
  }

  private Duration interval(PollRow row) {
    Map<PollPlan.Place, Duration> all = plan.all();
    return all.getOrDefault(
        new PollPlan.Place(row.systemId(), row.collectionId()), Duration.ofMinutes(5));
  }

  private void rest(PollRow row, Instant next) {
    polls.rest(row.systemId(), row.collectionId(), next);
  }

  @Override
  public void start() {
    polls.releaseAll(clock.instant());
    stage.start();
  }

  @Override
  public void stop() {
    stage.stop();
    listeners.close();
  }

  @Override
  public boolean isRunning() {
    return stage.isRunning();
  }
}
