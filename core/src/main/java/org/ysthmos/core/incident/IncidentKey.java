package org.ysthmos.core.incident;

import org.ysthmos.core.failure.FailureKind;

/**
 * What failures and alarms have in common that are one incident, whichever bridges they are of.
 *
 * <ul>
 *   <li>A system that refuses is one incident, whatever it says: one and the same cause is told as
 *       “too many calls” today, as “over a limit” tomorrow and as “not allowed” the day after.
 *   <li>A system that does not answer is one.
 *   <li>Everything else is one for each signature: the same kind at the same place about the same
 *       field.
 *   <li>A bridge that held itself is one.
 *   <li>A source of which far more or far fewer events come than usual is one, however many bridges
 *       hear it.
 * </ul>
 *
 * @param family which of these
 * @param of the id of the system, the signature, the id of the bridge, or the source
 */
public record IncidentKey(Family family, String of) {

  /** What sort of thing an incident is about. */
  public enum Family {
    /** A system refuses what is asked of it. */
    REFUSED,
    /** A system does not answer. */
    AWAY,
    /** Failures of one signature. */
    ALIKE,
    /** A bridge holds itself. */
    HELD,
    /** Far more or far fewer events come from a source than usual. */
    RHYTHM
  }

  /** The incident that a failure belongs to. */
  public static IncidentKey of(FailureKind kind, String system, String signature) {
    if (!system.isEmpty()) {
      switch (kind) {
        case RATE_LIMITED, QUOTA_FULL, NOT_ALLOWED, NOT_SIGNED_IN -> {
          return new IncidentKey(Family.REFUSED, system);
        }
        case UNREACHABLE, ANSWER_UNKNOWN -> {
          return away(system);
        }
        default -> {
          // What follows is about the record, the rules or us.
        }
      }
    }
    return new IncidentKey(Family.ALIKE, signature);
  }

  /** A system does not answer. */
  public static IncidentKey away(String system) {
    return new IncidentKey(Family.AWAY, system);
  }

  /** A bridge holds itself. */
  public static IncidentKey held(String bridge) {
    return new IncidentKey(Family.HELD, bridge);
  }

  /**
   * Far more or far fewer events come from a source than usual.
   *
   * @param source the id of a system, a slash and that of its collection; or the id of a bridge
   *     that hears what no other does
   */
  public static IncidentKey rhythm(String source) {
    return new IncidentKey(Family.RHYTHM, source);
  }

  /** As it is kept: the family, a slash, and what it is of. */
  public String text() {
    return family + "/" + of;
  }

  /**
   * @throws IllegalArgumentException if the text is not what {@link #text} gives
   */
  public static IncidentKey parse(String text) {
    int slash = text.indexOf('/');
    if (slash < 0) {
      throw new IllegalArgumentException("no incident has the key " + text);
    }
    return new IncidentKey(Family.valueOf(text.substring(0, slash)), text.substring(slash + 1));
  }
}
