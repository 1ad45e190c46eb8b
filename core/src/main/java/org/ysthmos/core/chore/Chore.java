package org.ysthmos.core.chore;

import org.ysthmos.core.recurrence.Recurrence;

/**
 * What a row of a table says of when it comes round.
 *
 * @param once whether it is one time, counted from when it was done; it is made though it is past
 *     already
 * @param words for people, such as {@code every fourth Friday at 06:00 in Lisbon}
 */
public record Chore(Recurrence recurrence, Lead lead, boolean once, String words) {

  /** When it comes round, and how long before its task is made, for people. */
  public String sentence() {
    return lead.days() == 0 ? words : words + ", made " + lead + " before";
  }

  /** Whether both come round at the same times, and their tasks are made so long before. */
  public boolean comesLike(Chore other) {
    return recurrence.equals(other.recurrence) && lead.equals(other.lead) && once == other.once;
  }
}
