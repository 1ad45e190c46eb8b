package org.ysthmos.core.chore;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.zip.CRC32;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Due;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;

/** When the tasks of one chore are made. */
public final class ChoreTimes {

  /** So far back nothing comes round. */
  private static final Instant LONG_AGO = Instant.parse("0001-01-01T00:00:00Z");

  /**
   * A time of it, and when its task is made.
   *
   * @param make not before the chore began, however long before the time it should be
   */
  public record ToMake(Occurrence time, Instant make) {}

  /**
   * How far it is.
   *
   * @param since when it began to come round so; what a rule says of times before does not count
   * @param handled the time that was dealt with last; empty if none was since then
   */
  public record Progress(Instant since, Optional<Instant> handled) {

    /** Where a chore begins. */
    public static Progress from(Instant since) {
      return new Progress(since, Optional.empty());
    }
  }

  /**
   * What is to be done now.
   *
   * @param made what is to be made, the earliest first
   * @param passed what was missed and is not made up for
   * @param after how far it is with this
   * @param next what comes then, which may be due already; empty if nothing does
   */
  public record Look(
      List<ToMake> made, List<ToMake> passed, Progress after, Optional<ToMake> next) {}

  private final Chore chore;
  private final Occurrences times;
  private final Optional<WorkingCalendar> calendar;
  private final Duration later;

  /**
   * @param calendar the one that its recurrence names
   * @param later by how much later than the others it is made, so that not all are at once
   * @throws IllegalArgumentException if working days matter and there is no calendar
   */
  public ChoreTimes(Chore chore, Optional<WorkingCalendar> calendar, Duration later) {
    if (chore.lead().working() && calendar.isEmpty()) {
      throw new IllegalArgumentException("which days are working days is said by a calendar");
    }
    this.chore = chore;
    this.times = new Occurrences(chore.recurrence(), calendar);
    this.calendar = calendar;
    this.later = later;
  }

  /** The share that one row has of a span over which many are spread; always the same. */
  public static Duration share(String record, Duration span) {
    if (span.toSeconds() <= 0) {
      return Duration.ZERO;
    }
    CRC32 sum = new CRC32();
    sum.update(record.getBytes(StandardCharsets.UTF_8));
    return Duration.ofSeconds(sum.getValue() % span.toSeconds());
  }

  /** What is to be made from there on, the earliest first. */
  public List<ToMake> after(Progress progress, int most) {
    Instant begin = chore.once() ? LONG_AGO : progress.since();
    Instant from = progress.handled().filter(begin::isBefore).orElse(begin);
    return times.after(from, most).stream().map(time -> toMake(time, progress.since())).toList();
  }

  private ToMake toMake(Occurrence time, Instant since) {
    Instant make = chore.lead().before(time, calendar).toInstant();
    return new ToMake(time, (make.isBefore(since) ? since : make).plus(later));
  }

  /**
   * What came since it was looked at.
   *
   * @param most how many times are taken at once
   */
  public Look look(Progress progress, Instant now, CatchUp catchUp, int most) {
    List<ToMake> found = after(progress, most + 1);
    List<ToMake> came =
        found.stream().takeWhile(one -> !one.make().isAfter(now)).limit(most).toList();
    boolean more = came.size() < found.size() && !found.get(came.size()).make().isAfter(now);
    CatchUp.Split<ToMake> split =
        catchUp.split(came, one -> !one.make().isBefore(now.minus(Due.ON_TIME)), more);
    return new Look(
        split.made(),
        split.passed(),
        came.isEmpty()
            ? progress
            : new Progress(progress.since(), Optional.of(came.getLast().time().at().toInstant())),
        found.stream().skip(came.size()).findFirst());
  }
}
