package org.ysthmos.app.recall;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.RecallMapper.CountRow;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.recall.RecallMapper.RecallRow;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.recall.RecallWay;

/** What a person does about a recall. What goes on by itself is {@link RecallFeeder}'s. */
@Component
class Recalls {

  /** How long it is told that one broke off. */
  private static final Duration TOLD = Duration.ofDays(1);

  private final RecallMapper mapper;
  private final DeliveryQueue queue;
  private final IncidentBook incidents;
  private final Journal journal;
  private final AppClock clock;

  Recalls(
      RecallMapper mapper,
      DeliveryQueue queue,
      IncidentBook incidents,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.queue = queue;
    this.incidents = incidents;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * @throws ApiProblem if there is none of this number
   */
  RecallRow get(long id) {
    RecallRow row = mapper.find(id);
    if (row == null) {
      throw ApiProblem.notFound("recall", String.valueOf(id));
    }
    return row;
  }

  /** Says of a record of a list whether it goes; one that somebody changed goes all the same. */
  void choose(long id, long delivery, boolean chosen) {
    journal.run(
        () -> {
          require(get(id), RecallState.LISTED);
          ItemRow item = mapper.item(id, delivery);
          if (item == null) {
            throw ApiProblem.notFound("record of this list", String.valueOf(delivery));
          }
          boolean touched = item.looked() == Looked.CHANGED || item.looked() == Looked.UNKNOWN;
          if (mapper.choose(id, delivery, chosen, chosen && touched) == 0) {
            throw refused("Nothing to choose", "Nothing can be done about this one here.");
          }
        });
  }

  /**
   * Begins to take back what is chosen.
   *
   * @param expected how many a person saw that there are
   * @param evenIfChanged whether what somebody changed, or changes until then, goes all the same
   */
  void begin(long id, int expected, boolean evenIfChanged, By by) {
    journal.run(
        () -> {
          if (evenIfChanged) {
            mapper.allEvenIfChanged(id);
          }
          beginNow(id, expected, by);
        });
  }

  /** Begins inside a change. */
  void beginNow(long id, int expected, By by) {
    RecallRow recall = get(id);
    require(recall, RecallState.LISTED);
    int there = chosen(id);
    if (there != expected || there == 0) {
      throw refused(
          "Others by now",
          "%,d are to go by now, not %,d. Look once more, then begin.".formatted(there, expected));
    }
    change(recall, RecallState.RUNNING);
    tell(recall, "Taking back %,d of what was made".formatted(there), by);
  }

  private int chosen(long id) {
    return mapper.counts(id).stream()
        .filter(one -> one.state() == ItemState.WAITING && one.chosen())
        .filter(one -> one.way() != RecallWay.NAME)
        .mapToInt(CountRow::items)
        .sum();
  }

  /** Stops; what is being sent just now goes its way, the rest stays. */
  void stop(long id, By by) {
    journal.run(
        () -> {
          RecallRow recall = get(id);
          if (mapper.end(id, RecallState.STOPPED, null, clock.instant()) == 0) {
            throw refused("Not under way", "This has ended already.");
          }
          for (ItemRow item : mapper.inState(id, ItemState.UNDER_WAY, Long.MAX_VALUE, 1000)) {
            if (queue.withdraw(Objects.requireNonNull(item.removal()))) {
              mapper.put(id, item.deliverySeq(), ItemState.WAITING, null, "");
            }
          }
          tell(recall, "Taking back was stopped", by);
        });
  }

  /** Goes on with what a stop left, and tries once more what could not be taken back. */
  void goOn(long id, By by) {
    journal.run(
        () -> {
          RecallRow recall = get(id);
          if (recall.state() != RecallState.STOPPED) {
            require(recall, RecallState.ENDED);
          }
          int again = mapper.onceMore(id);
          if (again == 0 && chosen(id) == 0) {
            throw refused("Nothing left", "Nothing is left of this that could be taken back.");
          }
          change(recall, RecallState.RUNNING);
          tell(recall, "Taking back goes on", by);
        });
  }

  /** What was taken back is made again, by sending again the events that it came of. */
  void makeAgain(long id, By by) {
    journal.run(
        () -> {
          RecallRow recall = get(id);
          if (recall.state() != RecallState.STOPPED) {
            require(recall, RecallState.ENDED);
          }
          if (mapper.inState(id, ItemState.TAKEN_BACK, Long.MAX_VALUE, 1).isEmpty()) {
            throw refused("Nothing to make", "Nothing of this was taken back.");
          }
          change(recall, RecallState.MAKING_AGAIN);
          tell(recall, "What was taken back is made again", by);
        });
  }

  private void change(RecallRow recall, RecallState to) {
    if (mapper.begin(recall.id(), recall.state(), to, clock.instant()) == 0) {
      throw new IllegalStateException("a recall that was read in a change is otherwise in it");
    }
  }

  private void tell(RecallRow recall, String words, By by) {
    if (recall.incidentId() != null) {
      incidents.happened(recall.incidentId(), words, by);
    }
  }

  private static void require(RecallRow recall, RecallState state) {
    Map<RecallState, String> words =
        Map.of(
            RecallState.LISTING, "It is still being listed.",
            RecallState.LISTED, "It has not begun.",
            RecallState.RUNNING, "It is under way.",
            RecallState.STOPPED, "It was stopped.",
            RecallState.ENDED, "It has ended.",
            RecallState.MAKING_AGAIN, "What was taken back is being made again.",
            RecallState.MADE_AGAIN, "What was taken back was made again.");
    if (recall.state() != state) {
      throw refused("Not now", Objects.requireNonNull(words.get(recall.state())));
    }
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }

  /** Those that are under way, and those that broke off in the last day. */
  List<RecallRow> current() {
    return mapper.current(clock.instant().minus(TOLD));
  }

  /**
   * Those that were begun, the newest first.
   *
   * @param incident only those of this one; all if null
   */
  List<RecallRow> newest(@Nullable Long incident) {
    return incident == null ? mapper.newest() : mapper.ofIncident(incident);
  }
}
