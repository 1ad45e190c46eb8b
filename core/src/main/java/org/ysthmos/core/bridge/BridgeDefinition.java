package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.rule.Address;
import org.ysthmos.core.rule.FieldRule;

/**
 * A bridge as its document says it.
 *
 * @param id short, stable, lower case with hyphens
 * @param name what people call it
 * @param match the values that make two events be about the same thing
 */
public record BridgeDefinition(
    String id,
    String name,
    String purpose,
    From from,
    To to,
    List<LookupRule> lookups,
    Condition when,
    List<Address> match,
    List<FieldRule> fields,
    Ceiling ceiling) {

  /** Where events come from, and which kinds of them. */
  public record From(String system, String collection, List<String> events) {
    public From {
      events = List.copyOf(events);
    }
  }

  /** Where the tasks stand. */
  public record To(String system, String collection) {}

  /** The most tasks the bridge may make in a span of time. */
  public record Ceiling(int creates, Duration per) {}

  /** What a bridge does when a lookup finds nothing. */
  public enum NoneFound {
    FAIL,
    PASS_BY,
    GO_ON_EMPTY
  }

  /**
   * A second read that an event needs.
   *
   * @param name how rules address the record found
   * @param by the key fields of the collection and where their values come from
   */
  public record LookupRule(
      String name,
      String system,
      String collection,
      SequencedMap<String, Address> by,
      NoneFound none) {}

  public BridgeDefinition {
    lookups = List.copyOf(lookups);
    match = List.copyOf(match);
    fields = List.copyOf(fields);
  }
}
