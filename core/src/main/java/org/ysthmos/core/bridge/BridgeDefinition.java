package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.recurrence.Timetable;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.sync.Side;

/**
 * A bridge as its document says it.
 *
 * @param id short, stable, lower case with hyphens
 * @param name what people call it
 * @param values values that several rules use, by name
 * @param match the values that make two events be about the same thing
 * @param fields the rules of every task the bridge makes
 * @param then what else comes of an event, in this order, after its tasks
 * @param ceiling the most that it may do; empty if all of that is to be reckoned
 * @param duplicates what is done about tasks that read nearly the same as others
 * @param between the two places that are kept alike, where it goes both ways; {@code from} and
 *     {@code to} are the two of them then, as they are seen from one side
 */
public record BridgeDefinition(
    String id,
    String name,
    String purpose,
    From from,
    To to,
    List<LookupRule> lookups,
    SequencedMap<String, ValueRule> values,
    Condition when,
    List<Address> match,
    TaskPlan plan,
    List<FieldRule> fields,
    List<Effect> then,
    Optional<Ceiling> ceiling,
    Optional<Duplicates> duplicates,
    Optional<TwoWay> between) {

  /**
   * Where events come from, and which kinds of them.
   *
   * @param every how often the collection is asked for changes, where it is asked; empty for the
   *     system's own interval
   * @param ownWrites whether it also hears of what was written there from here
   * @param times when it begins by itself, where it begins with times; the place is that of its own
   *     times then
   * @param chores how each of its records comes round, where they do
   * @param places the places that are heard, where those are several; {@code collection} is the
   *     first of them then, and empty while only their table would tell which that is
   */
  public record From(
      String system,
      String collection,
      List<String> events,
      Optional<Duration> every,
      boolean ownWrites,
      Optional<Timetable> times,
      Optional<ChoreRules> chores,
      Optional<Places> places) {
    public From {
      events = List.copyOf(events);
    }

    private From at(Place place) {
      return new From(system, place.collection(), events, every, ownWrites, times, chores, places);
    }
  }

  /**
   * That a place is written to which the row of the place names that an event came from.
   *
   * @param of what the system's document calls such places, where it describes many alike
   * @param take the column that names it
   */
  public record ToPlace(Optional<String> of, String take) {

    String collection(String id) {
      return of.map(many -> new PlaceId(many, id).collection()).orElse(id);
    }
  }

  /**
   * Where the tasks stand.
   *
   * @param ifGone what is done when a task was removed there by others and is to be changed
   * @param record the id of a record that is changed there, where none is made
   * @param place how the row of a place names the collection, where it does; {@code collection} is
   *     empty while no place is known
   */
  public record To(
      String system,
      String collection,
      IfGone ifGone,
      Optional<Address> record,
      Optional<ToPlace> place) {

    /** The id of the record that an event came from. */
    private static final Address OF_EVENT =
        new Address(Address.EVENT, new Pointer(List.of("record")));

    /** The record that an event came from. */
    static To recordOf(From from) {
      return new To(
          from.system(), from.collection(), IfGone.ASK, Optional.of(OF_EVENT), Optional.empty());
    }

    /** It as it is for the events of one place. */
    private To at(Place from, From before, From now) {
      if (isRecordOf(before)) {
        return recordOf(now);
      }
      return place
          .map(named -> named.collection(from.shown(named.take())))
          .map(named -> new To(system, named, ifGone, record, place))
          .orElse(this);
    }

    /** Whether a record is changed that is there, and none is made. */
    public boolean changes() {
      return record.isPresent();
    }

    /** Whether it is the very record that an event of a place came from. */
    public boolean isRecordOf(From from) {
      return equals(recordOf(from));
    }
  }

  /**
   * Something else that comes of an event, once for its match key.
   *
   * @param name short and its own in the bridge, lower case with hyphens
   * @param when the condition under which it is done
   * @param match the values that make two events be about the same; empty for the bridge's own
   */
  public record Effect(
      String name, To to, Condition when, List<Address> match, List<FieldRule> fields) {
    public Effect {
      match = List.copyOf(match);
      fields = List.copyOf(fields);
    }

    private Effect at(Place place, From before, From now) {
      return new Effect(name, to.at(place, before, now), when, match, fields);
    }
  }

  /** What becomes of a task that was removed by others, when an event wants it changed. */
  public enum IfGone {
    /** The event fails, and a person says which of the other two it is. */
    ASK,
    /** It is made anew, with all that it held and what the event brings. */
    MAKE_ANEW,
    /** It is left so, and no later event makes it again. */
    LEAVE
  }

  /**
   * The most that the bridge may do in a span of time.
   *
   * @param most of each kind that is stated; what is not is reckoned
   * @param turns what it may do about its own doing
   */
  public record Ceiling(Map<EffectKind, Integer> most, Duration per, Turns turns) {
    public Ceiling {
      most = most.isEmpty() ? Map.of() : Collections.unmodifiableMap(new EnumMap<>(most));
    }

    public Ceiling(Map<EffectKind, Integer> most, Duration per) {
      this(most, per, Turns.USUAL);
    }
  }

  /**
   * How far what a bridge does may come back to it, or go on by itself, before it is held. The
   * usual numbers are common practice, no source.
   *
   * @param again how often it may act on what came of its own doing
   * @param chain of how many bridges' doing, one caused by the other, it may be the last
   * @param sameTask how often it may write to one task in the span of its ceiling
   */
  public record Turns(int again, int chain, int sameTask) {

    /** What holds where a document states nothing. */
    public static final Turns USUAL = new Turns(0, 8, 60);

    /** The most that can be stated for the first two: a chain is walked link by link. */
    public static final int MOST = 1000;
  }

  /**
   * What is done about tasks that read nearly the same as others that are open.
   *
   * @param compare the keys of the target's fields that are compared beside the title
   * @param waitAt from which likeness on a task is not made before a person says that it is
   *     another; empty if it is made in any case
   */
  public record Duplicates(List<String> compare, Optional<Double> waitAt) {
    public Duplicates {
      compare = List.copyOf(compare);
    }
  }

  public BridgeDefinition {
    lookups = List.copyOf(lookups);
    values = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(values));
    match = List.copyOf(match);
    fields = List.copyOf(fields);
    then = List.copyOf(then);
  }

  /** The kinds of event that it hears: those that it names, and those of its own times. */
  public List<String> heard() {
    List<String> kinds = new ArrayList<>(from.events());
    from.chores().ifPresent(chores -> kinds.addAll(ChoreSource.kinds(id)));
    return kinds;
  }

  /** The same rules under another id. */
  public BridgeDefinition withId(String other) {
    return with(other, from, to, lookups, then);
  }

  /**
   * The same that hears other places, where it hears several.
   *
   * @param other takes the place of which they were
   */
  public BridgeDefinition with(Places other) {
    From now =
        new From(
            from.system(),
            from.collection(),
            from.events(),
            from.every(),
            from.ownWrites(),
            from.times(),
            from.chores(),
            Optional.of(other));
    return with(id, now, to, lookups, then);
  }

  private BridgeDefinition with(
      String nowId, From nowFrom, To nowTo, List<LookupRule> nowLookups, List<Effect> nowThen) {
    return new BridgeDefinition(
        nowId,
        name,
        purpose,
        nowFrom,
        nowTo,
        nowLookups,
        values,
        when,
        match,
        plan,
        fields,
        nowThen,
        ceiling,
        duplicates,
        between);
  }

  /** The same as it is for the events of one of its places. */
  BridgeDefinition at(Place place) {
    From now = from.at(place);
    return with(
        id,
        now,
        to.at(place, from, now),
        lookups.stream().map(lookup -> lookup.at(now)).toList(),
        then.stream().map(effect -> effect.at(place, from, now)).toList());
  }

  /** The same seen from a side of the two that it keeps alike. */
  BridgeDefinition seenFrom(Side side) {
    TwoWay both = between.orElseThrow();
    return with(id, both.place(side).from(), both.place(side.across()).to(), lookups, then);
  }
}
