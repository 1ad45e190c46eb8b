package org.ysthmos.app.work;

import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.time.AppClock;

/**
 * Names claims and says how long they last. A claim is a lease: whoever has it works on a piece
 * until it is given back, and renews it meanwhile; if that stops, for whatever reason, anybody may
 * take the piece when the time is over.
 */
@Component
public class Claims {

  private final AppClock clock;
  private final DiskRoom room;
  private final Duration lease;
  private final String node;
  private final AtomicLong count = new AtomicLong();

  Claims(AppClock clock, DiskRoom room, Settings settings) {
    this.clock = clock;
    this.room = room;
    this.lease = settings.work().lease();
    byte[] random = new byte[8];
    ThreadLocalRandom.current().nextBytes(random);
    this.node = HexFormat.of().formatHex(random);
  }

  /** Whether anything may be claimed: not where it could not be written down how it ended. */
  public boolean mayBeMade() {
    return room.isEnough();
  }

  /** A name that no other claim has, of this node or another. */
  public String next() {
    return node + "-" + count.incrementAndGet();
  }

  /** Until when a claim lasts that is made or renewed now. */
  public Instant until() {
    return clock.instant().plus(lease);
  }

  /** How long a claim lasts. */
  public Duration lease() {
    return lease;
  }

  /** A claim lasts no longer than this; one that seems to was made by a clock that was ahead. */
  public Instant longest() {
    return clock.instant().plus(lease.multipliedBy(2));
  }
}
