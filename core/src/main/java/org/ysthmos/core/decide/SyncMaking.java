package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Crossing;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** A task of one side is made on the other. */
final class SyncMaking {

  private final CompiledTwoWay both;
  private final DecisionNotes notes;
  private final SyncTasks tasks;
  private final CompiledTwoWay.Within within;
  private final boolean waits;

  /**
   * @param waits whether a task that is named and being made just now is waited for
   */
  SyncMaking(
      CompiledTwoWay both,
      DecisionNotes notes,
      SyncTasks tasks,
      CompiledTwoWay.Within within,
      boolean waits) {
    this.both = both;
    this.notes = notes;
    this.tasks = tasks;
    this.within = within;
    this.waits = waits;
  }

  /** What is made, and what both agree on by it; nothing of it counts if a failure was noted. */
  record Made(TaskDecision task, Synced synced) {}

  /**
   * @param record the task that is there
   * @param values what it holds, by the names of the fields
   */
  Made make(MatchKey key, String record, Map<String, Value> values) {
    Side from = both.from();
    Side to = from.across();
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    Map<String, Value> here = new HashMap<>();
    Map<String, Value> there = new HashMap<>();
    Set<String> asMade = new LinkedHashSet<>();
    List<FieldOutcome> waiting = new ArrayList<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      String name = field.rule().name();
      Value value = values.getOrDefault(name, Nothing.NOTHING);
      boolean goes =
          field.rule().direction().carries(from) || field.rule().direction() == Direction.ONCE;
      Crossing crossing =
          goes
              ? field.to().of(to).across(from, value, within)
              : new Crossing.Stays("it only comes from there");
      switch (crossing) {
        case Crossing.Becomes becomes when becomes.value() != Nothing.NOTHING -> {
          fields.put(field.at().of(to).shape().key(), becomes.value());
          here.put(name, value);
          there.put(name, becomes.value());
        }
        case Crossing.Fails fails ->
            notes.fail(DecisionNotes.mapping(field.at().of(to).shape().name(), fails.problem()));
        case Crossing.Waits on -> {
          waiting.add(new FieldOutcome.Waiting(name, from, on));
          mayWait(on, field.at().of(to).shape());
        }
        default -> {
          if (goes) {
            here.put(name, value);
            asMade.add(name);
          }
        }
      }
    }
    Set<String> written = new LinkedHashSet<>(there.keySet());
    Synced synced =
        new Synced(
            key,
            from,
            Both.by(side -> side == from ? Optional.of(record) : Optional.empty()),
            new Agreed(Map.of(), Map.of()),
            new OnceWritten(
                Both.by(side -> side == from ? here : there),
                Both.by(side -> side == from ? Set.of() : written),
                asMade),
            waiting,
            List.of(),
            Synced.Awaited.of(waiting),
            Optional.empty());
    return new Made(
        tasks.task(key, to, Optional.empty(), fields, fields, Optional.empty()), synced);
  }

  /**
   * A task is made without naming one that is not there, and is looked at again once that is,
   * unless it is being made just now, or has to be named.
   */
  private void mayWait(Crossing.Waits on, FieldShape target) {
    if (on.underWay() && waits) {
      notes.fail(Failure.of(FailureKind.NOT_YET_THERE, on.because() + ", and is waited for"));
    } else if (target.required()) {
      notes.fail(
          Failure.of(FailureKind.LOOKUP_EMPTY, on.because())
              .withField(target.name(), on.task())
              .withRemedy("Let that one be carried first, then send again"));
    }
  }
}
