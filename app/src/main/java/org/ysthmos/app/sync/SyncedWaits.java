package org.ysthmos.app.sync;

import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.sync.SyncedMapper.SyncedRow;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;

/**
 * Pairs of which a task names another that is not on the other side so far, such as its parent.
 * They are looked at again once it is: nothing is asked for meanwhile, and nobody need remember.
 * All of it happens inside changes, one after the other, so that none is missed between two.
 */
@Component
public class SyncedWaits {

  private static final String WORDS = "Looked at, as a task that it names is on the other side now";

  private static final int LONGEST_ID = 512;

  private final SyncedMapper mapper;
  private final SyncedLooks looks;

  SyncedWaits(SyncedMapper mapper, SyncedLooks looks) {
    this.mapper = mapper;
    this.looks = looks;
  }

  /**
   * Keeps what a pair waits for; inside the change that keeps what a decision comes to, after which
   * the dispatcher is woken.
   *
   * @param before the pair as the decision saw it
   * @param askedBy as for any look
   */
  public void keep(Synced synced, Optional<SyncedPair> before, String askedBy) {
    String bridge = synced.key().bridge();
    String pair = synced.key().hash();
    mapper.waitsNoMore(bridge, pair);
    for (Synced.Awaited awaited : synced.awaits()) {
      if (isThere(bridge, awaited)) {
        // It came while this was decided.
        looks.look(bridge, pair, Look.PLAIN, askedBy, WORDS);
      } else if (awaited.task().length() <= LONGEST_ID) {
        // No pair has a longer one, so that it would wait for ever.
        mapper.waits(bridge, awaited.side(), awaited.task(), pair);
      }
    }
    boolean isOne = isWhole(synced.records()) && synced.parted().isEmpty();
    boolean wasOne =
        before.filter(one -> isWhole(one.records()) && one.parted().isEmpty()).isPresent();
    if (isOne && !wasOne) {
      for (Side side : Side.values()) {
        arrived(bridge, side, synced.records().of(side).orElseThrow(), askedBy);
      }
    }
  }

  private static boolean isWhole(Both<Optional<String>> records) {
    return records.left().isPresent() && records.right().isPresent();
  }

  private boolean isThere(String bridge, Synced.Awaited awaited) {
    SyncedRow row = mapper.of(bridge, awaited.side(), awaited.task());
    return row != null && row.isWhole();
  }

  /** The other task of a pair was made; inside the change that writes that down. */
  public void made(SyncedPairs.Sending sending, String askedBy) {
    SyncedRow row = mapper.pair(sending.bridge(), sending.pair());
    if (row != null && row.isWhole()) {
      for (Side side : Side.values()) {
        arrived(row.bridgeId(), side, Objects.requireNonNull(row.record(side)), askedBy);
      }
    }
  }

  private void arrived(String bridge, Side side, String record, String askedBy) {
    for (String pair : mapper.waitingFor(bridge, side, record)) {
      mapper.waitsNoMore(bridge, pair);
      looks.look(bridge, pair, Look.PLAIN, askedBy, WORDS);
    }
  }
}
