package org.ysthmos.app.incident;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.incident.IncidentMapper.NewIncident;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;

/**
 * Incidents as they are kept: how each stands, and what happened about it, in order. What is seen
 * is not forced to the disk for its own sake: after a kill it would be seen again.
 */
@Component
public class IncidentBook {

  /** One that comes back within this time is the same one. Common practice, no source. */
  private static final Duration COMES_BACK = Duration.ofDays(7);

  private static final int LONGEST_NOTE = 1000;

  private final IncidentMapper mapper;
  private final EvidenceGathering evidence;
  private final ObjectMapper json;
  private final Journal journal;
  private final AppClock clock;

  IncidentBook(
      IncidentMapper mapper,
      EvidenceGathering evidence,
      ObjectMapper json,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.evidence = evidence;
    this.json = json;
    this.journal = journal;
    this.clock = clock;
  }

  /** Those that are not closed, in the order in which they first opened. */
  public List<IncidentRow> open() {
    return mapper.open();
  }

  /** Those that closed, the last first, before one by its place in the order of closing. */
  List<IncidentRow> closed(long before, int limit) {
    return mapper.closed(before, limit);
  }

  /**
   * @throws ApiProblem if there is none of this number
   */
  public IncidentRow get(long id) {
    IncidentRow row = mapper.find(id);
    if (row == null) {
      throw ApiProblem.notFound("incident", String.valueOf(id));
    }
    return row;
  }

  List<IncidentMapper.LineRow> lines(long id) {
    return mapper.lines(id);
  }

  Found found(IncidentRow row) {
    try {
      return json.readValue(row.found(), Found.class);
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException(
          "what was found of incident " + row.id() + " is unreadable", e);
    }
  }

  /** What is seen for the first time, or again; returns its row. */
  IncidentRow seen(Symptoms.Symptom symptom, Found found, Optional<Instant> since) {
    return journal.soon(() -> seenNow(symptom, found, since));
  }

  private IncidentRow seenNow(Symptoms.Symptom symptom, Found found, Optional<Instant> since) {
    Instant now = clock.instant();
    String cause = symptom.key().text();
    IncidentRow newest = mapper.newest(cause);
    // A clock that was ahead must not make it older than what it is about.
    Instant at = since.filter(one -> one.isBefore(now)).orElse(now);
    long id;
    if (newest != null && isTheSame(newest, now)) {
      id = newest.id();
      if (mapper.openAgain(id, at) == 1) {
        mapper.line(id, now, By.ENGINE.name(), "It came back: " + found.headline());
      }
      update(id, symptom, found);
    } else {
      NewIncident opened =
          new NewIncident(
              cause,
              at,
              Words.limited(found.headline(), 300),
              symptom.waiting(),
              bridges(symptom),
              write(found));
      mapper.add(opened);
      id = opened.id;
      mapper.line(id, at, By.ENGINE.name(), "Opened: " + found.headline());
    }
    return Objects.requireNonNull(mapper.find(id));
  }

  private static boolean isTheSame(IncidentRow row, Instant now) {
    Instant closed = row.closedAt();
    return closed == null || closed.isAfter(now.minus(COMES_BACK));
  }

  /** What is seen of one that is open is otherwise than before. */
  void changed(IncidentRow row, Symptoms.Symptom symptom, Found found) {
    journal.runSoon(
        () -> {
          Instant now = clock.instant();
          if (!row.headline().equals(Words.limited(found.headline(), 300))) {
            String words = "It looks otherwise by now: " + found.headline();
            mapper.line(row.id(), now, By.ENGINE.name(), Words.limited(words, LONGEST_NOTE));
          }
          List<String> more = new ArrayList<>(symptom.bridges());
          more.removeAll(bridges(row));
          if (!more.isEmpty()) {
            String names = String.join(", ", more.stream().map(evidence::name).toList());
            String words = "It concerns more bridges: " + names;
            mapper.line(row.id(), now, By.ENGINE.name(), Words.limited(words, LONGEST_NOTE));
          }
          update(row.id(), symptom, found);
        });
  }

  private void update(long id, Symptoms.Symptom symptom, Found found) {
    mapper.update(
        id,
        Words.limited(found.headline(), 300),
        symptom.waiting(),
        bridges(symptom),
        write(found));
  }

  /** Nothing of it is seen any more. */
  void gone(IncidentRow row) {
    journal.runSoon(
        () -> {
          Instant now = clock.instant();
          if (mapper.close(row.id(), now) == 1) {
            mapper.line(
                row.id(), now, By.ENGINE.name(), "Closed by itself: nothing of it waits any more");
          }
        });
  }

  /**
   * A person says that they are at it.
   *
   * @throws ApiProblem if somebody else is, or it is closed
   */
  void mend(long id, String note, By by) {
    String words = note.isBlank() ? "Being mended" : "Being mended: " + checked(note);
    journal.run(
        () -> {
          if (mapper.mend(id, by.name(), clock.instant()) == 0) {
            IncidentRow row = get(id);
            throw new ApiProblem(
                HttpStatus.CONFLICT,
                row.state() == IncidentState.CLOSED ? "Closed by now" : "Somebody is at it",
                row.state() == IncidentState.CLOSED
                    ? "Nothing of this incident waits any more, so that there is nothing to mend."
                    : "A %s is mending this already. Write a note, or let them leave it first."
                        .formatted(row.mendedBy()));
          }
          mapper.line(id, clock.instant(), by.name(), words);
        });
  }

  /** Whoever was at it is not any more. */
  void leave(long id, By by) {
    journal.run(
        () -> {
          if (mapper.leave(id) == 1) {
            mapper.line(id, clock.instant(), by.name(), "Not being mended any more");
          }
        });
  }

  /** Writes something down about it. */
  void note(long id, String note, By by) {
    if (note.isBlank()) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "Nothing written", "Write what others should know.");
    }
    String words = checked(note);
    journal.run(
        () -> {
          IncidentRow unused = get(id);
          mapper.line(id, clock.instant(), by.name(), words);
        });
  }

  /** Something else happened about it; inside a change. */
  public void happened(long id, String words, By by) {
    mapper.line(id, clock.instant(), by.name(), Words.limited(words, LONGEST_NOTE));
  }

  /** People were told of these as they stand. */
  void told(List<IncidentRow> rows, String how) {
    journal.run(
        () ->
            rows.forEach(
                row -> {
                  mapper.told(row.id(), row.cameBack() + 1);
                  mapper.line(row.id(), clock.instant(), By.ENGINE.name(), how);
                }));
  }

  private static String checked(String note) {
    String words = note.strip();
    if (words.length() > LONGEST_NOTE - 20) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Too long",
          "A note may have at most %d characters, this one has %d."
              .formatted(LONGEST_NOTE - 20, words.length()));
    }
    return words;
  }

  /** The ids of the bridges that an incident concerns. */
  public static List<String> bridges(IncidentRow row) {
    return row.bridges().isEmpty() ? List.of() : Arrays.asList(row.bridges().split(","));
  }

  private static String bridges(Symptoms.Symptom symptom) {
    // As many as have room; the page counts them all from what failed.
    String all = "";
    for (String bridge : symptom.bridges()) {
      String more = all.isEmpty() ? bridge : all + "," + bridge;
      if (more.length() > 2000) {
        break;
      }
      all = more;
    }
    return all;
  }

  private String write(Found found) {
    try {
      return json.writeValueAsString(found);
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException("what was found cannot be written", e);
    }
  }
}
