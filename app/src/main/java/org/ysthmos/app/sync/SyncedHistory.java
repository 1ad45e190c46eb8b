package org.ysthmos.app.sync;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.sync.SyncedStepMapper.StepRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * Keeps what became of the fields of pairs, trace by trace: which changed where, from what to what,
 * and what came of it on the other side. As people read it, so that it still says so when the
 * bridge has another version.
 */
@Component
public class SyncedHistory {

  /** What became of a field, or of the pair as a whole. */
  public enum StepKind {
    /** The task of a side was made of the other. */
    MADE,
    /** It changed on a side and went to the other. */
    CARRIED,
    /** It changed on both and was brought together. */
    MERGED,
    /** Both sides hold what stands for each other. */
    AGREED,
    /** It changed on a side and stays there. */
    STAYS,
    /** A person is asked. */
    ASKED,
    /** It names what is not on the other side so far. */
    WAITS,
    /** The two are a pair no more. */
    PARTED
  }

  /** What a side held and holds then, as people read it. */
  public record StepSide(String before, String after) {}

  /**
   * What became of a field.
   *
   * @param field as the left side calls it; empty where it is of the pair as a whole
   * @param on the side that it began on; empty where that is neither, or both
   * @param because why, where that needs a word
   */
  public record StepOfField(
      String field, StepKind kind, String on, StepSide left, StepSide right, String because) {}

  /** How many traces are looked back through for what is told already. */
  private static final int LOOKED_BACK = 10;

  private static final StepSide NOTHING = new StepSide("", "");

  private final SyncedStepMapper mapper;
  private final ObjectMapper json;
  private final AppClock clock;

  SyncedHistory(SyncedStepMapper mapper, ObjectMapper json, AppClock clock) {
    this.mapper = mapper;
    this.json = json;
    this.clock = clock;
  }

  /**
   * Keeps what a decision comes to; inside the change that stores it. A field that is asked about,
   * or waits, as it did the last time is not told of twice.
   *
   * @param before the pair as the decision saw it
   */
  public void keep(Synced synced, Optional<SyncedPair> before, CompiledTwoWay both, long traceSeq) {
    List<StepOfField> steps = new ArrayList<>();
    wholeOf(synced).ifPresent(steps::add);
    Agreed agreed = before.map(SyncedPair::agreed).orElse(synced.agreed());
    for (FieldOutcome outcome : synced.outcomes()) {
      steps.add(new Telling(synced, agreed, both).of(outcome));
    }
    if (steps.stream().anyMatch(SyncedHistory::isOpen)) {
      Map<String, StepOfField> last = lastOfFields(synced.key());
      steps.removeIf(step -> isOpen(step) && step.equals(last.get(step.field())));
    }
    if (!steps.isEmpty()) {
      mapper.add(
          synced.key().bridge(), synced.key().hash(), traceSeq, clock.instant(), written(steps));
    }
  }

  private static boolean isOpen(StepOfField step) {
    return step.kind() == StepKind.ASKED || step.kind() == StepKind.WAITS;
  }

  /** What became last of each field, as far as the last traces tell. */
  private Map<String, StepOfField> lastOfFields(MatchKey pair) {
    Map<String, StepOfField> last = new HashMap<>();
    for (StepRow row : mapper.of(pair.bridge(), pair.hash(), Long.MAX_VALUE, LOOKED_BACK)) {
      read(row.fields()).forEach(step -> last.putIfAbsent(step.field(), step));
    }
    return last;
  }

  private static Optional<StepOfField> wholeOf(Synced synced) {
    if (synced.parted().isPresent()) {
      return Optional.of(
          new StepOfField("", StepKind.PARTED, "", NOTHING, NOTHING, synced.parted().get()));
    }
    Side to = synced.from().across();
    return synced.records().of(to).isPresent()
        ? Optional.empty()
        : Optional.of(new StepOfField("", StepKind.MADE, Synced.word(to), NOTHING, NOTHING, ""));
  }

  /** Tells what became of the fields of one decision. */
  private record Telling(Synced synced, Agreed before, CompiledTwoWay both) {

    StepOfField of(FieldOutcome outcome) {
      String field = outcome.field();
      return switch (outcome) {
        case FieldOutcome.Carried carried ->
            step(field, StepKind.CARRIED, Optional.of(carried.to().across()), written(field), "");
        case FieldOutcome.Merged merged ->
            step(field, StepKind.MERGED, Optional.empty(), written(field), "");
        case FieldOutcome.Adopted adopted ->
            step(field, StepKind.AGREED, Optional.empty(), agreed(field), "");
        case FieldOutcome.NotCarried not ->
            step(field, StepKind.STAYS, Optional.of(not.on()), agreed(field), not.because());
        case FieldOutcome.Conflict conflict ->
            step(field, StepKind.ASKED, Optional.empty(), asked(field), conflict.because());
        case FieldOutcome.Waiting waiting ->
            step(
                field,
                StepKind.WAITS,
                Optional.of(waiting.from()),
                named(waiting),
                waiting.on().because());
        case FieldOutcome.Unchanged any ->
            throw new IllegalArgumentException("nothing became of it");
        case FieldOutcome.Failed any ->
            throw new IllegalArgumentException("a failure is not stored");
      };
    }

    private StepOfField step(
        String field, StepKind kind, Optional<Side> on, Both<Value> after, String because) {
      CompiledTwoWay.Field rule =
          both.fields().stream()
              .filter(one -> one.rule().name().equals(field))
              .findFirst()
              .orElseThrow();
      Both<StepSide> sides =
          Both.by(
              side ->
                  new StepSide(
                      rule.at().of(side).shape().shown(before.of(side, field)),
                      rule.at().of(side).shape().shown(after.of(side))));
      String name = rule.at().left().shape().name();
      return new StepOfField(
          name, kind, on.map(Synced::word).orElse(""), sides.left(), sides.right(), because);
    }

    private Both<Value> written(String field) {
      return Both.by(
          side -> synced.onceWritten().held().of(side).getOrDefault(field, Nothing.NOTHING));
    }

    private Both<Value> agreed(String field) {
      return Both.by(side -> synced.agreed().of(side, field));
    }

    private Both<Value> asked(String field) {
      return synced.conflicts().stream()
          .filter(one -> one.field().equals(field))
          .map(Synced.Disagreement::now)
          .findFirst()
          .orElseThrow();
    }

    private Both<Value> named(FieldOutcome.Waiting waiting) {
      return Both.by(
          side ->
              side == waiting.from()
                  ? Text.of(waiting.on().task())
                  : before.of(side, waiting.field()));
    }
  }

  private byte[] written(List<StepOfField> steps) {
    try {
      return json.writeValueAsBytes(steps);
    } catch (IOException e) {
      throw new UncheckedIOException("what became of a pair cannot be written", e);
    }
  }

  List<StepOfField> read(byte[] fields) {
    try {
      return json.readValue(fields, new TypeReference<>() {});
    } catch (IOException e) {
      throw new UncheckedIOException("what became of a pair cannot be read", e);
    }
  }
}
