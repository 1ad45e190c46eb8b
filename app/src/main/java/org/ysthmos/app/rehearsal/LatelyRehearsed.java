package org.ysthmos.app.rehearsal;

import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.PastMapper.Span;
import org.ysthmos.app.rehearsal.PastMapper.Which;
import org.ysthmos.app.trace.DecidedThen;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.rehearsal.PairChain;
import org.ysthmos.core.rehearsal.Rehearsal;
import org.ysthmos.core.rehearsal.Rehearsed;
import org.ysthmos.core.rehearsal.Tally;
import org.ysthmos.core.table.ReferenceTable;

/** What a bridge would have made of the last few events, while somebody waits for it. */
@Component
public class LatelyRehearsed {

  /** So many events are gone over. */
  public static final int EVENTS = 200;

  /** So many questions are asked that were not asked then; nobody waits for more. */
  private static final int QUESTIONS = 50;

  /**
   * What it came to.
   *
   * @param notLookedAt how many events were left out, as they would ask too many questions
   */
  public record Lately(Tally tally, int notLookedAt) {}

  /** The tables and calendars as they would be. */
  public record Reference(
      Map<String, ReferenceTable> tables, Map<String, WorkingCalendar> calendars) {
    public Reference {
      tables = Map.copyOf(tables);
      calendars = Map.copyOf(calendars);
    }
  }

  private final Past past;
  private final AskedNow.Sources sources;

  LatelyRehearsed(Past past, AskedNow.Sources sources) {
    this.past = past;
    this.sources = sources;
  }

  /**
   * Holds what a bridge would make of the last events that it hears against what became of them.
   *
   * @param bridge one that goes one way
   * @param heardAlone whether events count alone that the bridge heard when they came
   */
  public Lately of(BridgeVersion bridge, Reference reference, boolean heardAlone) {
    Tally tally = new Tally();
    String id = bridge.definition().id();
    Which which = past.all(bridge);
    Span span = past.span(which, EVENTS);
    Long first = span.firstSeq();
    Long last = span.lastSeq();
    if (first == null || last == null) {
      return new Lately(tally, 0);
    }
    int notLookedAt = 0;
    Briefly world = new Briefly(reference);
    Rehearsal rehearsal =
        new Rehearsal(bridge, Rehearsal.Answers.OF_THEN, PairChain.inMemory(), world);
    Which newest = new Which(which.system(), which.collections(), which.kinds(), first, last);
    for (PastEvent one : past.whole(id, past.rows(newest, EVENTS))) {
      Optional<Event> event = one.event();
      if (event.isPresent() && (one.then().isPresent() || !heardAlone)) {
        world.at(one.row());
        Rehearsed rehearsed = rehearsal.next(event.get(), one.then().map(DecidedThen.Known::then));
        if (world.isRefused()) {
          notLookedAt++;
        } else {
          tally.add(rehearsed);
        }
      }
    }
    return new Lately(tally, notLookedAt);
  }

  /** Asks a few questions and no more. */
  private final class Briefly extends PastWorld {
    private final Reference reference;
    private int asked;
    private boolean refused;

    Briefly(Reference reference) {
      super(sources);
      this.reference = reference;
    }

    @Override
    void at(EventRow row) {
      super.at(row);
      refused = false;
    }

    /** Whether a question of the event was not asked any more. */
    boolean isRefused() {
      return refused;
    }

    @Override
    public LookupAnswer lookUp(String lookup, Question question) {
      if (++asked > QUESTIONS) {
        refused = true;
        return new Unanswered(
            Failure.of(FailureKind.NOT_YET_THERE, "It is not asked, as a rehearsal would"));
      }
      return sources.sample().lookUp(lookup, question);
    }

    @Override
    public Optional<ReferenceTable> table(String id) {
      return Optional.ofNullable(reference.tables().get(id));
    }

    @Override
    public Optional<WorkingCalendar> calendar(String id) {
      return Optional.ofNullable(reference.calendars().get(id));
    }
  }
}
