package org.ysthmos.app.rhythm;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.rhythm.RhythmMapper.SlotRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.core.rhythm.Rhythm;

/**
 * What is usual at each bridge, learned once a day from its whole days of the last eight weeks, and
 * whether what comes now is far from it, looked at once in a minute.
 */
@Component
public class Rhythms {

  private static final int WEEKS = 8;
  private static final Duration WEEK = Duration.ofDays(7);
  private static final Duration JUDGED_FOR = Duration.ofMinutes(1);

  /** A longer silence is no longer told by its length. */
  private static final Duration LONGEST = Duration.ofDays(14);

  /**
   * What comes is far from usual.
   *
   * @param silent whether nothing comes; otherwise far too much does
   * @param since when the silence or the busy hour began
   * @param came how many came since
   * @param usual how many usually do in such a time
   */
  public record Odd(boolean silent, Instant since, long came, double usual) {}

  /**
   * @param on the day that it was learned on, of which it knows nothing yet
   * @param halfHours from how many to how many come in half of each hour of the week; none where
   *     nothing is known
   */
  private record Learned(LocalDate on, Optional<Rhythm> rhythm, List<Rhythm.Band> halfHours) {
    static Learned of(LocalDate on, Optional<Rhythm> rhythm) {
      List<Rhythm.Band> bands = new ArrayList<>();
      for (int hour = 0; hour < Rhythm.HOURS && rhythm.isPresent(); hour++) {
        bands.add(rhythm.get().band(hour, 0.5));
      }
      return new Learned(on, rhythm, List.copyOf(bands));
    }
  }

  /**
   * Whose rhythm it is.
   *
   * @param place the id of one of its places; empty for all that comes to the bridge
   */
  private record Of(String bridge, String place) {}

  private record Judged(Instant at, Optional<Odd> odd) {}

  private final RhythmMapper mapper;
  private final TraceMapper traces;
  private final Bridges bridges;
  private final AppClock clock;
  private final Settings settings;
  private final Map<Of, Learned> learned = new ConcurrentHashMap<>();
  private final Map<Of, Judged> judged = new ConcurrentHashMap<>();

  Rhythms(
      RhythmMapper mapper, TraceMapper traces, Bridges bridges, AppClock clock, Settings settings) {
    this.mapper = mapper;
    this.traces = traces;
    this.bridges = bridges;
    this.clock = clock;
    this.settings = settings;
  }

  /** What is usual at a bridge. */
  private Learned known(Of bridge) {
    LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
    Learned known = learned.get(bridge);
    if (known == null || !known.on().equals(today)) {
      known = Learned.of(today, learn(bridge, today));
      learned.put(bridge, known);
    }
    return known;
  }

  private List<SlotRow> slots(Of of, long since) {
    return of.place().isEmpty()
        ? mapper.slots(of.bridge(), since)
        : mapper.slotsOfPlace(of.bridge(), of.place(), since);
  }

  private @Nullable Instant newest(Of of) {
    return of.place().isEmpty()
        ? traces.newestOf(of.bridge())
        : mapper.newestOfPlace(of.bridge(), of.place());
  }

  private Optional<Rhythm> learn(Of bridge, LocalDate today) {
    Instant end = today.atStartOfDay(settings.zone()).toInstant();
    List<SlotRow> rows = slots(bridge, TraceEnds.slot(end.minus(WEEK.multipliedBy(WEEKS))));
    if (rows.isEmpty()) {
      return Optional.empty();
    }
    Duration past = Duration.between(at(rows.getFirst().slot()), end);
    int known = (int) Math.min(WEEKS, past.dividedBy(WEEK));
    List<int[]> weeks = new ArrayList<>();
    for (int i = 0; i < known; i++) {
      weeks.add(new int[Rhythm.HOURS]);
    }
    for (SlotRow row : rows) {
      Duration ago = Duration.between(at(row.slot()), end);
      int week = (int) ago.minusNanos(1).dividedBy(WEEK);
      if (!ago.isNegative() && !ago.isZero() && week < known) {
        weeks.get(week)[hourOfWeek(at(row.slot()))] += row.events();
      }
    }
    return Rhythm.learn(weeks);
  }

  /** What is odd at a bridge now; empty if nothing is, or too little of its past is known. */
  public Optional<Odd> odd(String bridge) {
    return odd(new Of(bridge, ""));
  }

  /** The same of what comes from one of its places. */
  public Optional<Odd> odd(String bridge, String place) {
    return odd(new Of(bridge, place));
  }

  private Optional<Odd> odd(Of bridge) {
    Instant now = clock.instant();
    Judged known = judged.get(bridge);
    if (known == null || known.at().isAfter(now) || known.at().plus(JUDGED_FOR).isBefore(now)) {
      known =
          new Judged(now, bridges.isHeld(bridge.bridge()) ? Optional.empty() : judge(bridge, now));
      judged.put(bridge, known);
    }
    return known.odd();
  }

  private Optional<Odd> judge(Of bridge, Instant now) {
    return known(bridge).rhythm().flatMap(rhythm -> judge(bridge, rhythm, now));
  }

  private Optional<Odd> judge(Of bridge, Rhythm rhythm, Instant now) {
    ZonedDateTime hour = now.atZone(settings.zone()).truncatedTo(ChronoUnit.HOURS);
    ZonedDateTime before = hour.minusHours(1);
    List<SlotRow> lately = slots(bridge, dayOf(before));
    return busy(rhythm, hour, lately)
        .or(() -> busy(rhythm, before, lately))
        .or(() -> silent(bridge, rhythm, now));
  }

  private static long dayOf(ZonedDateTime hour) {
    return TraceEnds.slot(hour.truncatedTo(ChronoUnit.DAYS).toInstant());
  }

  /**
   * @param rows the counts of at least the day of the hour
   */
  private Optional<Odd> busy(Rhythm rhythm, ZonedDateTime hour, List<SlotRow> rows) {
    long day = dayOf(hour);
    long first = TraceEnds.slot(hour.toInstant());
    long end = TraceEnds.slot(hour.plusHours(1).toInstant());
    long before = 0;
    long came = 0;
    for (SlotRow row : rows) {
      before += row.slot() >= day && row.slot() < first ? row.events() : 0;
      came += row.slot() >= first && row.slot() < end ? row.events() : 0;
    }
    int of = hourOfWeek(hour.toInstant());
    return rhythm.isTooMany(of, before, came)
        ? Optional.of(new Odd(false, hour.toInstant(), came, rhythm.usualToday(of, before)))
        : Optional.empty();
  }

  private Optional<Odd> silent(Of bridge, Rhythm rhythm, Instant now) {
    Instant last = newest(bridge);
    if (last == null || last.isAfter(now) || last.plus(LONGEST).isBefore(now)) {
      return Optional.empty();
    }
    double hours = Duration.between(last, now).toSeconds() / 3600.0;
    int from = hourOfWeek(last);
    return isTold(bridge, last) || rhythm.isTooLong(from, hours)
        ? Optional.of(new Odd(true, last, 0, rhythm.expected(from, hours)))
        : Optional.empty();
  }

  /** A silence that was odd lasts until something comes, whatever is learned of it meanwhile. */
  private boolean isTold(Of bridge, Instant last) {
    return Optional.ofNullable(judged.get(bridge))
        .flatMap(Judged::odd)
        .filter(odd -> odd.silent() && odd.since().equals(last))
        .isPresent();
  }

  /** From how many to how many usually come in a half hour; empty while that is not known. */
  public Optional<Rhythm.Band> usual(String bridge, long slot) {
    List<Rhythm.Band> bands = known(new Of(bridge, "")).halfHours();
    return bands.isEmpty() ? Optional.empty() : Optional.of(bands.get(hourOfWeek(at(slot))));
  }

  /** Learns and looks anew, whenever it did so last. */
  public void forget() {
    learned.clear();
    judged.clear();
  }

  private static Instant at(long slot) {
    return Instant.ofEpochSecond(slot * TraceEnds.SLOT.toSeconds());
  }

  private int hourOfWeek(Instant at) {
    ZonedDateTime local = at.atZone(settings.zone());
    return (local.getDayOfWeek().getValue() - 1) * 24 + local.getHour();
  }
}
