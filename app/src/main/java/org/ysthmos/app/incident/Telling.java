package org.ysthmos.app.incident;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.Settings;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.incident.AlarmPlan;
import org.ysthmos.core.incident.AlarmText;

/**
 * Tells people of incidents: once of each opening, by the first way that works, and of all that
 * opened meanwhile together, so that there is one message in each quiet time at most. A kill
 * between sending and writing that down may make one message twice; it never makes one too few.
 */
@Component
class Telling {

  private static final Logger LOG = LoggerFactory.getLogger(Telling.class);

  /** What is over by itself within this time is not told of. */
  private static final Duration GRACE = Duration.ofMinutes(1);

  /** What tries again after nobody could be told. */
  private static final BackOff AGAIN =
      new BackOff(Duration.ofMinutes(1), Duration.ofHours(1), Integer.MAX_VALUE);

  private final IncidentBook book;
  private final IncidentViews views;
  private final Alarms alarms;
  private final Systems systems;
  private final AppClock clock;
  private final String address;
  private final ExecutorService sender =
      Executors.newSingleThreadExecutor(Thread.ofPlatform().name("alarms").daemon().factory());
  private final AtomicBoolean underWay = new AtomicBoolean();
  private volatile Optional<String> problem = Optional.empty();
  private volatile Instant notBefore = Instant.MIN;
  private volatile Instant setAt = Instant.MIN;

  /** How often in a row nobody could be told; only the sender counts. */
  private int failures;

  Telling(
      IncidentBook book,
      IncidentViews views,
      Alarms alarms,
      Systems systems,
      AppClock clock,
      Settings settings) {
    this.book = book;
    this.views = views;
    this.alarms = alarms;
    this.systems = systems;
    this.clock = clock;
    this.address = settings.address().toString();
  }

  boolean isUnderWay() {
    return underWay.get();
  }

  /** Why nobody could be told of incidents; empty if all is told or will be. */
  Optional<String> problem() {
    return problem;
  }

  /** When somebody is to be told next; empty if there is nothing to tell, or nobody. */
  Optional<Instant> next() {
    if (alarms.document().isBlank()) {
      return Optional.empty();
    }
    return book.open().stream()
        .filter(IncidentRow::isUntold)
        .map(row -> row.openedAt().plus(GRACE))
        .min(Instant::compareTo)
        .map(at -> at.isBefore(waits()) ? waits() : at);
  }

  /** Until when nothing is told; a clock that was set back forgets it. */
  private Instant waits() {
    return setAt.isAfter(clock.instant()) ? Instant.MIN : notBefore;
  }

  private void waitUntil(Instant at) {
    setAt = clock.instant();
    notBefore = at;
  }

  /** Tells what is to be told by now, on a thread of its own; called whenever that may be so. */
  void goOn() {
    Instant now = clock.instant();
    Optional<Instant> next = next();
    if (next.isEmpty()) {
      // Of what nobody could be told is over, or nobody is to be told any more.
      problem = Optional.empty();
    }
    if (next.filter(at -> !at.isAfter(now)).isEmpty() || !underWay.compareAndSet(false, true)) {
      return;
    }
    sender.execute(
        () -> {
          try {
            tell(
                book.open().stream()
                    .filter(IncidentRow::isUntold)
                    .filter(row -> !row.openedAt().plus(GRACE).isAfter(now))
                    .toList());
          } catch (RuntimeException e) {
            LOG.error("nobody could be told of incidents", e);
            failed(String.valueOf(e.getMessage()));
          } finally {
            underWay.set(false);
          }
        });
  }

  private void tell(List<IncidentRow> rows) {
    AlarmPlan plan;
    try {
      plan = alarms.plan();
    } catch (DocumentException e) {
      failed("The document that says who is told cannot be used: " + e.getMessage());
      return;
    }
    List<AlarmText.Told> told = rows.stream().map(this::told).toList();
    List<String> problems = new ArrayList<>();
    for (AlarmPlan.Way way : plan.ways()) {
      Optional<String> refused =
          send(way, key(rows, way), AlarmText.headline(told), AlarmText.text(told));
      if (refused.isEmpty()) {
        String more = rows.size() > 1 ? ", with %d more".formatted(rows.size() - 1) : "";
        book.told(rows, "Told by a message in " + name(way) + more);
        problem = Optional.empty();
        failures = 0;
        waitUntil(clock.instant().plus(plan.quiet()));
        return;
      }
      problems.add(name(way) + ": " + refused.get());
    }
    if (!plan.ways().isEmpty()) {
      failed(String.join(" ", problems));
    }
  }

  private void failed(String why) {
    failures++;
    Failure nobody = Failure.of(FailureKind.UNREACHABLE, why);
    waitUntil(clock.instant().plus(AGAIN.after(failures, nobody).orElseThrow()));
    problem = Optional.of(why);
  }

  /** Tries every way with a message that says that it is a trial. */
  List<TrialOutcome> tryAll() {
    return alarms.plan().ways().stream()
        .map(
            way ->
                new TrialOutcome(
                    name(way),
                    send(
                            way,
                            UUID.randomUUID().toString(),
                            "A trial of Ysthmos",
                            "Who reads this would be told of incidents here. Nothing need be done.")
                        .orElse("")))
        .toList();
  }

  /**
   * What trying a way came to.
   *
   * @param way the system and its collection, as people call them
   * @param problem why it did not work; empty if it did
   */
  record TrialOutcome(String way, String problem) {}

  /** Sends a message; gives why it could not be sent. */
  private Optional<String> send(AlarmPlan.Way way, String key, String headline, String text) {
    Systems.Connected system = systems.find(way.system()).orElseThrow();
    Instant now = clock.instant();
    if (!system.breaker().take(now)) {
      return Optional.of("It does not answer just now.");
    }
    SystemCollection collection = systems.collection(way.system(), way.collection()).orElseThrow();
    EffectKind kind = collection.takesMessages() ? EffectKind.MESSAGE : EffectKind.CREATE;
    TaskGateway.Effect effect =
        new TaskGateway.Effect(
            way.collection(), kind, key, Optional.empty(), way.filled(headline, text));
    return switch (system.gateway().deliver(effect, record -> {}, call -> {})) {
      case TaskGateway.Delivered ignored -> {
        system.breaker().answered();
        yield Optional.empty();
      }
      case TaskGateway.Undelivered undelivered -> {
        system.note(undelivered.failure(), now);
        yield Optional.of(Words.sentence(undelivered.failure()));
      }
    };
  }

  /** The same for the same openings, so that a system that keeps keys makes one message of two. */
  private static String key(List<IncidentRow> rows, AlarmPlan.Way way) {
    StringBuilder of = new StringBuilder(way.system() + "/" + way.collection());
    rows.forEach(row -> of.append(' ').append(row.id()).append('.').append(row.cameBack()));
    return UUID.nameUUIDFromBytes(of.toString().getBytes(StandardCharsets.UTF_8)).toString();
  }

  private AlarmText.Told told(IncidentRow row) {
    Found.FindingView first = book.found(row).findings().getFirst();
    return new AlarmText.Told(
        row.headline(),
        first.sure(),
        first.speaksFor().isEmpty() ? "" : first.speaksFor().getFirst(),
        views.waits(row),
        first.todo(),
        address + "/incidents/" + row.id());
  }

  private String name(AlarmPlan.Way way) {
    return systems
        .collection(way.system(), way.collection())
        .map(one -> one.shape().systemName() + ", " + one.shape().name())
        .orElse(way.system() + "/" + way.collection());
  }
}
