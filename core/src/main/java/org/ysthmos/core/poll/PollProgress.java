package org.ysthmos.core.poll;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.Page;

/**
 * How far a collection has been followed. A pass reads all pages of what changed since a mark; the
 * mark moves on only when a pass is through, so that a pass that is broken off loses nothing.
 * Reading a record again does no harm: its version makes it the change that is known.
 *
 * @param since the mark the pass goes on from; empty to read from the beginning
 * @param page the next page of the pass; empty at its beginning
 * @param newest the newest moment of change met in this pass
 * @param mark the mark that the system gave in this pass
 * @param pages how many pages of this pass were read
 * @param fresh how many changes of this pass were not known before
 */
public record PollProgress(
    Optional<String> since,
    Optional<String> page,
    Optional<Instant> newest,
    Optional<String> mark,
    int pages,
    int fresh) {

  /**
   * Two changes within this span may have the same mark or come to light in the other order, so
   * that much is read again. Common practice, no source.
   */
  static final Duration OVERLAP = Duration.ofSeconds(2);

  public static final PollProgress BEGINNING = beginning(Optional.empty());

  private static PollProgress beginning(Optional<String> since) {
    return new PollProgress(since, Optional.empty(), Optional.empty(), Optional.empty(), 0, 0);
  }

  public Cursor cursor() {
    return new Cursor(since, page);
  }

  /** Whether the pass is through, so that there is time until the next. */
  public boolean atRest() {
    return pages == 0;
  }

  /**
   * What stands after a page was read and kept.
   *
   * @param fresh how many of its changes were not known before
   * @param shifting whether pages are counted, so that a record that moves while they are read can
   *     push another past the reader; such a pass is read again until it finds nothing new
   */
  public PollProgress after(Page read, int fresh, boolean shifting) {
    Optional<Instant> latest = later(newest, read);
    Optional<String> given = read.since().isPresent() ? read.since() : mark;
    int found = this.fresh + fresh;
    if (read.next().isPresent()) {
      return new PollProgress(since, read.next(), latest, given, pages + 1, found);
    }
    if (shifting && pages > 0 && found > 0) {
      // One page counts as read, so that the pass goes on at once.
      return new PollProgress(since, Optional.empty(), Optional.empty(), Optional.empty(), 1, 0);
    }
    return beginning(given.or(() -> latest.map(PollProgress::before)).or(() -> since));
  }

  private static Optional<Instant> later(Optional<Instant> newest, Page read) {
    Optional<Instant> latest =
        read.records().stream()
            .flatMap(record -> record.changed().stream())
            .max(Instant::compareTo);
    return newest.isPresent() && latest.filter(one -> one.isAfter(newest.get())).isEmpty()
        ? newest
        : latest;
  }

  private static String before(Instant newest) {
    return newest.minus(OVERLAP).toString();
  }

  /**
   * Whether a record is to be taken as an event.
   *
   * @param begun when the collection was first followed; what stood there before stays untold
   */
  public static boolean counts(Changed record, Instant begun) {
    return record.changed().filter(changed -> changed.isBefore(second(begun))).isEmpty();
  }

  /** Many systems tell moments by the second, so all of the second in which it began counts. */
  private static Instant second(Instant begun) {
    return begun.truncatedTo(ChronoUnit.SECONDS);
  }

  /**
   * The kind of event that a changed record is.
   *
   * @param known whether an event of this record was received before
   */
  public static String kind(Changed record, Instant begun, boolean known) {
    if (record.kind().isPresent()) {
      return record.kind().get();
    }
    boolean old = record.created().filter(created -> created.isBefore(second(begun))).isPresent();
    return known || old ? "changed" : "created";
  }
}
