package org.ysthmos.app.resend;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.resend.ResendMapper.OutcomeRow;
import org.ysthmos.app.resend.ResendMapper.ResendRow;
import org.ysthmos.app.trace.CarriedBy;
import org.ysthmos.app.who.By;
import org.ysthmos.core.decide.Verdict;

/** Sending again together what waits of one incident, or what a person chose. */
@RestController
@RequestMapping(path = "/api/resends", produces = MediaType.APPLICATION_JSON_VALUE)
class ResendController {

  /**
   * What is to be sent again.
   *
   * @param incident whose traces are meant; null if some were chosen
   * @param chosen the ids of traces; null if an incident's are meant
   * @param traces how many a person saw that can be sent
   * @param rules by which they cross; the live ones if null
   */
  record ResendWish(
      @Schema(nullable = true) @Nullable Long incident,
      @Schema(nullable = true) @Nullable List<String> chosen,
      int traces,
      @Schema(nullable = true) @Nullable CarriedBy rules) {}

  /**
   * How sending again together stands.
   *
   * @param incident null if some were chosen
   * @param title what the incident was called when it began, or how many were chosen
   * @param total how many are meant
   * @param sent how many were sent so far
   * @param failed how many of those failed again
   * @param underWay how many of those have not ended
   */
  record ResendView(
      long id,
      @Schema(nullable = true) @Nullable Long incident,
      String title,
      CarriedBy rules,
      int total,
      int sent,
      int failed,
      int underWay,
      ResendState state,
      String problem,
      Instant begunAt,
      @Schema(nullable = true) @Nullable Instant endedAt) {}

  private final Resends resends;

  ResendController(Resends resends) {
    this.resends = resends;
  }

  /** What was sent again together of late, the newest first. */
  @GetMapping
  List<ResendView> recent() {
    return resends.recent().stream().map(this::view).toList();
  }

  /** Begins to send again what waits of an incident, or what was chosen. */
  @PostMapping
  @ResponseStatus(HttpStatus.ACCEPTED)
  ResendView begin(@RequestBody ResendWish wish) {
    CarriedBy rules = Objects.requireNonNullElse(wish.rules(), CarriedBy.LIVE);
    Long incident = wish.incident();
    List<String> chosen = wish.chosen();
    if ((incident == null) == (chosen == null)) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "Of what", "Say either an incident or which were chosen.");
    }
    return view(
        incident == null
            ? resends.begin(Objects.requireNonNull(chosen), wish.traces(), rules, By.PERSON)
            : resends.begin(incident, wish.traces(), rules, By.PERSON));
  }

  /** Stops; what was not sent waits as before. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stop(@PathVariable long id) {
    resends.stop(id);
  }

  private ResendView view(ResendRow row) {
    List<OutcomeRow> outcome = resends.outcome(row);
    return new ResendView(
        row.id(),
        row.incidentId(),
        row.title(),
        row.rules(),
        row.total(),
        row.sent(),
        count(outcome, Verdict.FAILED),
        count(outcome, null),
        row.state(),
        row.problem() == null ? "" : row.problem(),
        row.begunAt(),
        row.endedAt());
  }

  private static int count(List<OutcomeRow> outcome, @Nullable Verdict verdict) {
    return outcome.stream()
        .filter(one -> one.verdict() == verdict)
        .mapToInt(OutcomeRow::traces)
        .sum();
  }
}
