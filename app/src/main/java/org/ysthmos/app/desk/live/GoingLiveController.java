package org.ysthmos.app.desk.live;

import java.time.Instant;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.BridgeHistory;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.RuleDifferences;
import org.ysthmos.app.desk.draft.Typed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;

/** The versions of a bridge: comparing them, and putting a draft to work. */
@RestController
@RequestMapping(path = "/api/desk", produces = MediaType.APPLICATION_JSON_VALUE)
class GoingLiveController {

  /** A version of a bridge. */
  record VersionView(int number, Instant madeAt, boolean live, String yaml) {}

  private final GoingLive going;
  private final Bridges bridges;
  private final BridgeHistory history;
  private final Catalog catalog;

  GoingLiveController(GoingLive going, Bridges bridges, BridgeHistory history, Catalog catalog) {
    this.going = going;
    this.bridges = bridges;
    this.history = history;
    this.catalog = catalog;
  }

  /** All versions of a bridge, newest first. */
  @GetMapping("/versions/{id}")
  List<VersionView> versions(@PathVariable String id) {
    int live = bridges.live(id).map(now -> now.version().number()).orElse(0);
    return history.versions(id).stream()
        .map(v -> new VersionView(v.number(), v.madeAt(), v.number() == live, v.document()))
        .toList();
  }

  /** What a draft has other than an earlier version. */
  @PostMapping("/versions/{id}/{number}/differences")
  List<RuleDifferences.RuleDifference> differences(
      @PathVariable String id, @PathVariable int number, @RequestBody Typed typed) {
    String before =
        history.versions(id).stream()
            .filter(version -> version.number() == number)
            .map(BridgeHistory.Kept::document)
            .findFirst()
            .orElseThrow(() -> ApiProblem.notFound("version", id + " " + number));
    BridgeVersion then = BridgeCompiler.compile(before, number, catalog);
    BridgeVersion now = BridgeCompiler.compile(typed.document(), 1, catalog);
    return RuleDifferences.between(then, now);
  }

  /** What going live would change and cost. */
  @PostMapping("/drafts/{id}/going")
  GoingLive.GoingView look(@PathVariable String id, @RequestBody Typed typed) {
    return going.look(id, typed.document());
  }

  /** Puts a draft to work as a new version; the draft is done with then. */
  @PostMapping("/drafts/{id}/live")
  void go(
      @PathVariable String id,
      @RequestBody Typed typed,
      @RequestParam(defaultValue = "false") boolean acceptExamples,
      @RequestParam(defaultValue = "false") boolean acceptLoops) {
    going.go(id, typed.document(), typed.revision(), acceptExamples, acceptLoops);
  }
}
