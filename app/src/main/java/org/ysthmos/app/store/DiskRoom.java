package org.ysthmos.app.store;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.time.AppClock;

/**
 * Keeps a reserve on the disk. The database closes for good when it cannot write, so that point
 * must never be reached: below the reserve nothing new is begun, what is under way is written down,
 * and everything goes on by itself when room was made.
 */
@Component
public class DiskRoom {

  private static final Logger LOG = LoggerFactory.getLogger(DiskRoom.class);
  private static final long BETWEEN_LOOKS = Duration.ofMillis(100).toNanos();

  /** Below this part of the reserve not even what is under way is written. */
  private static final int LAST_PART = 4;

  /** By this part of the reserve a shortage is outlived. */
  private static final int EDGE = 10;

  /**
   * The disk has less room than the reserve.
   *
   * @param folder where everything is kept
   * @param free in bytes
   * @param reserve in bytes
   */
  public record Shortage(String folder, long free, long reserve, Instant since) {

    /** What it is, for people. */
    public String sentence() {
      return "The disk of %s has %s free; nothing is taken in or carried across below %s."
          .formatted(folder, megabytes(free), megabytes(reserve));
    }

    private static String megabytes(long bytes) {
      return (bytes >> 20) + " MB";
    }
  }

  private final FreeSpace space;
  private final AppClock clock;
  private final String folder;
  private final long reserve;
  private long looked = System.nanoTime() - BETWEEN_LOOKS;
  private @Nullable Shortage shortage;

  DiskRoom(FreeSpace space, AppClock clock, Settings settings) {
    this.space = space;
    this.clock = clock;
    this.folder = settings.data().toAbsolutePath().normalize().toString();
    this.reserve = settings.reserve().toBytes();
  }

  /** What is short; empty if there is room. */
  public synchronized Optional<Shortage> shortage() {
    long now = System.nanoTime();
    if (now - looked >= BETWEEN_LOOKS) {
      looked = now;
      look();
    }
    return Optional.ofNullable(shortage);
  }

  private void look() {
    long free = space.bytes();
    Shortage before = shortage;
    // A little more than the reserve ends a shortage, so that nothing flutters at its edge.
    if (free >= reserve + (before == null ? 0 : reserve / EDGE)) {
      shortage = null;
      if (before != null) {
        LOG.info("the disk has room again; everything goes on");
      }
      return;
    }
    Instant since = before == null ? clock.instant() : before.since();
    shortage = new Shortage(folder, free, reserve, since);
    if (before == null) {
      LOG.error("{}", shortage.sentence());
    }
  }

  /** Whether anything new may be begun. */
  public boolean isEnough() {
    return shortage().isEmpty();
  }

  /** Whether so little is left that nothing may be written at all. */
  public boolean isNone() {
    return shortage().filter(one -> one.free() < reserve / LAST_PART).isPresent();
  }
}
