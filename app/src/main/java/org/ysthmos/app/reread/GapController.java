package org.ysthmos.app.reread;

import java.time.Instant;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.gap.Gap;
import org.ysthmos.app.gap.GapPlace;
import org.ysthmos.app.gap.Gaps;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;

/** Time that is missing here, for a person to see. */
@RestController
@RequestMapping(path = "/api/gaps", produces = MediaType.APPLICATION_JSON_VALUE)
class GapController {

  /**
   * A span of time of which nothing was known, since the data was restored.
   *
   * @param places where events came from meanwhile
   * @param checks the bridges whose pairs are checked
   */
  record GapView(
      long id, Instant from, Instant until, List<GapPlaceView> places, List<GapCheckView> checks) {}

  /**
   * Where events came from meanwhile.
   *
   * @param name for example {@code Tickets, Climate Desk}
   * @param way how what happened there meanwhile comes to be known
   * @param read whether it was read again
   */
  record GapPlaceView(
      String system, String collection, String name, GapPlace.Way way, boolean read) {}

  /**
   * A bridge whose pairs are checked.
   *
   * @param begun whether that was begun; it comes after what is read again
   */
  record GapCheckView(String bridge, String name, boolean begun) {}

  private final Gaps gaps;
  private final Systems systems;
  private final Bridges bridges;
  private final LiveFeed feed;

  GapController(Gaps gaps, Systems systems, Bridges bridges, LiveFeed feed) {
    this.gaps = gaps;
    this.systems = systems;
    this.bridges = bridges;
    this.feed = feed;
  }

  /** Those of which a person did not say yet that no more is to be said, the newest first. */
  @GetMapping
  List<GapView> open() {
    return gaps.open().stream().map(this::view).toList();
  }

  private GapView view(Gap gap) {
    return new GapView(
        gap.id(),
        gap.from(),
        gap.until(),
        gaps.places(gap).stream().map(this::view).toList(),
        gaps.checks(gap).stream()
            .map(
                check ->
                    new GapCheckView(check.bridge(), bridges.nameOf(check.bridge()), check.begun()))
            .toList());
  }

  private GapPlaceView view(GapPlace place) {
    return new GapPlaceView(
        place.system(),
        place.collection(),
        systems
            .find(place.system(), place.collection())
            .map(shape -> shape.name() + ", " + shape.systemName())
            .orElse(place.system() + "/" + place.collection()),
        place.way(),
        place.readUntil() != null);
  }

  /** Says that no more is to be said of one. */
  @PostMapping("/{id}/seen")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void seen(@PathVariable long id) {
    if (!gaps.seen(id, By.PERSON)) {
      throw ApiProblem.notFound("missing time", Long.toString(id));
    }
    feed.changed("", "");
  }
}
