package org.ysthmos.core.decide;

import org.ysthmos.core.chore.Chore;

/** What an event of a row says of when that comes round. */
public sealed interface ChoreLook {

  /** It comes round so from now on. */
  record Comes(Chore chore) implements ChoreLook {}

  /**
   * It comes round no more, or not yet.
   *
   * @param because why, in words
   */
  record Rests(String because) implements ChoreLook {}
}
