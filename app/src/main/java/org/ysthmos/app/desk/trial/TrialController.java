package org.ysthmos.app.desk.trial;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.desk.draft.DraftCompiler;
import org.ysthmos.app.desk.draft.DraftJson;
import org.ysthmos.app.desk.draft.DraftStart;
import org.ysthmos.app.desk.draft.Typed;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.desk.sample.Samples;
import org.ysthmos.app.desk.sample.SourceReading;
import org.ysthmos.app.example.Examples;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.StatusField;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.trial.PinnedExample;

/** Trying a draft on samples, pinning what comes out, and sending one event for real. */
@RestController
@RequestMapping(path = "/api/desk/drafts/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
class TrialController {

  /** What was pasted, uploaded or made by hand. */
  record SampleWish(String document, String text) {}

  /** The samples that were added. */
  record AddedSamples(List<String> ids) {}

  /** A sample to pin, under a name. */
  record PinWish(String document, String sample, String name) {}

  /** A status that somebody sets on a side. */
  record PlayedChange(Side side, String status) {}

  /**
   * Statuses to be set one after the other.
   *
   * @param field the table of statuses, by the name of its field in the document
   * @param left what both sides have agreed on at first
   * @param right the same
   */
  record PlayWish(
      String document, String field, String left, String right, List<PlayedChange> changes) {}

  /** The trace of a try. */
  record Tried(String trace) {}

  private final DeskTrial trial;
  private final ProofSheet proof;
  private final PairSheet pairs;
  private final RowsPreview rows;
  private final Samples samples;
  private final SourceReading source;
  private final SampleWorld world;
  private final Suggestions suggestions;
  private final Examples examples;
  private final Tries tries;
  private final Catalog catalog;

  TrialController(
      DeskTrial trial,
      ProofSheet proof,
      PairSheet pairs,
      RowsPreview rows,
      Samples samples,
      SourceReading source,
      SampleWorld world,
      Suggestions suggestions,
      Examples examples,
      Tries tries,
      Catalog catalog) {
    this.trial = trial;
    this.proof = proof;
    this.pairs = pairs;
    this.rows = rows;
    this.samples = samples;
    this.source = source;
    this.world = world;
    this.suggestions = suggestions;
    this.examples = examples;
    this.tries = tries;
    this.catalog = catalog;
  }

  /**
   * Tries a draft on samples: nothing is kept and nothing leaves.
   *
   * @param sample the one to look at
   * @param fresh whether lookups and the source are asked again
   */
  @PostMapping("/trial")
  DeskTrial.TrialView trial(
      @PathVariable String id,
      @RequestBody Typed typed,
      @RequestParam(defaultValue = "") String sample,
      @RequestParam(defaultValue = "false") boolean fresh) {
    if (fresh) {
      world.forget();
      source.forget();
    }
    return trial.run(id, typed.document(), sample);
  }

  @PostMapping("/proof")
  ProofSheet.SheetView proof(
      @PathVariable String id,
      @RequestParam(defaultValue = "false") boolean again,
      @RequestBody Typed typed) {
    if (again) {
      world.forget();
    }
    return proof.compute(id, typed.document());
  }

  /** When the rows that are known, or were read, would come round: nothing is kept. */
  @PostMapping("/rows")
  RowsPreview.RowsView rows(@PathVariable String id, @RequestBody Typed typed) {
    return rows.of(id, typed.document());
  }

  /** Plays changes of a status through: nothing is kept and nothing leaves. */
  @PostMapping("/played")
  List<StatusGrids.PlayedStep> play(@PathVariable String id, @RequestBody PlayWish wish) {
    return StatusGrids.find(DraftCompiler.compile(wish.document(), catalog).version(), wish.field())
        .orElseThrow(() -> ApiProblem.notFound("table of statuses", wish.field()))
        .play(
            wish.left(),
            wish.right(),
            wish.changes().stream()
                .map(change -> new StatusField.Setting(change.side(), change.status()))
                .toList());
  }

  @PostMapping("/suggestions")
  List<Suggestions.SuggestionView> suggestions(@PathVariable String id, @RequestBody Typed typed) {
    return suggestions.of(id, typed.document());
  }

  /** Adds samples out of a text: JSON, a JSON array, NDJSON; CloudEvents or bodies as they come. */
  @PostMapping("/samples")
  AddedSamples addSamples(@PathVariable String id, @RequestBody SampleWish wish) {
    DraftStart start = DraftStart.of(DraftJson.parse(wish.document()), catalog);
    return new AddedSamples(samples.add(id, start, wish.text()));
  }

  @DeleteMapping("/samples/{sample}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void removeSample(@PathVariable String id, @PathVariable String sample) {
    samples.remove(id, sample);
  }

  /** Pins a sample, or a row of a sheet of pairs, with what the draft makes of it now. */
  @PostMapping("/examples")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void pin(@PathVariable String id, @RequestBody PinWish wish) {
    BridgeVersion version = BridgeCompiler.compile(wish.document(), 1, catalog);
    Event event =
        version.between().isPresent()
            ? pairs.eventOf(version, wish.sample())
            : samples
                .find(id, DraftStart.of(DraftJson.parse(wish.document()), catalog), wish.sample())
                .event();
    Decision seen = Decider.decide(version, event, world, Mode.PLAIN);
    String name = wish.name().isBlank() ? event.record() : wish.name().strip();
    examples.add(id, List.of(PinnedExample.pin(name, event, seen, version, world)));
  }

  @DeleteMapping("/examples/{example}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void unpin(@PathVariable String id, @PathVariable String example) {
    examples.remove(id, example);
  }

  /** The pinned examples as NDJSON, as the check command reads them. */
  @GetMapping(path = "/examples", produces = "application/x-ndjson")
  String examples(@PathVariable String id) {
    return examples.ndjson(id);
  }

  /**
   * Sends one sample for real; its trace is marked as a try, and what it makes can be taken back.
   */
  @PostMapping("/tries")
  Tried send(@PathVariable String id, @RequestBody Typed typed, @RequestParam String sample) {
    if (sample.isBlank()) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "No event", "Choose the event that is to be sent.");
    }
    return new Tried(tries.send(id, typed.document(), sample, By.PERSON));
  }
}
