package org.ysthmos.app.desk.trial;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.desk.trial.ProofSheet.Odd;
import org.ysthmos.app.desk.trial.ProofSheet.ProofCell;
import org.ysthmos.app.desk.trial.ProofSheet.ProofColumn;
import org.ysthmos.app.desk.trial.ProofSheet.ProofRow;
import org.ysthmos.app.desk.trial.ProofSheet.SheetView;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.sync.SyncedLooks;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Look;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What a draft that goes both ways would do to the tasks that are there now: both of each pair are
 * read for real, nothing is written.
 */
@Component
class PairSheet {

  /** How many pairs are read; each costs two calls, once in a while. */
  private static final int MOST = 30;

  /** How many events of a side are looked through for them. */
  private static final int MOST_EVENTS = 300;

  private final Samples samples;
  private final SampleWorld world;
  private final AppClock clock;

  PairSheet(Samples samples, SampleWorld world, AppClock clock) {
    this.samples = samples;
    this.world = world;
    this.clock = clock;
  }

  /** A task of a side, of which something was heard last. */
  private record Task(Side side, String record, Instant heard) {}

  /** What would become of a field. */
  private record Outcome(String text, Odd odd, String why) {
    private static final Outcome NOTHING = new Outcome("", Odd.NO, "");

    /** In words for whoever compares it with another. */
    String words() {
      return odd == Odd.NO || why.isEmpty() ? text : why + ": " + text;
    }
  }

  SheetView compute(String id, BridgeVersion draft, Optional<BridgeVersion> live) {
    CompiledTwoWay both = draft.between().orElseThrow();
    long start = System.nanoTime();
    List<ProofRow> rows = tasks(id, both).stream().map(task -> row(draft, live, task)).toList();
    return new SheetView(
        both.fields().stream()
            .map(field -> new ProofColumn(field.rule().name(), name(field)))
            .toList(),
        rows,
        (System.nanoTime() - start) / 1000,
        List.of(
            both.place(Side.LEFT).shape().systemName(),
            both.place(Side.RIGHT).shape().systemName()));
  }

  private static String name(CompiledTwoWay.Field field) {
    return field.at().left().shape().name();
  }

  /** The tasks that are looked at, those first of which something was heard last; a pair once. */
  private List<Task> tasks(String id, CompiledTwoWay both) {
    List<Task> heard = new ArrayList<>();
    for (Side side : Side.values()) {
      var place = both.place(side).rule();
      DraftStart start = DraftStart.of(place.from());
      for (Sample sample : samples.of(id, start, MOST_EVENTS).samples()) {
        heard.add(new Task(side, sample.event().record(), sample.event().time()));
      }
    }
    heard.sort(Comparator.comparing(Task::heard).reversed());
    Set<String> known = new HashSet<>();
    List<Task> tasks = new ArrayList<>();
    for (Task task : heard) {
      if (tasks.size() < MOST && known.add(pairOf(id, task))) {
        tasks.add(task);
      }
    }
    return tasks;
  }

  private String pairOf(String id, Task task) {
    return world
        .synced(id, task.side(), task.record())
        .map(pair -> pair.key().hash())
        .orElseGet(() -> task.side() + " " + task.record());
  }

  private ProofRow row(BridgeVersion draft, Optional<BridgeVersion> live, Task task) {
    CompiledTwoWay both = draft.between().orElseThrow();
    Decision decision = decide(draft, task.side(), task.record());
    var place = both.place(task.side()).rule();
    Optional<CompiledTwoWay> liveBoth = live.flatMap(BridgeVersion::between);
    Optional<Decision> before =
        liveBoth
            .flatMap(one -> one.sideOf(place.system(), place.collection()))
            .map(side -> decide(live.orElseThrow(), side, task.record()));
    List<ProofCell> cells =
        both.fields().stream()
            .map(
                field -> {
                  Outcome now = outcome(decision, both, field);
                  @Nullable String was =
                      before
                          .map(made -> liveOutcome(made, liveBoth.orElseThrow(), field))
                          .filter(one -> !one.equals(now))
                          .map(Outcome::words)
                          .orElse(null);
                  return new ProofCell(now.text(), now.odd(), now.why(), was);
                })
            .toList();
    String verdict = decision.verdict().words();
    return new ProofRow(
        task.side() + "/" + task.record(),
        task.record(),
        title(decision, both),
        "",
        task.heard(),
        verdict,
        decision.failures().isEmpty()
            ? decision.because()
            : Words.sentence(decision.failures().getFirst()),
        before.map(made -> made.verdict().words()).filter(was -> !was.equals(verdict)).orElse(null),
        cells);
  }

  private Decision decide(BridgeVersion version, Side side, String record) {
    Event look = event(version, side, record);
    return Decider.decide(version, look, world, Mode.PLAIN);
  }

  private Event event(BridgeVersion version, Side side, String record) {
    CompiledTwoWay.CompiledPlace place = version.between().orElseThrow().place(side);
    return ReceivedEvents.event(SyncedLooks.event(place, record, Look.PLAIN, clock.instant()));
  }

  /**
   * The look at the task of a row.
   *
   * @param row its id
   * @throws ApiProblem if it is none
   */
  Event eventOf(BridgeVersion version, String row) {
    for (Side side : Side.values()) {
      if (row.startsWith(side + "/")) {
        return event(version, side, row.substring(side.name().length() + 1));
      }
    }
    throw ApiProblem.notFound("pair of the sheet", row);
  }

  /** The title of the task that was read, on the left if it is there. */
  private static String title(Decision decision, CompiledTwoWay both) {
    for (Side side : Side.values()) {
      String key = both.place(side).shape().titleField();
      for (CompiledTwoWay.Field field : both.fields()) {
        Value value = now(decision, field, side);
        if (field.at().of(side).shape().key().equals(key) && value != Nothing.NOTHING) {
          return Words.limited(value.display(), 120);
        }
      }
    }
    return "";
  }

  private static Outcome liveOutcome(
      Decision decision, CompiledTwoWay both, CompiledTwoWay.Field field) {
    return both.fields().stream()
        .filter(one -> one.rule().name().equals(field.rule().name()))
        .findFirst()
        .map(one -> outcome(decision, both, one))
        .orElse(Outcome.NOTHING);
  }

  private static Outcome outcome(
      Decision decision, CompiledTwoWay both, CompiledTwoWay.Field field) {
    String name = field.rule().name();
    if (decision.verdict() == Verdict.FAILED) {
      return decision.failures().stream()
          .filter(one -> one.field().filter(at -> isOf(field, at)).isPresent())
          .findFirst()
          .map(one -> new Outcome(one.found().orElse(""), Odd.FAILED, one.message()))
          .orElseGet(() -> asItIs(decision, field));
    }
    if (decision.verdict() == Verdict.CREATE) {
      return decision.tasks().stream().findFirst().map(task -> made(task, field)).orElseThrow();
    }
    return decision.synced().map(Synced::outcomes).orElse(List.of()).stream()
        .filter(one -> one.field().equals(name))
        .findFirst()
        .map(one -> outcome(one, decision, both, field))
        .orElseGet(() -> asItIs(decision, field));
  }

  private static boolean isOf(CompiledTwoWay.Field field, String name) {
    return name.equals(field.rule().name())
        || name.equals(field.at().left().shape().name())
        || name.equals(field.at().right().shape().name());
  }

  private static Outcome made(TaskDecision task, CompiledTwoWay.Field field) {
    Side to = Synced.sideOf(task.member());
    Value value =
        task.fields().getOrDefault(field.at().of(to).shape().key(), (Value) Nothing.NOTHING);
    return new Outcome(shown(field, to, value), Odd.NO, "");
  }

  private static Outcome outcome(
      FieldOutcome outcome, Decision decision, CompiledTwoWay both, CompiledTwoWay.Field field) {
    return switch (outcome) {
      case FieldOutcome.Unchanged same -> asItIs(decision, field);
      case FieldOutcome.Adopted same -> asItIs(decision, field);
      case FieldOutcome.Carried carried ->
          new Outcome(
              becomes(decision, field, carried.to(), carried.value()),
              to(carried.to()),
              "written to " + both.place(carried.to()).shape().systemName());
      case FieldOutcome.Merged merged -> {
        Side side = merged.left().isPresent() ? Side.LEFT : Side.RIGHT;
        Value value = merged.left().or(merged::right).orElse(Nothing.NOTHING);
        boolean two = merged.left().isPresent() && merged.right().isPresent();
        yield new Outcome(
            becomes(decision, field, side, value),
            two ? Odd.TO_BOTH : to(side),
            "what was done on both sides is brought together");
      }
      case FieldOutcome.NotCarried not ->
          new Outcome(asItIs(decision, field).text(), Odd.STAYS, not.because());
      case FieldOutcome.Conflict conflict ->
          new Outcome(
              apart(decision, field, Side.LEFT) + " ≠ " + apart(decision, field, Side.RIGHT),
              Odd.ASKED,
              conflict.because());
      case FieldOutcome.Waiting waiting ->
          new Outcome(
              asItIs(decision, field).text(),
              Odd.STAYS,
              "“%s” is not on the other side; it follows once that is there"
                  .formatted(waiting.on().task()));
      case FieldOutcome.Failed failed ->
          new Outcome(failed.problem().found(), Odd.FAILED, failed.problem().message());
    };
  }

  private static Odd to(Side side) {
    return side == Side.LEFT ? Odd.TO_LEFT : Odd.TO_RIGHT;
  }

  private static String becomes(
      Decision decision, CompiledTwoWay.Field field, Side to, Value value) {
    return apart(decision, field, to) + " → " + orEmpty(shown(field, to, value));
  }

  private static String apart(Decision decision, CompiledTwoWay.Field field, Side side) {
    return orEmpty(shown(field, side, now(decision, field, side)));
  }

  private static String orEmpty(String text) {
    return text.isBlank() ? "empty" : text;
  }

  private static Outcome asItIs(Decision decision, CompiledTwoWay.Field field) {
    for (Side side : Side.values()) {
      String text = shown(field, side, now(decision, field, side));
      if (!text.isBlank()) {
        return new Outcome(text, Odd.NO, "");
      }
    }
    return Outcome.NOTHING;
  }

  /** What a side holds, as far as it was read. */
  private static Value now(Decision decision, CompiledTwoWay.Field field, Side side) {
    Optional<JsonNode> record =
        decision.answers().stream()
            .filter(answer -> answer.lookup().equals(Synced.word(side)))
            .flatMap(answer -> answer.records().stream())
            .findFirst();
    CompiledTwoWay.FieldOf at = field.at().of(side);
    return record.isPresent()
            && at.part() == CompiledTwoWay.Part.FIELD
            && at.valueOf(at.read().in(record.get())) instanceof Value value
        ? value
        : Nothing.NOTHING;
  }

  private static String shown(CompiledTwoWay.Field field, Side side, Value value) {
    return Words.limited(Leaving.shown(field.at().of(side).shape(), value), 200);
  }
}
