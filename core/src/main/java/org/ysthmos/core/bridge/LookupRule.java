package org.ysthmos.core.bridge;

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
 * @param origin where it is looked for
 * @param by the key fields of the collection and where their values come from
 */
public record LookupRule(
    String name,
    String system,
    String collection,
    Origin origin,
    SequencedMap<String, ValueRule> by,
    NoneFound none,
    Several several) {

  /** Where a lookup looks. */
  public enum Origin {
    /** The system is asked. */
    SYSTEM,
    /** The events already received of the collection; what came with each is its record. */
    EVENTS
  }

  /** What a bridge does when a lookup finds nothing. */
  public enum NoneFound {
    FAIL,
    PASS_BY,
    /** It goes on with every field of the record absent. */
    EMPTY
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

  public LookupRule {
    by = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(by));
  }
}
