package org.ysthmos.app.desk.sample;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.chore.KeptChores;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.chore.Chore;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.chore.ChoreTimes.Progress;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.decide.ChoreLook;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.event.Event;

/** When rows would come round by a draft, from what was told of them or read. */
@Component
public class RowTimes {

  /**
   * A row by a draft.
   *
   * @param chore when it would come round; empty if it would not
   * @param times the next ones
   */
  public record Row(Event event, Decision decision, Optional<Chore> chore, List<ToMake> times) {}

  private final SampleWorld world;
  private final KeptChores kept;
  private final AppClock clock;

  RowTimes(SampleWorld world, KeptChores kept, AppClock clock) {
    this.world = world;
    this.kept = kept;
    this.clock = clock;
  }

  /**
   * @param samples events of rows, of which the first of each row counts
   * @param most how many times of each
   */
  public List<Row> of(BridgeVersion draft, List<Event> samples, int most) {
    Instant now = clock.instant();
    Set<String> met = new HashSet<>();
    List<Row> rows = new ArrayList<>();
    for (Event event : samples) {
      if (!ChoreSource.isTime(event) && met.add(event.record())) {
        Decision decision = Decider.decide(draft, event, world, Mode.PLAIN);
        Optional<Chore> chore =
            decision
                .chore()
                .filter(ChoreLook.Comes.class::isInstance)
                .map(look -> ((ChoreLook.Comes) look).chore());
        rows.add(
            new Row(
                event,
                decision,
                chore,
                chore
                    .map(one -> times(draft, one).after(progress(draft, event, one, now), most))
                    .orElse(List.of())));
      }
    }
    return rows;
  }

  /** What the live bridge dealt with already is not to come. */
  private Progress progress(BridgeVersion draft, Event row, Chore chore, Instant now) {
    return kept.find(draft, row.record())
        .filter(known -> known.chore().comesLike(chore))
        .map(KeptChores.Kept::progress)
        .orElseGet(() -> Progress.from(now));
  }

  private static ChoreTimes times(BridgeVersion draft, Chore chore) {
    return new ChoreTimes(chore, draft.chores().orElseThrow().calendar(), Duration.ZERO);
  }

  /** The next times of rows as the events that they will be, the earliest first. */
  List<Sample> toCome(BridgeVersion draft, List<Event> samples, int most) {
    List<Event> events = new ArrayList<>();
    for (Row row : of(draft, samples, 2)) {
      if (!row.times().isEmpty()) {
        Optional<ToMake> next = row.times().stream().skip(1).findFirst();
        events.add(
            ChoreSource.event(
                draft.definition().id(),
                row.event(),
                row.times().getFirst(),
                "",
                next.map(ToMake::time)));
      }
    }
    return events.stream()
        .sorted(Comparator.comparing(Event::time))
        .limit(most)
        .map(event -> new Sample(event.id(), Sample.Origin.TO_COME, event))
        .toList();
  }
}
