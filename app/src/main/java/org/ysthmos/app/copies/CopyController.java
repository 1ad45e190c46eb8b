package org.ysthmos.app.copies;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.bridge.RuleDifferences.RuleDifference;
import org.ysthmos.app.copies.Copies.Standing;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.rehearsal.TallyWords;
import org.ysthmos.app.who.By;
import org.ysthmos.core.copy.Following;

/** Copies of a bridge: which there are, what each would take over, and letting them follow. */
@RestController
@RequestMapping(path = "/api/bridges/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
class CopyController {

  /** So many are let follow by one wish. */
  private static final int MOST = 200;

  /**
   * A bridge with its copies.
   *
   * @param original the id of the bridge that it is a copy of itself; empty if it is none
   * @param copies those that are at work, by name
   */
  record CopiesView(
      String name, int version, String original, String originalName, List<CopyView> copies) {}

  /**
   * A copy.
   *
   * @param seen to be given back when it is let follow
   * @param follows whether there is anything that it would take over
   * @param differences what would become another in it, in sentences
   * @param own the parts that it has of its own, and keeps
   * @param both the parts that both changed; it keeps its own unless the original's is chosen
   * @param ifTaken what would become another beyond that, if the original's were taken of those
   * @param hindrance why it cannot follow; empty if it can
   */
  record CopyView(
      String id,
      String name,
      int version,
      boolean held,
      String seen,
      boolean follows,
      List<RuleDifference> differences,
      List<String> own,
      List<String> both,
      List<RuleDifference> ifTaken,
      String hindrance) {}

  /** Which bridge it is a copy of. */
  record CopyOf(String original) {}

  /**
   * A copy that is to follow.
   *
   * @param take the parts that both changed, of which the original's is wanted
   */
  record FollowOne(String copy, String seen, List<String> take) {}

  record FollowWish(List<FollowOne> copies) {}

  /**
   * What came of it.
   *
   * @param problem why it did not follow; empty if it did
   */
  record Followed(String copy, String problem) {}

  /**
   * What the last events of a copy would have come to, had it followed.
   *
   * @param differences counted; or why nothing can be said
   */
  record FollowResults(int events, int differing, List<String> differences) {}

  private final Copies copies;
  private final Bridges bridges;
  private final LiveFeed feed;

  CopyController(Copies copies, Bridges bridges, LiveFeed feed) {
    this.copies = copies;
    this.bridges = bridges;
    this.feed = feed;
  }

  /** The copies of a bridge, and which it is a copy of itself. */
  @GetMapping("/copies")
  CopiesView of(@PathVariable String id) {
    String original = copies.originalOf(id).orElse("");
    return new CopiesView(
        bridges.nameOf(id),
        bridges.live(id).map(live -> live.version().number()).orElse(0),
        original,
        original.isEmpty() ? "" : bridges.nameOf(original),
        copies.of(id).stream().map(CopyController::view).toList());
  }

  private static CopyView view(Standing one) {
    return new CopyView(
        one.row().bridgeId(),
        one.live().version().definition().name(),
        one.live().version().number(),
        one.live().hold().isPresent(),
        one.seen(),
        one.following().anyTaken(),
        one.differences(),
        paths(one, Following.Kind.OWN),
        paths(one, Following.Kind.BOTH),
        one.ifTaken(),
        one.hindrance());
  }

  private static List<String> paths(Standing one, Following.Kind kind) {
    return one.following().parts().stream()
        .filter(part -> part.kind() == kind)
        .map(Following.Part::path)
        .toList();
  }

  /** Takes down that it is a copy of another bridge, as that is now. */
  @PutMapping("/original")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void isCopy(@PathVariable String id, @RequestBody CopyOf of) {
    copies.isCopy(id, of.original(), By.PERSON);
    feed.changed(id, "");
  }

  /** From now on it stands for itself; nothing of it changes. */
  @DeleteMapping("/original")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void standsAlone(@PathVariable String id) {
    if (!copies.standsAlone(id)) {
      throw ApiProblem.notFound("copy", id);
    }
    feed.changed(id, "");
  }

  /** What the last events of a copy would have come to, had it followed. */
  @GetMapping("/copies/{copy}/results")
  FollowResults results(@PathVariable String id, @PathVariable String copy) {
    return copies
        .results(copies.get(id, copy, Set.of()))
        .map(
            came ->
                new FollowResults(
                    Math.toIntExact(came.tally().events()),
                    Math.toIntExact(came.tally().differing()),
                    TallyWords.of(came)))
        .orElse(new FollowResults(0, 0, List.of("what its events came to is not kept")));
  }

  /** Lets some copies follow, each as a whole or not at all. */
  @PostMapping("/copies/follow")
  List<Followed> follow(@PathVariable String id, @RequestBody FollowWish wish) {
    if (wish.copies().size() > MOST) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY, "Too many", "At most " + MOST + " follow at a time.");
    }
    List<Followed> followed = new ArrayList<>();
    for (FollowOne one : wish.copies()) {
      followed.add(new Followed(one.copy(), problem(id, one)));
      feed.changed(one.copy(), "");
    }
    return followed;
  }

  private String problem(String id, FollowOne one) {
    try {
      copies.follow(id, one.copy(), one.seen(), Set.copyOf(one.take()), By.PERSON);
      return "";
    } catch (ApiProblem refused) {
      return String.valueOf(refused.getBody().getDetail());
    }
  }
}
