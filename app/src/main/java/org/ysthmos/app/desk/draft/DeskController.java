package org.ysthmos.app.desk.draft;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
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
import org.ysthmos.app.bridge.Bridges;

/** The drafts of bridges, kept as they are typed. */
@RestController
@RequestMapping(path = "/api/desk", produces = MediaType.APPLICATION_JSON_VALUE)
class DeskController {

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

  /**
   * A new bridge between two places, or one that changes the record that its event came from.
   *
   * @param targetSystem empty, as the collection, if the record is changed
   * @param kinds the kinds of event it carries; none for all
   * @param starter the id of a starter; empty to begin with what is required alone
   */
  record NewBridge(
      String id,
      String name,
      String sourceSystem,
      String sourceCollection,
      List<String> kinds,
      String targetSystem,
      String targetCollection,
      String starter) {}

  /** A new bridge out of another's document. */
  record CopyWish(String id, String name, String document) {}

  /** A document as YAML, for people and for files. */
  record DocumentView(String yaml) {}

  /** A document taken from a file or typed as YAML. */
  record Imported(String document) {}

  private final Drafts drafts;
  private final NewDraft newDraft;
  private final Bridges bridges;

  DeskController(Drafts drafts, NewDraft newDraft, Bridges bridges) {
    this.drafts = drafts;
    this.newDraft = newDraft;
    this.bridges = bridges;
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

  /** A new draft out of a document: of another bridge, or from a file. */
  @PostMapping("/copies")
  DraftView copy(@RequestBody CopyWish wish) {
    drafts.add(wish.id(), newDraft.copy(wish.document(), wish.id(), wish.name()));
    return one(wish.id());
  }

  /** The starters, each with whether it suits these places. */
  @GetMapping("/starters")
  List<NewDraft.StarterView> starters(
      @RequestParam String sourceSystem,
      @RequestParam String sourceCollection,
      @RequestParam String targetSystem,
      @RequestParam String targetCollection) {
    return newDraft.starters(sourceSystem, sourceCollection, targetSystem, targetCollection);
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
}
