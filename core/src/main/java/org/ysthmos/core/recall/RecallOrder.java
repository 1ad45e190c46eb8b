package org.ysthmos.core.recall;

import java.util.Collection;

/**
 * When a record may go, by the records of the same trace that were made after it: each of those
 * goes before it, and where one stays that stands under another, so does what was made before it,
 * as many systems take away with a record all that stands under it.
 */
public final class RecallOrder {

  private RecallOrder() {}

  /** How a record stands that was made later, of the same trace. */
  public enum Stand {
    /** It has not been dealt with, or is under way. */
    OPEN,
    /** It is not there any more. */
    WENT,
    /** It is there and stays. */
    STAYS
  }

  /** A record that was made later, of the same trace. */
  public record Later(boolean under, Stand stand) {}

  /** Whether a record may go. */
  public enum May {
    GO,
    /** It may once others have. */
    LATER,
    /** It stays, as what stands under it does. */
    NOT
  }

  public static May go(Collection<Later> later) {
    if (later.stream().anyMatch(one -> one.under() && one.stand() == Stand.STAYS)) {
      return May.NOT;
    }
    return later.stream().anyMatch(one -> one.stand() == Stand.OPEN) ? May.LATER : May.GO;
  }
}
