package org.ysthmos.app.recall;

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
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.recall.RecallViews.Items;
import org.ysthmos.app.recall.RecallViews.RecallView;
import org.ysthmos.app.who.By;

/** Taking back what bridges made. */
@RestController
@RequestMapping(path = "/api/recalls", produces = MediaType.APPLICATION_JSON_VALUE)
class RecallController {

  private static final int PAGE = 200;

  /**
   * What is to be listed: all that a bridge made in a span, or what an incident's bridges made, or
   * what one trace made.
   */
  record RecallWish(
      @Schema(nullable = true) @Nullable String bridge,
      @Schema(nullable = true) @Nullable Integer version,
      @Schema(nullable = true) @Nullable Instant from,
      @Schema(nullable = true) @Nullable Instant until,
      @Schema(nullable = true) @Nullable Long incident,
      @Schema(nullable = true) @Nullable String trace) {}

  /**
   * That it begins.
   *
   * @param records how many a person saw that are to go
   * @param evenIfChanged whether they go without being looked at, whoever changed them since
   */
  record RecallStart(int records, boolean evenIfChanged) {}

  /** Whether a record goes. */
  record Choosing(boolean chosen) {}

  private final RecallLists lists;
  private final Recalls recalls;
  private final RecallViews views;
  private final RecallLooks looks;
  private final LiveFeed feed;

  RecallController(
      RecallLists lists, Recalls recalls, RecallViews views, RecallLooks looks, LiveFeed feed) {
    this.lists = lists;
    this.recalls = recalls;
    this.views = views;
    this.looks = looks;
    this.feed = feed;
  }

  /**
   * What was taken back, the newest first.
   *
   * @param incident only what was taken back of this one; all if not given
   */
  @GetMapping
  List<RecallView> newest(@RequestParam(required = false) @Nullable Long incident) {
    return recalls.newest(incident).stream().map(views::view).toList();
  }

  /** What is under way, or broke off of late. */
  @GetMapping("/current")
  List<RecallView> current() {
    return recalls.current().stream().map(views::view).toList();
  }

  /** Lists what there is to take back; nothing is done about it. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  RecallView list(@RequestBody RecallWish wish) {
    long id = lists.list(scope(wish), By.PERSON);
    looks.raise();
    return view(id);
  }

  private RecallScope scope(RecallWish wish) {
    if (wish.incident() != null) {
      return lists.ofIncident(wish.incident());
    }
    if (wish.trace() != null) {
      return lists.ofTrace(wish.trace());
    }
    String bridge = wish.bridge();
    Instant from = wish.from();
    Instant until = wish.until();
    if (bridge == null || from == null || until == null) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "No span",
          "Say which bridge, from when and until when; or an incident; or a trace.");
    }
    return new RecallScope(List.of(bridge), wish.version(), null, null, from, until);
  }

  @GetMapping("/{id}")
  RecallView view(@PathVariable long id) {
    return views.view(recalls.get(id));
  }

  /** The records of it, the last made first. */
  @GetMapping("/{id}/records")
  Items records(@PathVariable long id, @RequestParam(required = false) @Nullable Long before) {
    return views.items(recalls.get(id).id(), before == null ? Long.MAX_VALUE : before, PAGE);
  }

  /** Says whether a record goes. */
  @PutMapping("/{id}/records/{delivery}")
  RecallView choose(
      @PathVariable long id, @PathVariable long delivery, @RequestBody Choosing choosing) {
    recalls.choose(id, delivery, choosing.chosen());
    return told(id);
  }

  /** Begins to take back what is chosen. */
  @PostMapping("/{id}/start")
  RecallView begin(@PathVariable long id, @RequestBody RecallStart start) {
    recalls.begin(id, start.records(), start.evenIfChanged(), By.PERSON);
    return told(id);
  }

  @PostMapping("/{id}/stop")
  RecallView stop(@PathVariable long id) {
    recalls.stop(id, By.PERSON);
    return told(id);
  }

  /** Goes on with what was left, and tries once more what could not be taken back. */
  @PostMapping("/{id}/go-on")
  RecallView goOn(@PathVariable long id) {
    recalls.goOn(id, By.PERSON);
    return told(id);
  }

  /** Makes again what was taken back. */
  @PostMapping("/{id}/make-again")
  RecallView makeAgain(@PathVariable long id) {
    recalls.makeAgain(id, By.PERSON);
    return told(id);
  }

  /** Forgets a list with which nobody began. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void forget(@PathVariable long id) {
    lists.forget(id);
  }

  private RecallView told(long id) {
    feed.changed("", "");
    return view(id);
  }
}
