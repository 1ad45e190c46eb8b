package org.ysthmos.app.rehearsal;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.desk.draft.Drafts;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.rehearsal.RehearsalMapper.NewRehearsal;
import org.ysthmos.app.rehearsal.RehearsalMapper.RehearsalRow;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.rehearsal.Rehearsal.Answers;

/** What is done about rehearsals. What goes on by itself is {@link RehearsalRunner}'s. */
@Component
class Rehearsals {

  /** Over so many events at most. */
  static final int MOST_EVENTS = 100_000;

  /** So many of a bridge are kept. */
  private static final int KEPT = 20;

  /**
   * What is to be rehearsed.
   *
   * @param version which version; empty for the draft
   * @param since from when on the events came; empty for all that are kept
   * @param until before when; empty for up to the newest
   */
  record Wish(
      Optional<Integer> version,
      Answers answers,
      Optional<Instant> since,
      Optional<Instant> until,
      int most) {}

  private final RehearsalMapper mapper;
  private final BridgeHistory history;
  private final Drafts drafts;
  private final Catalog catalog;
  private final Journal journal;
  private final AppClock clock;

  Rehearsals(
      RehearsalMapper mapper,
      BridgeHistory history,
      Drafts drafts,
      Catalog catalog,
      Journal journal,
      AppClock clock) {
    this.mapper = mapper;
    this.history = history;
    this.drafts = drafts;
    this.catalog = catalog;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * Begins one; it goes on by itself.
   *
   * @return its number
   * @throws ApiProblem if it cannot be rehearsed, or one of the bridge is under way
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  long begin(String bridge, Wish wish, By by) {
    if (wish.most() < 1 || wish.most() > MOST_EVENTS) {
      throw refused(
          HttpStatus.BAD_REQUEST,
          "How many",
          "A rehearsal goes over 1 to %,d events.".formatted(MOST_EVENTS));
    }
    if (wish.since().isPresent()
        && wish.until().isPresent()
        && !wish.until().get().isAfter(wish.since().get())) {
      throw refused(HttpStatus.BAD_REQUEST, "No span", "Its end is not after its beginning.");
    }
    String document =
        wish.version()
            .map(number -> document(bridge, number))
            .orElseGet(() -> drafts.find(bridge).document());
    BridgeVersion compiled = BridgeCompiler.compile(document, wish.version().orElse(1), catalog);
    if (compiled.between().isPresent()) {
      throw refused(
          HttpStatus.CONFLICT,
          "It goes both ways",
          "A bridge that goes both ways is not rehearsed: what both sides held then is not kept."
              + " Its proof sheet shows what it makes of its pairs as they are.");
    }
    NewRehearsal begun =
        new NewRehearsal(
            bridge,
            wish.version().orElse(null),
            document,
            wish.answers(),
            wish.since().orElse(null),
            wish.until().orElse(null),
            wish.most(),
            by.name(),
            clock.instant());
    journal.run(
        () -> {
          if (mapper.ofBridge(bridge, 1).stream()
              .anyMatch(row -> row.state() == RehearsalState.RUNNING)) {
            throw refused(
                HttpStatus.CONFLICT,
                "Under way",
                "One of this bridge is under way. Stop it, or wait until it has ended.");
          }
          mapper.begin(begun);
          // One that was stopped may have been answered a last time after it.
          int unused = mapper.forgetAnswers();
          if (mapper.forgetOld(bridge, KEPT) > 0) {
            int unusedToo = mapper.forgetDifferences();
          }
        });
    return begun.id;
  }

  /** The draft of a bridge as it is now; empty if there is none. */
  Optional<String> draft(String bridge) {
    return drafts.kept(bridge).map(Drafts.Draft::document);
  }

  private String document(String bridge, int number) {
    return history.versions(bridge).stream()
        .filter(version -> version.number() == number)
        .map(BridgeHistory.Kept::document)
        .findFirst()
        .orElseThrow(() -> ApiProblem.notFound("version", bridge + " " + number));
  }

  /**
   * @throws ApiProblem if there is none of this number
   */
  RehearsalRow get(long id) {
    RehearsalRow row = mapper.find(id);
    if (row == null) {
      throw ApiProblem.notFound("rehearsal", String.valueOf(id));
    }
    return row;
  }

  /** Those of a bridge, the newest first. */
  List<RehearsalRow> ofBridge(String bridge) {
    return mapper.ofBridge(bridge, KEPT);
  }

  /** Stops it; what it came to so far is kept. */
  void stop(long id) {
    RehearsalRow row = get(id);
    if (!end(row, RehearsalState.STOPPED, null)) {
      throw refused(HttpStatus.CONFLICT, "Not under way", "This has ended already.");
    }
  }

  /** False if it has ended already. */
  boolean end(RehearsalRow row, RehearsalState state, @Nullable String problem) {
    return journal.now(
        () -> {
          boolean ended = mapper.end(row.id(), state, problem, clock.instant()) > 0;
          int unused = mapper.forgetAnswers();
          return ended;
        });
  }

  private static ApiProblem refused(HttpStatus status, String title, String detail) {
    return new ApiProblem(status, title, detail);
  }
}
