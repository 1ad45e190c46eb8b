package org.ysthmos.app.resend;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.resend.ResendMapper.MeantRow;
import org.ysthmos.app.resend.ResendMapper.NewResend;
import org.ysthmos.app.resend.ResendMapper.ResendRow;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.CarriedBy;
import org.ysthmos.app.trace.Resender;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.core.failure.FailureKind;

/**
 * Sends again together what waits of one incident, or what a person chose, in the order in which it
 * came. Some are sent in one change with how far it is, so that a kill at any moment sends none
 * twice and none never, and the next start goes on. What fails once more waits for a person as any
 * failure does, and is not sent by the same wish again.
 */
@Component
class Resends {

  private static final Logger LOG = LoggerFactory.getLogger(Resends.class);

  /** How long what was sent again is told of. */
  private static final Duration TOLD = Duration.ofHours(12);

  /** More are not looked through by anybody. */
  private static final int MOST_CHOSEN = 500;

  private final ResendMapper mapper;
  private final TraceMapper traces;
  private final Resender resender;
  private final IncidentBook incidents;
  private final Journal journal;
  private final DiskRoom room;
  private final AppClock clock;
  private final LiveFeed feed;

  Resends(
      ResendMapper mapper,
      TraceMapper traces,
      Resender resender,
      IncidentBook incidents,
      Journal journal,
      DiskRoom room,
      AppClock clock,
      LiveFeed feed) {
    this.mapper = mapper;
    this.traces = traces;
    this.resender = resender;
    this.incidents = incidents;
    this.journal = journal;
    this.room = room;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * Begins to send again what waits of an incident now. What nobody knows of whether it was made is
   * left out: each of those is looked for by a person first.
   *
   * @param expected how many a person saw that there are
   * @throws ApiProblem if there are others by now, or if they are being sent already
   */
  ResendRow begin(long incident, int expected, CarriedBy rules, By by) {
    IncidentRow row = incidents.get(incident);
    return begun(journal.now(() -> beginNow(row, expected, rules, by)));
  }

  private ResendRow begun(long id) {
    return Objects.requireNonNull(mapper.find(id), "what was begun is gone");
  }

  private long beginNow(IncidentRow incident, int expected, CarriedBy rules, By by) {
    if (mapper.runningOf(incident.cause()) > 0) {
      throw refused("Under way", "These are being sent again already.");
    }
    MeantRow meant = mapper.meant(incident.cause());
    Long newest = meant.newest();
    if (newest == null || meant.traces() != expected) {
      throw refused(
          "Others by now",
          "%d wait by now, not %d. Look once more, then send them again."
              .formatted(meant.traces(), expected));
    }
    NewResend begun =
        new NewResend(
            incident,
            incident.headline(),
            newest,
            meant.traces(),
            rules,
            by.name(),
            clock.instant());
    mapper.begin(begun);
    incidents.happened(incident.id(), "Sending %d again".formatted(meant.traces()), by);
    return begun.id;
  }

  /**
   * Begins to send again what a person chose.
   *
   * @param chosen the ids of traces; what cannot be sent again together is left out
   * @param expected how many a person saw that can
   * @throws ApiProblem if there are others by now, none, or too many
   */
  ResendRow begin(List<String> chosen, int expected, CarriedBy rules, By by) {
    List<TraceRow> rows = chosen(chosen).stream().filter(row -> obstacle(row).isEmpty()).toList();
    if (rows.isEmpty() || rows.size() != expected) {
      throw refused(
          "Others by now",
          "%d of these can be sent again by now, not %d. Look once more, then send them again."
              .formatted(rows.size(), expected));
    }
    return begun(
        journal.now(
            () -> {
              NewResend begun =
                  new NewResend(
                      null,
                      rows.size() == 1 ? "One that was chosen" : rows.size() + " that were chosen",
                      rows.getLast().seq(),
                      rows.size(),
                      rules,
                      by.name(),
                      clock.instant());
              mapper.begin(begun);
              rows.forEach(row -> mapper.choose(begun.id, row.seq()));
              return begun.id;
            }));
  }

  /**
   * Those of these ids, in the order in which they began.
   *
   * @throws ApiProblem if they are too many
   */
  List<TraceRow> chosen(List<String> ids) {
    if (ids.size() > MOST_CHOSEN) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Too many",
          "At most %d can be chosen at once; these are %d.".formatted(MOST_CHOSEN, ids.size()));
    }
    return ids.isEmpty() ? List.of() : traces.named(ids);
  }

  /** Why a trace is not sent again with others; empty if it is. */
  static Optional<String> obstacle(TraceRow trace) {
    return Resender.obstacle(trace)
        .map(Resender.Obstacle::words)
        .or(
            () ->
                trace.failureKind() == FailureKind.ANSWER_UNKNOWN
                    ? Optional.of(
                        "Nobody knows whether it was made. Look there, then send it again alone.")
                    : Optional.empty());
  }

  /** Stops; what was sent goes its way, the rest waits as before. */
  void stop(long id) {
    if (journal.now(() -> mapper.end(id, ResendState.STOPPED, null, clock.instant())) == 0) {
      throw refused("Not under way", "This has ended already.");
    }
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }

  /** Sends some of each that runs. */
  @Scheduled(fixedDelay = 250)
  void goOn() {
    if (!room.isEnough()) {
      return;
    }
    for (ResendRow resend : mapper.running()) {
      try {
        if (journal.now(() -> sendSome(resend.id()))) {
          resender.raise();
        }
      } catch (RuntimeException e) {
        LOG.error("“{}” cannot be sent again together", resend.title(), e);
        String problem = Words.limited(String.valueOf(e.getMessage()), 1000);
        journal.run(() -> mapper.end(resend.id(), ResendState.BROKEN, problem, clock.instant()));
      }
      feed.changed("", "");
    }
  }

  /** In a change; whether anything was sent. */
  private boolean sendSome(long id) {
    ResendRow resend = mapper.find(id);
    if (resend == null || resend.state() != ResendState.RUNNING) {
      return false;
    }
    Long incident = resend.incidentId();
    List<Long> next = incident == null ? mapper.nextChosen(resend) : mapper.nextOfIncident(resend);
    if (next.isEmpty()) {
      mapper.end(id, ResendState.SENT, null, clock.instant());
      if (incident != null) {
        incidents.happened(incident, "All %d sent again".formatted(resend.sent()), By.ENGINE);
      }
      return false;
    }
    String words =
        "Sent again with %s, by a %s"
            .formatted(
                incident == null ? "others that were chosen" : "all that failed of this cause",
                resend.askedBy());
    List<Long> fresh = new ArrayList<>();
    for (TraceRow one : traces.of(next)) {
      // What was chosen may have been sent again by others meanwhile.
      if (Resender.obstacle(one).isEmpty()) {
        fresh.add(resender.begin(one.id(), name(resend), words, resend.rules()));
      }
    }
    Long first = fresh.isEmpty() ? null : Collections.min(fresh);
    Long last = fresh.isEmpty() ? null : Collections.max(fresh);
    mapper.progress(id, next.getLast(), fresh.size(), first, last);
    return true;
  }

  /** By which the traces are known that came of it; an incident looks for them by it, too. */
  private static String name(ResendRow resend) {
    return "resend " + resend.id();
  }

  /** What was sent again of late, the newest first. */
  List<ResendRow> recent() {
    Instant since = clock.instant().minus(TOLD);
    return mapper.since(since);
  }

  /** What came of it so far. */
  List<ResendMapper.OutcomeRow> outcome(ResendRow resend) {
    return Optional.ofNullable(resend.firstNew())
        .map(first -> mapper.outcome(first, Objects.requireNonNull(resend.lastNew()), name(resend)))
        .orElse(List.of());
  }
}
