package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Value;

/**
 * Everything outside that a decision may ask. It may ask other systems, so a decision is never made
 * inside a database transaction.
 */
public interface World extends Reading.Surroundings {

  /**
   * Reads the records of a collection whose key fields have these values.
   *
   * @param lookup the name of the lookup that asks first; another that asks the same is not heard
   */
  LookupAnswer lookUp(String lookup, Question question);

  /** The pair of a bridge with this match key, if there is one. */
  Optional<PairState> pair(String bridge, MatchKey key);

  /**
   * The later version of the event's record that came before it, so that the event tells what is
   * over already. Nothing is known of it where a system's records say no version.
   *
   * @param kinds only events of these kinds count, as a bridge hears of no others
   */
  default Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return Optional.empty();
  }

  /** Whether the event tells of nothing but what was written to its record from here. */
  default boolean isOwnWrite(Event event) {
    return false;
  }

  /**
   * Whether an event still waits for what is not there yet.
   *
   * @param span how long it waits from when it was received
   */
  default boolean waits(Event event, Duration span) {
    return false;
  }

  /** The page on which people see a record; empty if its system has none. */
  default Optional<URI> page(String system, String collection, String record) {
    return Optional.empty();
  }

  /** The pair that a bridge which goes both ways has of a record on one of its sides. */
  default Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return Optional.empty();
  }

  /**
   * The pair that it has of a record which is only named, such as the parent of one that is
   * decided.
   */
  default Optional<SyncedPair> named(String bridge, Side side, String record) {
    return synced(bridge, side, record);
  }

  /**
   * Tasks of a side that were sent to be made, and of which no answer said whether they were, or
   * what they are called; those that were sent first come first.
   */
  default List<Unnamed> unnamed(String bridge, Side side) {
    return List.of();
  }

  /**
   * Why a field that a task lacks, though it had it, cannot be taken for one that somebody emptied:
   * no other task that had it tells it any more either. Empty if it can.
   */
  default Optional<Failure> vanished(SyncedPair pair, FieldAsked asked) {
    return Optional.empty();
  }

  /** When a record was changed last, by its system's own time; empty if it does not say. */
  default Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return Optional.empty();
  }

  /** What a task holds that is closed, by the keys of its fields; none if that is not known. */
  default Map<String, Value> closing(String system, String collection) {
    return Map.of();
  }

  /** Whether records of a collection can be taken away. */
  default boolean removes(String system, String collection) {
    return false;
  }

  /** Whether someone worked on a pair's task since both sides last agreed. */
  TouchAnswer touched(MatchKey key, PairState pair);

  /**
   * What a lookup asks.
   *
   * @param keys key field to value as text
   */
  record Question(
      String system,
      String collection,
      LookupRule.Origin origin,
      SequencedMap<String, String> keys) {}

  /**
   * An event that came late.
   *
   * @param version the version of the record that it tells of
   * @param by the later one that came before
   */
  record Overtaken(String version, String by) {}

  /**
   * What is known of a pair of two tasks that are kept alike.
   *
   * @param records their ids; one that was never made has none
   * @param agreed what both held when they last agreed
   * @param answers what a person said of fields on which they disagree
   * @param parted why they are a pair no more; empty if they are
   */
  record SyncedPair(
      MatchKey key,
      Both<Optional<String>> records,
      Agreed agreed,
      Map<String, Answer> answers,
      Optional<String> parted) {
    public SyncedPair {
      answers = Map.copyOf(answers);
    }

    /** The same with a task of a side. */
    SyncedPair with(Side side, String record) {
      return new SyncedPair(
          key,
          Both.by(one -> one == side ? Optional.of(record) : records.of(one)),
          agreed,
          answers,
          parted);
    }

    /** The same as if it was never parted. */
    SyncedPair united() {
      return new SyncedPair(key, records, agreed, answers, Optional.empty());
    }
  }

  /**
   * A task that may have been made for another.
   *
   * @param partner the id of that one, on the other side
   * @param sent what it was to hold, by the keys of its fields
   */
  record Unnamed(String partner, Map<String, Value> sent) {
    public Unnamed {
      sent = Map.copyOf(sent);
    }
  }

  /** What a lookup came to. */
  sealed interface LookupAnswer {}

  /**
   * The records found; none is an answer too.
   *
   * @param tag the entity tag of the one that was asked for, where it came with one
   * @param ahead by how much the clock of the system was ahead of ours when it answered; negative
   *     if it was behind, zero where that is not known
   */
  record Found(List<JsonNode> records, Optional<String> tag, Duration ahead)
      implements LookupAnswer {
    public Found {
      records = List.copyOf(records);
    }

    public Found(List<JsonNode> records, Optional<String> tag) {
      this(records, tag, Duration.ZERO);
    }

    public Found(List<JsonNode> records) {
      this(records, Optional.empty());
    }
  }

  /** A field of a task on a side, as a bridge that goes both ways reads it. */
  record FieldAsked(CompiledTwoWay.CompiledPlace place, Side side, CompiledTwoWay.Field field) {}

  /** The system could not answer. */
  record Unanswered(Failure failure) implements LookupAnswer, TouchAnswer {}

  /** What is known of the work on a task. */
  sealed interface TouchAnswer {}

  /** Whether someone changed or finished the task since. */
  record Touched(boolean yes) implements TouchAnswer {}

  /** Why the task of a pair stays as it is, whatever comes of its record. */
  enum Stays {
    NO(""),
    REMOVED("its task was removed by others and is left so; make it anew if it is wanted again"),
    TAKEN_BACK("its task was taken back and is not made again unless a person says so");

    private final String words;

    Stays(String words) {
      this.words = words;
    }

    /** As a trace tells it; empty where it does not stay. */
    public String words() {
      return words;
    }
  }

  /**
   * What is known of a pair.
   *
   * @param target the id of its task; empty while the task was never made
   * @param agreed the values both sides held when they last agreed
   * @param later whether these come from an event that was received after the one that is decided,
   *     so that nothing of it may be written over them
   * @param stays why its task is not made or changed any more, if it is not
   * @param anew how many of its tasks were removed by others and given up
   * @param stands the id of the collection in which its task stands; empty where that is not known
   */
  record PairState(
      Optional<String> target,
      Map<String, Value> agreed,
      boolean later,
      Stays stays,
      int anew,
      Optional<String> stands) {
    public PairState(Optional<String> target, Map<String, Value> agreed) {
      this(target, agreed, false, Stays.NO, 0);
    }

    public PairState(
        Optional<String> target, Map<String, Value> agreed, boolean later, Stays stays, int anew) {
      this(target, agreed, later, stays, anew, Optional.empty());
    }

    /** What tells the effect of making its task from making it before. */
    public static String making(int anew) {
      return anew == 0 ? "task" : "task:" + anew;
    }
  }
}
