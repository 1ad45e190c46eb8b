package org.ysthmos.app.register;

import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.register.NoteMapper.BeforeRow;
import org.ysthmos.app.register.NoteMapper.Kind;
import org.ysthmos.app.register.NoteMapper.NoteRow;
import org.ysthmos.app.register.PictureMapper.PictureRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** What people write down about a bridge: notes and known troubles, with what they said before. */
@RestController
@RequestMapping(path = "/api/bridges/{bridge}/notes", produces = MediaType.APPLICATION_JSON_VALUE)
class NoteController {

  private static final int LONGEST = 4000;
  private static final int LONGEST_LINK = 1000;

  /** What a note said before. */
  record NoteBefore(String words, String link, Instant writtenAt, String writtenBy) {}

  /**
   * A picture of a note, which stands under the note's own path.
   *
   * @param shows in words what can be seen
   */
  record NotePicture(long id, String shows) {}

  /**
   * A note.
   *
   * @param link where it leads; empty if nowhere
   * @param overSince since when it does not hold any more; null while it does
   * @param pictures in the order in which they were added
   * @param before what it said before, the newest first
   */
  record NoteView(
      long id,
      Kind kind,
      String words,
      String link,
      int revision,
      Instant writtenAt,
      String writtenBy,
      @Schema(nullable = true) @Nullable Instant overSince,
      List<NotePicture> pictures,
      List<NoteBefore> before) {}

  /**
   * A note as it is to be.
   *
   * @param over whether it does not hold any more
   * @param basedOn the revision that the person saw; 0 for a new one
   */
  record NoteWish(Kind kind, String words, String link, boolean over, int basedOn) {}

  private final NoteMapper mapper;
  private final PictureMapper pictures;
  private final TransactionTemplate transaction;
  private final LiveFeed feed;
  private final AppClock clock;

  NoteController(
      NoteMapper mapper,
      PictureMapper pictures,
      TransactionTemplate transaction,
      LiveFeed feed,
      AppClock clock) {
    this.mapper = mapper;
    this.pictures = pictures;
    this.transaction = transaction;
    this.feed = feed;
    this.clock = clock;
  }

  /** All of a bridge, the newest first. */
  @GetMapping
  List<NoteView> notes(@PathVariable String bridge) {
    Map<Long, List<NoteBefore>> before =
        mapper.before(bridge).stream()
            .collect(
                Collectors.groupingBy(
                    BeforeRow::noteId,
                    Collectors.mapping(
                        row ->
                            new NoteBefore(
                                row.words(), row.link(), row.writtenAt(), row.writtenBy()),
                        Collectors.toList())));
    Map<Long, List<NotePicture>> shown =
        pictures.of(bridge).stream()
            .collect(
                Collectors.groupingBy(
                    PictureRow::noteId,
                    Collectors.mapping(
                        row -> new NotePicture(row.id(), row.shows()), Collectors.toList())));
    return mapper.of(bridge).stream()
        .map(
            row ->
                new NoteView(
                    row.id(),
                    row.kind(),
                    row.words(),
                    row.link(),
                    row.revision(),
                    row.writtenAt(),
                    row.writtenBy(),
                    row.overSince(),
                    shown.getOrDefault(row.id(), List.of()),
                    before.getOrDefault(row.id(), List.of())))
        .toList();
  }

  /** Writes a note down. */
  @PostMapping
  List<NoteView> add(@PathVariable String bridge, @RequestBody NoteWish wish) {
    try {
      mapper.add(row(0, bridge, wish, null));
    } catch (DataIntegrityViolationException e) {
      throw ApiProblem.notFound("bridge", bridge);
    }
    feed.changed(bridge, "");
    return notes(bridge);
  }

  /** Writes a note anew, or says that it does not hold any more; what it said before is kept. */
  @PutMapping("/{id}")
  List<NoteView> change(
      @PathVariable String bridge, @PathVariable long id, @RequestBody NoteWish wish) {
    NoteRow old = mapper.find(id);
    if (old == null || !old.bridgeId().equals(bridge)) {
      throw ApiProblem.notFound("note", String.valueOf(id));
    }
    NoteRow note = row(id, bridge, wish, old.overSince());
    if (!changed(note)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          "Somebody else wrote it anew since you opened it. Open it again to see how.");
    }
    feed.changed(bridge, "");
    return notes(bridge);
  }

  /** Whether nobody else was quicker. */
  private boolean changed(NoteRow note) {
    try {
      return Boolean.TRUE.equals(
          transaction.execute(
              status ->
                  mapper.keepBefore(note.id(), note.revision() - 1) == 1
                      && mapper.change(note) == 1));
    } catch (DuplicateKeyException e) {
      return false;
    }
  }

  private NoteRow row(long id, String bridge, NoteWish wish, @Nullable Instant overSince) {
    String words = wish.words().strip();
    String link = wish.link().strip();
    if (words.isEmpty() || words.length() > LONGEST) {
      throw refused("Write 1 to %,d characters.".formatted(LONGEST));
    }
    if (!link.isEmpty() && (link.length() > LONGEST_LINK || !leadsSomewhere(link))) {
      throw refused("“%s” is no address that begins with https:// or http://.".formatted(link));
    }
    Instant now = clock.instant();
    Instant over = overSince == null ? now : overSince;
    return new NoteRow(
        id,
        bridge,
        wish.kind(),
        words,
        link,
        wish.basedOn() + 1,
        now,
        By.PERSON.name(),
        wish.over() ? over : null);
  }

  /** Nothing that a browser would run. */
  private static boolean leadsSomewhere(String link) {
    try {
      URI address = URI.create(link);
      return List.of("http", "https").contains(String.valueOf(address.getScheme()))
          && address.getHost() != null;
    } catch (IllegalArgumentException e) {
      return false;
    }
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, "Not kept", detail);
  }
}
