package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.BridgeViews.BridgeSummary;
import org.ysthmos.app.bridge.BridgeViews.BridgeView;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.document.DocumentNode;

/** Reading bridges, and putting a document to work. */
@RestController
@RequestMapping(path = "/api/bridges", produces = MediaType.APPLICATION_JSON_VALUE)
class BridgeController {

  private static final int LONGEST_REASON = 500;

  private final Bridges bridges;
  private final Loops loops;
  private final Ceilings ceilings;
  private final WorkSignals signals;
  private final LiveFeed feed;

  BridgeController(
      Bridges bridges, Loops loops, Ceilings ceilings, WorkSignals signals, LiveFeed feed) {
    this.bridges = bridges;
    this.loops = loops;
    this.ceilings = ceilings;
    this.signals = signals;
    this.feed = feed;
  }

  @GetMapping
  List<BridgeSummary> all() {
    return bridges.live().stream().map(BridgeViews::summary).toList();
  }

  /**
   * A bridge that was retired.
   *
   * @param version the one that was live last
   */
  record RetiredView(String id, String name, int version, Instant since, String because) {}

  /** The bridges that receive and deliver nothing more. */
  @GetMapping("/retired")
  List<RetiredView> retired() {
    return bridges.retired().stream()
        .map(
            one ->
                new RetiredView(
                    one.id(),
                    DocumentNode.parse(one.document()).need("name").text(),
                    one.number(),
                    one.since(),
                    one.because()))
        .toList();
  }

  @GetMapping("/{id}")
  BridgeView one(@PathVariable String id) {
    return bridges
        .live(id)
        .map(live -> BridgeViews.view(live, ceilings.used(id, live.ceiling())))
        .orElseThrow(() -> ApiProblem.notFound("live bridge", id));
  }

  @PutMapping(path = "/{id}/document", consumes = "application/yaml")
  BridgeView put(
      @PathVariable String id,
      @RequestBody String document,
      @RequestParam(defaultValue = "false") boolean acceptLoops) {
    String named = BridgeReader.read(DocumentNode.parse(document)).id();
    if (!named.equals(id)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Another bridge",
          "The document is of the bridge “" + named + "”, the address of “" + id + "”.");
    }
    BridgeVersion unused = loops.putToWork(document, acceptLoops, By.PERSON);
    return one(id);
  }

  /**
   * The circles that a live bridge is in.
   *
   * @param saidYes those that a person said yes to when it went live, each in words
   */
  record LoopsView(List<CircleView> circles, List<String> saidYes) {}

  /** The circles that a bridge is in with others that are live. */
  @GetMapping("/{id}/loops")
  LoopsView loops(@PathVariable String id) {
    return new LoopsView(loops.of(id), bridges.loopsYes(id).lines().toList());
  }

  /** Why a bridge is held. */
  record HoldWish(String because) {}

  /** Holds a bridge: it decides and delivers nothing; what arrives meanwhile is kept. */
  @PutMapping("/{id}/hold")
  BridgeView hold(@PathVariable String id, @RequestBody HoldWish wish) {
    String because = wish.because().strip();
    if (because.isEmpty() || because.length() > LONGEST_REASON) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No reason",
          "Say why in at most " + LONGEST_REASON + " characters; others will read it.");
    }
    if (!bridges.hold(id, because, By.PERSON)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "Not to be held", "The bridge is not live, or it is held already.");
    }
    return changed(id);
  }

  /**
   * Releases a held bridge: what was received meanwhile goes on its way. If its ceiling held it,
   * what it did before counts no more.
   */
  @DeleteMapping("/{id}/hold")
  BridgeView release(@PathVariable String id) {
    if (bridges.live(id).flatMap(Bridges.Live::hold).filter(Bridges.Hold::byEngine).isPresent()) {
      ceilings.clear(id);
    }
    if (!bridges.release(id, By.PERSON)) {
      throw new ApiProblem(HttpStatus.CONFLICT, "Not held", "The bridge is not held.");
    }
    signals.raiseAll();
    return changed(id);
  }

  private BridgeView changed(String id) {
    feed.changed(id, "");
    return one(id);
  }
}
