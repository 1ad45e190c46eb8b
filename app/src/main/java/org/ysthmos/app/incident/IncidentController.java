package org.ysthmos.app.incident;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.incident.IncidentViews.IncidentLine;
import org.ysthmos.app.incident.IncidentViews.IncidentView;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.who.By;

/** Incidents: what failed of one cause, why, and what is done about it. */
@RestController
@RequestMapping(path = "/api/incidents", produces = MediaType.APPLICATION_JSON_VALUE)
class IncidentController {

  private static final int PAGE = 50;
  private static final int MOST_OPEN = 200;

  /** What a person writes down; may be empty where they only say that they are at it. */
  record Note(@Schema(nullable = true) @Nullable String text) {

    String words() {
      return text == null ? "" : text;
    }
  }

  /**
   * Incidents.
   *
   * @param open those that are not closed, those with most waiting first, 200 at most
   * @param openInAll how many are not closed
   * @param closed some that closed, the last first
   * @param next where more of those begin; null if there are none
   */
  record Incidents(
      List<IncidentLine> open,
      int openInAll,
      List<IncidentLine> closed,
      @Schema(nullable = true) @Nullable Long next) {}

  private final IncidentViews views;
  private final IncidentBook book;
  private final IncidentKeeper keeper;
  private final LiveFeed feed;

  IncidentController(IncidentViews views, IncidentBook book, IncidentKeeper keeper, LiveFeed feed) {
    this.views = views;
    this.book = book;
    this.keeper = keeper;
    this.feed = feed;
  }

  @GetMapping
  Incidents all(@RequestParam(required = false) @Nullable Long before) {
    IncidentViews.Closed closed = views.closed(before == null ? Long.MAX_VALUE : before, PAGE);
    IncidentViews.Open open = views.open(MOST_OPEN);
    return new Incidents(open.lines(), open.inAll(), closed.lines(), closed.next());
  }

  @GetMapping("/{id}")
  IncidentView one(@PathVariable long id) {
    return views.view(id);
  }

  /** A person is at it from now on. */
  @PutMapping("/{id}/mending")
  IncidentView mend(@PathVariable long id, @RequestBody Note note) {
    book.mend(id, note.words(), By.PERSON);
    return told(id);
  }

  /** Nobody is at it any more. */
  @DeleteMapping("/{id}/mending")
  IncidentView leave(@PathVariable long id) {
    book.leave(id, By.PERSON);
    return told(id);
  }

  /** Writes something down about it. */
  @PostMapping("/{id}/notes")
  IncidentView note(@PathVariable long id, @RequestBody Note note) {
    book.note(id, note.words(), By.PERSON);
    return told(id);
  }

  /** Looks at its system, now, and concludes anew. */
  @PostMapping("/{id}/look")
  IncidentView look(@PathVariable long id) {
    keeper.lookAgain(book.get(id));
    return views.view(id);
  }

  private IncidentView told(long id) {
    feed.changed("", "");
    return views.view(id);
  }
}
