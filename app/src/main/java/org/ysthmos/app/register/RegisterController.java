package org.ysthmos.app.register;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.register.Register.RegisterRow;
import org.ysthmos.app.register.RegisterMapper.CardRow;
import org.ysthmos.app.register.RegisterMapper.Judged;
import org.ysthmos.app.register.RegisterMapper.ViewRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** The register of all bridges: reading it, saying whose one is, and keeping views by name. */
@RestController
@RequestMapping(path = "/api/register", produces = MediaType.APPLICATION_JSON_VALUE)
class RegisterController {

  private static final int LONGEST_NAME = 200;
  private static final int LONGEST_VIEW_NAME = 100;
  private static final int LONGEST_QUERY = 2000;

  /** A view by its name, as the address says it behind the question mark. */
  record SavedView(String name, String query) {}

  record RegisterPage(List<RegisterRow> rows, List<SavedView> views) {}

  /**
   * What people say of a bridge.
   *
   * @param judged how sound they judge it; null if they do not
   * @param basedOn the revision that the person saw; 0 if there was none
   */
  record CardWish(
      String owner,
      String standIn,
      String department,
      @Schema(nullable = true) @Nullable Judged judged,
      int basedOn) {}

  private final Register register;
  private final RegisterMapper mapper;
  private final TransactionTemplate transaction;
  private final LiveFeed feed;
  private final AppClock clock;

  RegisterController(
      Register register,
      RegisterMapper mapper,
      TransactionTemplate transaction,
      LiveFeed feed,
      AppClock clock) {
    this.register = register;
    this.mapper = mapper;
    this.transaction = transaction;
    this.feed = feed;
    this.clock = clock;
  }

  @GetMapping
  RegisterPage page() {
    return new RegisterPage(register.rows(), views());
  }

  private List<SavedView> views() {
    return mapper.views().stream().map(row -> new SavedView(row.name(), row.query())).toList();
  }

  /** Says whose a bridge is, and how sound it is judged. */
  @PutMapping("/bridges/{id}")
  RegisterRow say(@PathVariable String id, @RequestBody CardWish wish) {
    List<String> texts =
        Stream.of(wish.owner(), wish.standIn(), wish.department()).map(String::strip).toList();
    if (texts.stream().anyMatch(text -> text.length() > LONGEST_NAME)) {
      throw refused("Too long", "A name has at most " + LONGEST_NAME + " characters.");
    }
    Instant now = clock.instant();
    CardRow card =
        new CardRow(
            id,
            texts.get(0),
            texts.get(1),
            texts.get(2),
            wish.judged(),
            wish.basedOn() + 1,
            now,
            By.PERSON.name());
    RegisterRow before = row(id);
    if (before.revision() != wish.basedOn() || !kept(card)) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          "Somebody else said whose this bridge is since you opened it. Open it again to see.");
    }
    feed.changed(id, "");
    return row(id);
  }

  /** Whether nobody else was quicker. */
  private boolean kept(CardRow card) {
    if (card.revision() > 1) {
      return mapper.change(card) == 1;
    }
    try {
      mapper.add(card);
      return true;
    } catch (DataIntegrityViolationException e) {
      return false;
    }
  }

  private RegisterRow row(String id) {
    return register.rows().stream()
        .filter(row -> row.id().equals(id))
        .findFirst()
        .orElseThrow(() -> ApiProblem.notFound("live bridge", id));
  }

  /** Keeps a view by a name; one of that name is replaced. */
  @PutMapping("/views")
  List<SavedView> keep(@RequestBody SavedView wish) {
    String called = wish.name().strip();
    if (called.isEmpty() || called.length() > LONGEST_VIEW_NAME) {
      throw refused("No name", "A view has a name of 1 to " + LONGEST_VIEW_NAME + " characters.");
    }
    if (wish.query().length() > LONGEST_QUERY) {
      throw refused("Too long", "A view says at most " + LONGEST_QUERY + " characters.");
    }
    Instant now = clock.instant();
    transaction.executeWithoutResult(
        status -> {
          int unused = mapper.removeView(called);
          mapper.addView(new ViewRow(called, wish.query(), now, By.PERSON.name()));
        });
    return views();
  }

  @DeleteMapping("/views")
  List<SavedView> remove(@RequestParam String name) {
    if (mapper.removeView(name) == 0) {
      throw ApiProblem.notFound("view", name);
    }
    return views();
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, title, detail);
  }
}
