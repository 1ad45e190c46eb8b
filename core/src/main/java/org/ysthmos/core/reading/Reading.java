package org.ysthmos.core.reading;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What the rules of one decision read from: the event, the records looked up so far, the values the
 * bridge names, the item in hand, reference tables and calendars. It also takes down which keys
 * tables were asked for. Lives as long as one decision, in one thread.
 */
public final class Reading {

  /** What does not come with an event: reference tables and working calendars as they are now. */
  public interface Surroundings {
    Optional<ReferenceTable> table(String id);

    Optional<WorkingCalendar> calendar(String id);

    /**
     * What came with the event before this one about the same record, as far as events were
     * received.
     */
    Optional<JsonNode> previous(Event event);
  }

  /** Computes the values that a bridge names, each at most once in a decision. */
  @FunctionalInterface
  public interface NamedValues {
    Computed compute(int place, Reading reading);
  }

  /** A reading for rules that name no values and ask nothing but the event. */
  public static Reading of(Event event, Surroundings surroundings) {
    return new Reading(
        event,
        surroundings,
        0,
        0,
        (place, reading) -> {
          throw new IllegalStateException("compiled with a named value that is not there");
        });
  }

  private final Event event;
  private final Surroundings surroundings;
  private final JsonNode[] records;
  private final NamedValues namedValues;
  private final @Nullable Computed[] named;
  private final List<TableUse> tableUses = new ArrayList<>(0);
  private @Nullable JsonNode itemRecord;
  private @Nullable Value itemValue;
  private Value setDay = Nothing.NOTHING;
  private Value anchorDay = Nothing.NOTHING;

  /**
   * @param lookups how many lookups the bridge has
   * @param names how many values the bridge names
   */
  public Reading(
      Event event, Surroundings surroundings, int lookups, int names, NamedValues namedValues) {
    this.event = event;
    this.surroundings = surroundings;
    this.records = new JsonNode[lookups];
    this.named = new @Nullable Computed[names];
    this.namedValues = namedValues;
  }

  public Event event() {
    return event;
  }

  /**
   * Keeps the record a lookup found; a missing node where the bridge goes on without.
   *
   * @param lookup counted from 0
   */
  public void found(int lookup, JsonNode record) {
    records[lookup] = record;
  }

  JsonNode record(int lookup) {
    return records[lookup];
  }

  Computed named(int place) {
    Computed known = named[place];
    if (known == null) {
      known = namedValues.compute(place, this);
      named[place] = known;
    }
    return known;
  }

  /** What is in hand where a rule goes through a list. */
  public record InHand(@Nullable JsonNode record, @Nullable Value value) {}

  /** What is in hand now, to be taken in hand again after a list was gone through. */
  public InHand inHand() {
    return new InHand(itemRecord, itemValue);
  }

  /** Takes in hand what was before a list was gone through. */
  public void takeInHandAgain(InHand before) {
    itemRecord = before.record();
    itemValue = before.value();
  }

  /** Takes a record of a list in hand. */
  public void takeInHand(JsonNode record) {
    itemRecord = record;
    itemValue = null;
  }

  /** Takes a value of a list in hand. */
  public void takeInHand(Value value) {
    itemValue = value;
    itemRecord = null;
  }

  /** Takes the days of a task of a set in hand. */
  public void takeInHand(Value day, Value anchor) {
    setDay = day;
    anchorDay = anchor;
  }

  JsonNode itemRecord() {
    return Objects.requireNonNull(itemRecord, "no record is in hand");
  }

  Value itemValue() {
    return Objects.requireNonNull(itemValue, "no value is in hand");
  }

  Value setDay() {
    return setDay;
  }

  Value anchorDay() {
    return anchorDay;
  }

  /** What came with the event before this one about the same record; missing if there is none. */
  public JsonNode previous() {
    return surroundings.previous(event).orElse(MissingNode.getInstance());
  }

  public Optional<ReferenceTable> table(String id) {
    return surroundings.table(id);
  }

  public Optional<WorkingCalendar> calendar(String id) {
    return surroundings.calendar(id);
  }

  public void tableAsked(TableUse use) {
    tableUses.add(use);
  }

  /** Which keys were asked of which tables, in order. */
  public List<TableUse> tableUses() {
    return tableUses;
  }
}
