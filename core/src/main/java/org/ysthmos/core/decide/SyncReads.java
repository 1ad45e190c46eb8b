package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.TaskNow;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** Reads the tasks of both sides as they stand now, for one decision. */
final class SyncReads {

  private final CompiledTwoWay both;
  private final World world;
  private final List<Decision.Answer> answers = new ArrayList<>(2);

  SyncReads(CompiledTwoWay both, World world) {
    this.both = both;
    this.world = world;
  }

  /** A task as it was read; empty if there is none. */
  record Read(Optional<JsonNode> record, Optional<String> tag, Duration ahead) {}

  /** What keeps an event from being decided further. */
  static final class Stopped extends Exception {
    private final transient Failure failure;

    Stopped(Failure failure) {
      super(failure.message());
      this.failure = failure;
    }

    Failure failure() {
      return failure;
    }
  }

  /** What was read so far, in order. */
  List<Decision.Answer> answers() {
    return answers;
  }

  Read read(Side side, String record) throws Stopped {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", record);
    CompiledTwoWay.CompiledPlace place = both.place(side);
    World.Question question =
        new World.Question(
            place.rule().system(), place.rule().collection(), LookupRule.Origin.SYSTEM, keys);
    return switch (world.lookUp(Synced.word(side), question)) {
      case World.Unanswered unanswered -> throw new Stopped(unanswered.failure());
      case World.Found found -> {
        answers.add(new Decision.Answer(Synced.word(side), question, found.records()));
        yield new Read(found.records().stream().findFirst(), found.tag(), found.ahead());
      }
    };
  }

  /** The values of a task that was read, by the names of the fields. */
  Map<String, Value> values(Side side, String id, JsonNode record) throws Stopped {
    return switch (SyncValues.of(both, side, id, record, world)) {
      case SyncValues.Read read -> read.values();
      case SyncValues.Unread unread ->
          throw new Stopped(DecisionNotes.mapping(unread.field(), unread.problem()));
    };
  }

  /** A task of a pair that was read and is there. */
  TaskNow taskNow(World.SyncedPair pair, Side side, Read read) throws Stopped {
    TwoWay.Place at = both.place(side).rule();
    JsonNode record = read.record().orElseThrow();
    String id = pair.records().of(side).orElseThrow();
    refuseVanished(pair, side, record);
    // A clock that is wrong there would else make every change of that side the later one.
    Optional<Instant> changed =
        world.changedAt(at.system(), at.collection(), record).map(time -> time.minus(read.ahead()));
    return new TaskNow(values(side, id, record), changed);
  }

  /**
   * A field that a side does not tell any more, as it is called otherwise by now, would look as if
   * somebody had emptied it, in every task.
   */
  private void refuseVanished(World.SyncedPair pair, Side side, JsonNode record) throws Stopped {
    for (CompiledTwoWay.Field field : both.fields()) {
      CompiledTwoWay.FieldOf at = field.at().of(side);
      boolean lacks =
          at.part() == CompiledTwoWay.Part.FIELD
              && at.read().in(record).isMissingNode()
              && pair.agreed().of(side, field.rule().name()) != Nothing.NOTHING;
      if (lacks) {
        Optional<Failure> vanished =
            world.vanished(pair, new World.FieldAsked(both.place(side), side, field));
        if (vanished.isPresent()) {
          throw new Stopped(vanished.get());
        }
      }
    }
  }

  /** That a task is not there, though nobody told so. */
  Failure notThere(Side side, String record) {
    CompiledTwoWay.CompiledPlace place = both.place(side);
    return Failure.of(
            FailureKind.LOOKUP_EMPTY,
            "%s of %s has no %s “%s”"
                .formatted(
                    place.shape().name(),
                    place.shape().systemName(),
                    place.shape().recordWord(),
                    record))
        .withRemedy(
            "Check that it is there and may be read, then send again; if it was removed,"
                + " nothing need be done");
  }
}
