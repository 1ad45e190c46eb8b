package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.rule.ValueRule;

/**
 * A second read that an event needs.
 *
 * @param name how rules address the record found
 * @param system the system of the collection; empty where it is looked for among tasks
 * @param collection the collection; among tasks the bridge that makes them
 * @param origin where it is looked for
 * @param by the key fields of the collection and where their values come from
 * @param here whether it is the place that the event came from, of a bridge that hears several
 * @param waits how long an event waits, from when it was received, for what is not there yet
 */
public record LookupRule(
    String name,
    String system,
    String collection,
    Origin origin,
    boolean here,
    SequencedMap<String, ValueRule> by,
    Optional<Duration> waits,
    NoneFound none,
    Several several) {

  /** The key of a lookup among tasks: the record that the task was made of. */
  public static final String RECORD = "record";

  /** The key of a lookup among tasks that says which of several: its name, or its item. */
  public static final String PART = "part";

  /** The key of a lookup among tasks by which the task itself is found. */
  public static final String TASK = "task";

  /** Where a lookup looks. */
  public enum Origin {
    /** The system is asked. */
    SYSTEM,
    /** The events already received of the collection; what came with each is its record. */
    EVENTS,
    /** The tasks that a bridge made, each with its id, its link and the record it was made of. */
    TASKS
  }

  /** What a bridge does when a lookup finds nothing. */
  public enum NoneFound {
    FAIL,
    PASS_BY,
    /** It goes on with every field of the record absent. */
    EMPTY,
    /**
     * Among tasks: the bridge that makes them is given the record, and its task is waited for; if
     * it is not there in time, the event fails.
     */
    MAKE
  }

  /**
   * What a bridge does when a lookup finds more than one.
   *
   * @param firstBy the field that orders them, of which the first is taken; empty if it fails
   * @param descending whether the greatest is the first
   */
  public record Several(Optional<Pointer> firstBy, boolean descending) {
    public static final Several FAIL = new Several(Optional.empty(), false);
  }

  /** The same where the place is that which an event came from. */
  LookupRule at(BridgeDefinition.From place) {
    return here
        ? new LookupRule(
            name, place.system(), place.collection(), origin, here, by, waits, none, several)
        : this;
  }

  public LookupRule {
    by = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(by));
  }
}
