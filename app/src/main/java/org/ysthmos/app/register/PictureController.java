package org.ysthmos.app.register;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Duration;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.register.NoteMapper.NoteRow;
import org.ysthmos.app.register.PictureMapper.NewPicture;
import org.ysthmos.app.register.PictureMapper.PictureBytes;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** Pictures of the notes of a bridge. */
@RestController
@RequestMapping("/api/bridges/{bridge}/notes/{note}/pictures")
class PictureController {

  private static final int LARGEST = 2 << 20;
  private static final int MOST = 10;
  private static final int LONGEST_WORDS = 200;

  private final NoteMapper notes;
  private final PictureMapper mapper;
  private final LiveFeed feed;
  private final AppClock clock;

  PictureController(NoteMapper notes, PictureMapper mapper, LiveFeed feed, AppClock clock) {
    this.notes = notes;
    this.mapper = mapper;
    this.feed = feed;
    this.clock = clock;
  }

  /** The picture; it never changes. */
  @Hidden
  @GetMapping("/{id}")
  ResponseEntity<byte[]> picture(
      @PathVariable String bridge, @PathVariable long note, @PathVariable long id) {
    PictureBytes found = mapper.find(bridge, note, id);
    if (found == null) {
      throw ApiProblem.notFound("picture", String.valueOf(id));
    }
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(found.mediaType()))
        .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate().immutable())
        .body(found.picture());
  }

  /**
   * Adds a picture, which is the body as it is.
   *
   * @param shows in words what can be seen, for those who do not see it
   */
  @Hidden
  @PostMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void add(
      @PathVariable String bridge,
      @PathVariable long note,
      @RequestParam String shows,
      HttpServletRequest request)
      throws IOException {
    requireNote(bridge, note);
    String words = shows.strip();
    if (words.isEmpty() || words.length() > LONGEST_WORDS) {
      throw refused("Say in 1 to " + LONGEST_WORDS + " characters what the picture shows.");
    }
    byte[] picture = request.getInputStream().readNBytes(LARGEST + 1);
    if (picture.length > LARGEST) {
      throw refused("A picture has at most 2 MB. Take a smaller one, or cut out what matters.");
    }
    String type =
        PictureType.of(picture)
            .orElseThrow(() -> refused("It is no picture of the kinds PNG, JPEG, GIF and WebP."));
    NewPicture added =
        new NewPicture(note, words, type, picture, clock.instant(), By.PERSON.name());
    if (mapper.add(added, MOST) == 0) {
      throw refused("A note has at most " + MOST + " pictures. Write another note for more.");
    }
    feed.changed(bridge, "");
  }

  /** Takes a picture away: it is kept, and not shown any more. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void takeAway(@PathVariable String bridge, @PathVariable long note, @PathVariable long id) {
    requireNote(bridge, note);
    if (mapper.takeAway(note, id, clock.instant(), By.PERSON.name()) == 0) {
      throw ApiProblem.notFound("picture", String.valueOf(id));
    }
    feed.changed(bridge, "");
  }

  private void requireNote(String bridge, long note) {
    NoteRow row = notes.find(note);
    if (row == null || !row.bridgeId().equals(bridge)) {
      throw ApiProblem.notFound("note", String.valueOf(note));
    }
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, "Not kept", detail);
  }
}
