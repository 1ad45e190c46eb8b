package org.ysthmos.app.desk.trial;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.sample.Sample;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** All samples against all fields, computed for a draft and compared with the live version. */
@Component
class ProofSheet {

  /** What is odd about a cell. */
  enum Odd {
    NO,
    EMPTY,
    WARNED,
    FAILED,
    /** Of a pair: it would be written to the left, the right, or both. */
    TO_LEFT,
    TO_RIGHT,
    TO_BOTH,
    /** Of a pair: a person would be asked. */
    ASKED,
    /** Of a pair: both sides would keep what they have, and not the same. */
    STAYS
  }

  /**
   * One value of one sample.
   *
   * @param why what is odd about it, in words
   * @param live what the live version gives, where that is something else
   */
  record ProofCell(
      String text, Odd odd, String why, @Schema(nullable = true) @Nullable String live) {}

  /**
   * One sample, or one pair of tasks.
   *
   * @param title what a pair is called; empty for a sample
   * @param place what the place is called that it came from, where the draft hears several
   */
  record ProofRow(
      String id,
      String record,
      String title,
      String place,
      Instant time,
      String verdict,
      String because,
      @Schema(nullable = true) @Nullable String liveVerdict,
      List<ProofCell> cells) {}

  /** A column: a target field that the draft has a rule for. */
  record ProofColumn(String key, String name) {}

  /**
   * The sheet; rows newest first.
   *
   * @param sides what both sides are called, where the rows are pairs of tasks; empty otherwise
   */
  record SheetView(
      List<ProofColumn> columns, List<ProofRow> rows, long micros, List<String> sides) {}

  private final Catalog catalog;
  private final Samples samples;
  private final SampleWorld world;
  private final Bridges bridges;
  private final PairSheet pairs;

  ProofSheet(
      Catalog catalog, Samples samples, SampleWorld world, Bridges bridges, PairSheet pairs) {
    this.catalog = catalog;
    this.samples = samples;
    this.world = world;
    this.bridges = bridges;
    this.pairs = pairs;
  }

  /**
   * @throws org.ysthmos.core.document.DocumentException if not even a part of the draft can be used
   */
  SheetView compute(String id, String json) {
    DraftCompiler.Compiled compiled = DraftCompiler.compile(json, catalog);
    BridgeVersion draft =
        compiled.version().orElseThrow(() -> new DocumentException(compiled.problems()));
    Optional<BridgeVersion> live = bridges.live(id).map(Bridges.Live::version);
    if (draft.between().isPresent()) {
      return pairs.compute(id, draft, live);
    }
    List<Sample> all = samples.of(id, DraftStart.of(draft), Samples.MOST).samples();
    long start = System.nanoTime();
    List<FieldShape> fields =
        draft.plan().allFields().stream().map(CompiledField::target).distinct().toList();
    List<ProofRow> rows = all.stream().map(sample -> row(draft, live, sample, fields)).toList();
    return new SheetView(
        fields.stream().map(field -> new ProofColumn(field.key(), field.name())).toList(),
        rows,
        (System.nanoTime() - start) / 1000,
        List.of());
  }

  private ProofRow row(
      BridgeVersion draft, Optional<BridgeVersion> live, Sample sample, List<FieldShape> fields) {
    Event event = sample.event();
    Decision decision = Decider.decide(draft, event, world, Mode.PLAIN);
    Optional<Decision> before =
        live.map(version -> Decider.decide(version, event, world, Mode.PLAIN));
    List<ProofCell> cells = new ArrayList<>(fields.size());
    for (FieldShape field : fields) {
      cells.add(cell(decision, before, field));
    }
    String verdict = decision.verdict().words();
    return new ProofRow(
        sample.id(),
        event.record(),
        "",
        draft.places().isEmpty() ? "" : placeOf(draft, event),
        event.time(),
        verdict,
        decision.failures().isEmpty()
            ? decision.because()
            : Words.sentence(decision.failures().getFirst()),
        before.map(made -> made.verdict().words()).filter(was -> !was.equals(verdict)).orElse(null),
        cells);
  }

  private static String placeOf(BridgeVersion draft, Event event) {
    return draft.seenFrom(event.system(), event.collection()).source().name();
  }

  private static ProofCell cell(Decision decision, Optional<Decision> before, FieldShape field) {
    String text = text(decision, field);
    String live =
        before.map(made -> text(made, field)).filter(was -> !was.equals(text)).orElse(null);
    Optional<Failure> failure =
        decision.failures().stream()
            .filter(one -> one.field().filter(field.name()::equals).isPresent())
            .findFirst();
    if (failure.isPresent()) {
      return new ProofCell(
          failure.get().found().orElse(""), Odd.FAILED, failure.get().message(), live);
    }
    Optional<String> warning =
        decision.warnings().stream()
            .filter(one -> one.field().equals(field.key()))
            .map(Decision.Warning::message)
            .findFirst();
    if (warning.isPresent()) {
      return new ProofCell(text, Odd.WARNED, warning.get(), live);
    }
    boolean empty = text.isBlank() && decision.verdict() == Verdict.CREATE;
    return new ProofCell(text, empty ? Odd.EMPTY : Odd.NO, empty ? "there is no value" : "", live);
  }

  private static String text(Decision decision, FieldShape field) {
    if (decision.tasks().isEmpty()) {
      return "";
    }
    Value value = decision.task().getOrDefault(field.key(), Nothing.NOTHING);
    return Words.limited(Leaving.shown(field, value), 400);
  }
}
