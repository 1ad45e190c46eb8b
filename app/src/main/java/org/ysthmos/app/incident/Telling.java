package org.ysthmos.app.incident;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.stereotype.Component;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.Errand;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.incident.AlarmPlan;
import org.ysthmos.core.incident.AlarmText;

/**
 * Tells people of incidents: once of each opening, by the first way that works, and of all that
 * opened meanwhile together, so that there is one message in each quiet time at most. A kill
 * between sending and writing that down may make one message twice; it never makes one too few.
 */
@Component
class Telling {

  /** What is over by itself within this time is not told of. */
  private static final Duration GRACE = Duration.ofMinutes(1);

  /** What tries again after nobody could be told. */
  private static final BackOff AGAIN =
      new BackOff(Duration.ofMinutes(1), Duration.ofHours(1), Integer.MAX_VALUE);

  private final IncidentBook book;
  private final Alarms alarms;
  private final Messages messages;
  private final AppClock clock;
  private final Errand sending = new Errand("alarms");
  private volatile Optional<String> problem = Optional.empty();
  private volatile Instant notBefore = Instant.MIN;
  private volatile Instant setAt = Instant.MIN;

  /** How often in a row nobody could be told; only the sender counts. */
  private final AtomicInteger failures = new AtomicInteger();

  Telling(IncidentBook book, Alarms alarms, Messages messages, AppClock clock) {
    this.book = book;
    this.alarms = alarms;
    this.messages = messages;
    this.clock = clock;
  }

  boolean isUnderWay() {
    return sending.isUnderWay();
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

  /** Who is told is other than it was: what nobody could be told is tried with that at once. */
  void waitNoMore() {
    if (failures.get() > 0) {
      notBefore = Instant.MIN;
    }
  }

  /** Tells what is to be told by now, on a thread of its own; called whenever that may be so. */
  void goOn() {
    Instant now = clock.instant();
    Optional<Instant> next = next();
    if (next.isEmpty()) {
      // Of what nobody could be told is over, or nobody is to be told any more.
      problem = Optional.empty();
    }
    if (next.filter(at -> !at.isAfter(now)).isPresent()) {
      sending.begin(
          () ->
              tell(
                  book.open().stream()
                      .filter(IncidentRow::isUntold)
                      .filter(row -> !row.openedAt().plus(GRACE).isAfter(now))
                      .toList()),
          this::failed);
    }
  }

  private void tell(List<IncidentRow> rows) {
    AlarmPlan plan;
    try {
      plan = alarms.plan();
    } catch (DocumentException e) {
      failed("The document that says who is told cannot be used: " + e.getMessage());
      return;
    }
    List<AlarmText.Told> told = rows.stream().map(messages::told).toList();
    Messages.Said said =
        messages.say(plan, way -> key(rows, way), AlarmText.headline(told), AlarmText.text(told));
    if (said.way().isPresent()) {
      String more = rows.size() > 1 ? ", with %d more".formatted(rows.size() - 1) : "";
      book.told(rows, "Told by a message in " + said.way().get() + more);
      problem = Optional.empty();
      failures.set(0);
      waitUntil(clock.instant().plus(plan.quiet()));
    } else if (!plan.ways().isEmpty()) {
      failed(said.problems());
    }
  }

  private void failed(String why) {
    Failure nobody = Failure.of(FailureKind.UNREACHABLE, why);
    waitUntil(clock.instant().plus(AGAIN.after(failures.incrementAndGet(), nobody).orElseThrow()));
    problem = Optional.of(why);
  }

  /** The same for the same openings, so that a system that keeps keys makes one message of two. */
  private static String key(List<IncidentRow> rows, AlarmPlan.Way way) {
    StringBuilder of = new StringBuilder(way.system() + "/" + way.collection());
    rows.forEach(row -> of.append(' ').append(row.id()).append('.').append(row.cameBack()));
    return UUID.nameUUIDFromBytes(of.toString().getBytes(StandardCharsets.UTF_8)).toString();
  }
}
