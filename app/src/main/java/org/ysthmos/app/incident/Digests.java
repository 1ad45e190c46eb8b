package org.ysthmos.app.incident;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.Errand;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.incident.AlarmPlan;
import org.ysthmos.core.incident.AlarmText;

/**
 * Tells once a day what is open and what closed since, by the first way that works. Where there is
 * nothing to tell, nothing is told. A kill between sending and writing that down may make one
 * twice.
 */
@Component
class Digests {

  private static final Logger LOG = LoggerFactory.getLogger(Digests.class);

  /** After how long a digest that could not be told is tried again, until the next is due. */
  private static final Duration AGAIN = Duration.ofMinutes(15);

  /** Of more that closed only the newest are named. */
  private static final int MOST_CLOSED = 200;

  /** What a document says of digests. */
  private record Read(String document, Optional<AlarmPlan.Digest> digest) {}

  private final IncidentBook book;
  private final Alarms alarms;
  private final Messages messages;
  private final AppClock clock;
  private final Errand sending = new Errand("digests");
  private volatile Read read = new Read("", Optional.empty());
  private volatile Optional<String> problem = Optional.empty();
  private volatile Instant notBefore = Instant.MIN;

  Digests(IncidentBook book, Alarms alarms, Messages messages, AppClock clock) {
    this.book = book;
    this.alarms = alarms;
    this.messages = messages;
    this.clock = clock;
  }

  boolean isUnderWay() {
    return sending.isUnderWay();
  }

  /** Why the last digest could not be told; empty if it was, or there was none. */
  Optional<String> problem() {
    return problem;
  }

  /** When the next is due, or was; empty if none is wanted. */
  Optional<Instant> next() {
    Instant now = clock.instant();
    return wanted()
        .map(
            digest -> {
              if (!isDue(digest, now)) {
                return digest.after(now);
              }
              Instant again = later(now, notBefore);
              return again.isAfter(now) ? again : digest.before(now);
            });
  }

  private static Instant later(Instant one, Instant other) {
    // A clock that was set back must not put it off for longer than it waits.
    boolean waits = other.isAfter(one) && other.isBefore(one.plus(AGAIN.multipliedBy(2)));
    return waits ? other : one;
  }

  /** Read once of each document, as it is asked for very often. */
  private Optional<AlarmPlan.Digest> wanted() {
    String document = alarms.document();
    Read known = read;
    if (!known.document().equals(document)) {
      known = new Read(document, digestOf());
      read = known;
    }
    return known.digest();
  }

  private Optional<AlarmPlan.Digest> digestOf() {
    try {
      return alarms.plan().digest();
    } catch (DocumentException e) {
      // Who tells of incidents says on Watch that the document cannot be used.
      LOG.debug("the document of alarms cannot be used", e);
      return Optional.empty();
    }
  }

  private boolean isDue(AlarmPlan.Digest digest, Instant now) {
    return alarms.digestedAt(now).isBefore(digest.before(now));
  }

  /** Tells what is to be told by now, on a thread of its own; called whenever that may be so. */
  void goOn() {
    Instant now = clock.instant();
    Optional<AlarmPlan.Digest> digest = wanted().filter(one -> isDue(one, now));
    if (digest.isEmpty()) {
      problem = Optional.empty();
      return;
    }
    if (!later(now, notBefore).isAfter(now)) {
      sending.begin(() -> tell(digest.get().before(now), now), why -> failed(why, now));
    }
  }

  /**
   * @param due when it was due, which tells one digest from another
   */
  private void tell(Instant due, Instant now) {
    Instant since = alarms.digestedAt(now);
    List<AlarmText.Told> open = book.open().stream().map(messages::told).toList();
    List<String> closed =
        book.closed(Long.MAX_VALUE, MOST_CLOSED).stream()
            .filter(row -> row.closedAt() != null && row.closedAt().isAfter(since))
            .map(IncidentMapper.IncidentRow::headline)
            .toList();
    if (open.isEmpty() && closed.isEmpty()) {
      alarms.digested(now);
      return;
    }
    Messages.Said said =
        messages.say(
            alarms.plan(),
            way -> key(way, due),
            AlarmText.digestHeadline(open.size(), closed.size()),
            AlarmText.digest(open, closed));
    if (said.way().isPresent()) {
      alarms.digested(now);
      problem = Optional.empty();
      notBefore = Instant.MIN;
    } else {
      failed(said.problems(), now);
    }
  }

  private void failed(String why, Instant now) {
    problem = Optional.of(why);
    notBefore = now.plus(AGAIN);
  }

  private static String key(AlarmPlan.Way way, Instant due) {
    String of = "digest %s/%s %s".formatted(way.system(), way.collection(), due);
    return UUID.nameUUIDFromBytes(of.getBytes(StandardCharsets.UTF_8)).toString();
  }
}
