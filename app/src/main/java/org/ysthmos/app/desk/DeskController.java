package org.ysthmos.app.desk;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.compare.Operators;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Option;
import org.ysthmos.core.step.StepKind;
import org.ysthmos.core.step.StepKinds;

/** The desk of a bridge: its draft, what the draft makes of real events, and putting it to work. */
@RestController
@RequestMapping(path = "/api/desk", produces = MediaType.APPLICATION_JSON_VALUE)
class DeskController {

  /** A place that a bridge can start from or lead to. */
  record PlaceView(
      String system,
      String systemName,
      String collection,
      String name,
      String record,
      List<String> kinds,
      List<String> required) {}

  /** Where bridges can start, and where they can lead. */
  record PlacesView(List<PlaceView> sources, List<PlaceView> targets) {}

  /** An option of a step; {@code type} is one of the closed set of option types. */
  record OptionView(String name, String type, List<String> words, boolean required, String about) {}

  /** A kind of step, for choosing one and filling in its options. */
  record StepKindView(
      String name,
      String family,
      String summary,
      boolean bare,
      boolean testing,
      String example,
      List<OptionView> options) {}

  /** What rules can be made of. */
  record LanguageView(
      List<StepKindView> steps,
      List<String> operators,
      List<String> tables,
      List<String> calendars) {}

  /**
   * A draft.
   *
   * @param document JSON; as it was typed
   * @param revision 0 if nothing was typed since the live version
   */
  record DraftView(
      String id,
      String document,
      int revision,
      @Schema(nullable = true) @Nullable Instant changedAt,
      @Schema(nullable = true) @Nullable Integer liveVersion) {}

  /** A draft in a list. */
  record DraftSummary(String id, String name, Instant changedAt) {}

  /** A new bridge between two places. */
  record NewBridge(
      String id,
      String name,
      String sourceSystem,
      String sourceCollection,
      String targetSystem,
      String targetCollection) {}

  /** A document as YAML, for people and for files. */
  record DocumentView(String yaml) {}

  /** A document taken from a file or typed as YAML. */
  record Imported(String document) {}

  /** A version of a bridge. */
  record VersionView(int number, Instant madeAt, boolean live, String yaml) {}

  /** What was typed. */
  record Typed(String document, int revision) {}

  private final Drafts drafts;
  private final DeskTrial trial;
  private final ProofSheet proof;
  private final NewDraft newDraft;
  private final Bridges bridges;
  private final Systems systems;
  private final Tables tables;
  private final SampleWorld world;

  DeskController(
      Drafts drafts,
      DeskTrial trial,
      ProofSheet proof,
      NewDraft newDraft,
      Bridges bridges,
      Systems systems,
      Tables tables,
      SampleWorld world) {
    this.drafts = drafts;
    this.trial = trial;
    this.proof = proof;
    this.newDraft = newDraft;
    this.bridges = bridges;
    this.systems = systems;
    this.tables = tables;
    this.world = world;
  }

  @GetMapping("/places")
  PlacesView places() {
    List<PlaceView> sources = new ArrayList<>();
    List<PlaceView> targets = new ArrayList<>();
    for (Systems.Connected system : systems.all()) {
      for (SystemDescription.Collection collection : system.description().collections().values()) {
        CollectionShape shape = collection.shape();
        List<String> kinds =
            collection
                .push()
                .map(p -> p.kinds().values().stream().distinct().toList())
                .orElse(List.of());
        PlaceView place =
            new PlaceView(
                shape.system(),
                shape.systemName(),
                shape.collection(),
                shape.name(),
                shape.recordWord(),
                kinds,
                shape.fields().stream()
                    .filter(FieldShape::required)
                    .map(FieldShape::name)
                    .toList());
        if (!kinds.isEmpty()) {
          sources.add(place);
        }
        if (!collection.create().isEmpty()) {
          targets.add(place);
        }
      }
    }
    return new PlacesView(sources, targets);
  }

  @GetMapping("/language")
  LanguageView language() {
    return new LanguageView(
        StepKinds.ALL.stream().map(DeskController::stepKind).toList(),
        List.copyOf(Operators.KEYS.sequencedKeySet()),
        tables.all().keySet().stream().sorted().toList(),
        tables.calendars().keySet().stream().sorted().toList());
  }

  private static StepKindView stepKind(StepKind kind) {
    return new StepKindView(
        kind.name(),
        kind.family().title(),
        kind.summary(),
        kind.bare(),
        kind.testing(),
        kind.examples().getFirst().written(),
        kind.options().stream().map(DeskController::option).toList());
  }

  private static OptionView option(Option option) {
    return switch (option.type()) {
      case Option.Words words ->
          new OptionView(option.name(), "words", words.words(), option.required(), option.about());
      case Option.Plain plain ->
          new OptionView(
              option.name(),
              DocumentNode.wordOf(plain),
              List.of(),
              option.required(),
              option.about());
    };
  }

  @GetMapping("/drafts")
  List<DraftSummary> all() {
    return drafts.all().stream()
        .map(
            draft ->
                new DraftSummary(
                    draft.id(),
                    DraftJson.parse(draft.document()).path("name").asText(draft.id()),
                    draft.changedAt().orElseThrow()))
        .toList();
  }

  @PostMapping("/drafts")
  DraftView add(@RequestBody NewBridge wish) {
    drafts.add(wish.id(), newDraft.document(wish));
    return one(wish.id());
  }

  @GetMapping("/drafts/{id}")
  DraftView one(@PathVariable String id) {
    return view(drafts.find(id));
  }

  private DraftView view(Drafts.Draft draft) {
    return new DraftView(
        draft.id(),
        draft.document(),
        draft.revision(),
        draft.changedAt().orElse(null),
        bridges.live(draft.id()).map(live -> live.version().number()).orElse(null));
  }

  @PutMapping("/drafts/{id}")
  DraftView keep(@PathVariable String id, @RequestBody Typed typed) {
    return view(drafts.keep(id, typed.document(), typed.revision()));
  }

  @DeleteMapping("/drafts/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@PathVariable String id) {
    drafts.drop(id);
  }

  /** The draft as YAML: as a bridge document is written if it can be used, else as it stands. */
  @PostMapping("/document")
  DocumentView document(@RequestBody Typed typed) {
    return new DocumentView(DraftJson.yaml(typed.document()));
  }

  /**
   * YAML as a draft; nothing is kept.
   *
   * @throws org.ysthmos.core.document.DocumentException if it is no YAML
   */
  @PostMapping("/imported")
  Imported imported(@RequestBody DocumentView document) {
    String json = DraftJson.of(document.yaml());
    DraftJson.requireObject(json);
    return new Imported(json);
  }

  /** All versions of a bridge, newest first. */
  @GetMapping("/versions/{id}")
  List<VersionView> versions(@PathVariable String id) {
    int live = bridges.live(id).map(now -> now.version().number()).orElse(0);
    return bridges.versions(id).stream()
        .map(v -> new VersionView(v.number(), v.madeAt(), v.number() == live, v.document()))
        .toList();
  }

  /** Tries a draft on real events: nothing is kept and nothing leaves. */
  @PostMapping("/trial")
  DeskTrial.TrialView trial(
      @RequestBody Typed typed,
      @RequestParam(defaultValue = "0") int sample,
      @RequestParam(defaultValue = "false") boolean fresh) {
    if (fresh) {
      world.forget();
    }
    return trial.run(typed.document(), sample);
  }

  @PostMapping("/drafts/{id}/proof")
  ProofSheet.SheetView proof(@PathVariable String id, @RequestBody Typed typed) {
    return proof.compute(id, typed.document());
  }

  /** Puts a draft to work as a new version; the draft is done with then. */
  @PostMapping("/drafts/{id}/live")
  DraftView goLive(@PathVariable String id, @RequestBody Typed typed) {
    Drafts.Draft kept = drafts.keep(id, typed.document(), typed.revision());
    BridgeDefinition definition = BridgeReader.read(DocumentNode.parse(kept.document()));
    if (!definition.id().equals(id)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Another bridge",
          "The draft says that it is the bridge “" + definition.id() + "”, not “" + id + "”.");
    }
    bridges.put(BridgeWriter.write(definition));
    drafts.drop(id);
    return one(id);
  }
}
