package org.ysthmos.app.fullcheck;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.fullcheck.FullCheckViews.FoundDifference;
import org.ysthmos.app.fullcheck.FullCheckViews.FullCheckView;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.who.By;
import org.ysthmos.core.decide.Difference;
import org.ysthmos.core.sync.Side;

/** Full checks: both lists of a bridge that goes both ways, held against what was agreed. */
@RestController
@RequestMapping(path = "/api/full-checks", produces = MediaType.APPLICATION_JSON_VALUE)
class FullCheckController {

  private static final int PAGE = 100;

  /** The bridge that is to be checked. */
  record CheckWish(String bridge) {}

  /**
   * What is to be put right: all of some kinds, or single ones.
   *
   * @param kinds null if single ones are given
   * @param numbers null if kinds are given
   * @param leads the side that is right as a whole where both have the task, so that the other
   *     follows it once; null if the bridge says what is
   */
  record RepairWish(
      @Schema(nullable = true) @Nullable List<Difference.Kind> kinds,
      @Schema(nullable = true) @Nullable List<Integer> numbers,
      @Schema(nullable = true) @Nullable Side leads) {}

  private final FullChecks checks;
  private final FullCheckViews views;
  private final FullCheckReader reader;
  private final Bridges bridges;
  private final LiveFeed feed;

  FullCheckController(
      FullChecks checks,
      FullCheckViews views,
      FullCheckReader reader,
      Bridges bridges,
      LiveFeed feed) {
    this.checks = checks;
    this.views = views;
    this.reader = reader;
    this.bridges = bridges;
    this.feed = feed;
  }

  /**
   * The checks of a bridge.
   *
   * @param left the place on the left, for example {@code Works, Grounds Board}
   * @param checks the newest first
   */
  record FullCheckList(String bridgeName, String left, String right, List<FullCheckView> checks) {}

  /** Those of a bridge. */
  @GetMapping
  FullCheckList ofBridge(@RequestParam String bridge) {
    return new FullCheckList(
        bridges.nameOf(bridge),
        views.place(bridge, Side.LEFT),
        views.place(bridge, Side.RIGHT),
        checks.ofBridge(bridge).stream().map(views::view).toList());
  }

  /** Begins to read both lists; nothing is written. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  FullCheckView begin(@RequestBody CheckWish wish) {
    long id = checks.begin(wish.bridge(), By.PERSON);
    reader.raise();
    return told(id);
  }

  @GetMapping("/{id}")
  FullCheckView view(@PathVariable long id) {
    return views.view(checks.get(id));
  }

  /**
   * What it found, in order.
   *
   * @param kind only those of this one; all if not given
   * @param after the number after which they begin
   */
  @GetMapping("/{id}/differences")
  List<FoundDifference> found(
      @PathVariable long id,
      @RequestParam(required = false) Difference.@Nullable Kind kind,
      @RequestParam(defaultValue = "0") int after) {
    return views.found(checks.get(id), kind, after, PAGE);
  }

  /** Begins to put right what is chosen: each pair is looked at as it is then. */
  @PostMapping("/{id}/repair")
  FullCheckView repair(@PathVariable long id, @RequestBody RepairWish wish) {
    checks.repair(id, wish.kinds(), wish.numbers(), wish.leads());
    return told(id);
  }

  /** Those that are two, though they may be the same. */
  record PartWish(List<Integer> numbers) {}

  /** Takes tasks that may be the same for two; each of them then lacks its other one. */
  @PostMapping("/{id}/part")
  FullCheckView part(@PathVariable long id, @RequestBody PartWish wish) {
    checks.part(id, wish.numbers(), By.PERSON);
    return told(id);
  }

  /** Tasks that are not made on the other side. */
  record LeaveWish(List<Integer> numbers) {}

  /** Leaves tasks as they are: they are not made on the other side, whatever becomes of them. */
  @PostMapping("/{id}/leave")
  FullCheckView leave(@PathVariable long id, @RequestBody LeaveWish wish) {
    checks.leaveAlone(id, wish.numbers(), By.PERSON);
    return told(id);
  }

  @PostMapping("/{id}/stop")
  FullCheckView stop(@PathVariable long id) {
    checks.stop(id);
    return told(id);
  }

  private FullCheckView told(long id) {
    FullCheckView view = view(id);
    feed.changed(view.bridge(), "");
    return view;
  }
}
