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

    /** Where there is nothing but the event. */
    Surroundings NONE =
        new Surroundings() {
          @Override
          public Optional<ReferenceTable> table(String id) {
            return Optional.empty();
          }

          @Override
          public Optional<WorkingCalendar> calendar(String id) {
            return Optional.empty();
          }

          @Override
          public Optional<JsonNode> previous(Event event) {
            return Optional.empty();
          }
        };
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

  /** What all readings of one decision share. */
  private record Shared(
      Event event,
      Surroundings surroundings,
      JsonNode[] records,
      NamedValues namedValues,
      @Nullable Computed[] named,
      List<TableUse> tableUses) {}

  /** What a rule has in hand where it goes through a list or a set. */
  private record InHand(
      @Nullable JsonNode record, @Nullable Value value, Value day, Value anchor, Made made) {
    static final InHand NOTHING =
        new InHand(null, null, Nothing.NOTHING, Nothing.NOTHING, Made.NONE);
  }

  private final Shared shared;
  private final InHand inHand;

  /**
   * @param lookups how many lookups the bridge has
   * @param names how many values the bridge names
   */
  public Reading(
      Event event, Surroundings surroundings, int lookups, int names, NamedValues namedValues) {
    this(
        new Shared(
            event,
            surroundings,
            new JsonNode[lookups],
            namedValues,
            new @Nullable Computed[names],
            new ArrayList<>(0)),
        InHand.NOTHING);
  }

  private Reading(Shared shared, InHand inHand) {
    this.shared = shared;
    this.inHand = inHand;
  }

  public Event event() {
    return shared.event();
  }

  /**
   * Keeps the record a lookup found; a missing node where the bridge goes on without.
   *
   * @param lookup counted from 0
   */
  public void found(int lookup, JsonNode record) {
    shared.records()[lookup] = record;
  }

  JsonNode record(int lookup) {
    return shared.records()[lookup];
  }

  Computed named(int place) {
    Computed known = shared.named()[place];
    if (known == null) {
      known = shared.namedValues().compute(place, this);
      shared.named()[place] = known;
    }
    return known;
  }

  /** The same with a record of a list in hand. */
  public Reading holding(JsonNode record) {
    return new Reading(
        shared, new InHand(record, null, inHand.day(), inHand.anchor(), inHand.made()));
  }

  /** The same with a value of a list in hand. */
  public Reading holding(Value value) {
    return new Reading(
        shared, new InHand(null, value, inHand.day(), inHand.anchor(), inHand.made()));
  }

  /** The same with the days of a task of a set in hand. */
  public Reading holding(Value day, Value anchor) {
    return new Reading(
        shared, new InHand(inHand.record(), inHand.value(), day, anchor, inHand.made()));
  }

  /** The same for what comes after a task was made. */
  public Reading after(Made made) {
    return new Reading(
        shared, new InHand(inHand.record(), inHand.value(), inHand.day(), inHand.anchor(), made));
  }

  Made made() {
    return inHand.made();
  }

  JsonNode itemRecord() {
    return Objects.requireNonNull(inHand.record(), "no record is in hand");
  }

  Value itemValue() {
    return Objects.requireNonNull(inHand.value(), "no value is in hand");
  }

  Value setDay() {
    return inHand.day();
  }

  Value anchorDay() {
    return inHand.anchor();
  }

  /** What came with the event before this one about the same record; missing if there is none. */
  public JsonNode previous() {
    return shared.surroundings().previous(shared.event()).orElse(MissingNode.getInstance());
  }

  public Optional<ReferenceTable> table(String id) {
    return shared.surroundings().table(id);
  }

  public Optional<WorkingCalendar> calendar(String id) {
    return shared.surroundings().calendar(id);
  }

  public void tableAsked(TableUse use) {
    shared.tableUses().add(use);
  }

  /** Which keys were asked of which tables, in order. */
  public List<TableUse> tableUses() {
    return shared.tableUses();
  }
}
