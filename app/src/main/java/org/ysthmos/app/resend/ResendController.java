package org.ysthmos.app.resend;

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
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.resend.ResendMapper.OutcomeRow;
import org.ysthmos.app.resend.ResendMapper.ResendRow;
import org.ysthmos.app.who.By;
import org.ysthmos.core.decide.Verdict;

/** Sending again together what waits of one incident. */
@RestController
@RequestMapping(path = "/api/resends", produces = MediaType.APPLICATION_JSON_VALUE)
class ResendController {

  /**
   * What is to be sent again.
   *
   * @param traces how many a person saw that there are
   */
  record ResendWish(long incident, int traces) {}

  /**
   * How sending again together stands.
   *
   * @param title what the incident was called when it began
   * @param total how many are meant
   * @param sent how many were sent so far
   * @param failed how many of those failed again
   * @param underWay how many of those have not ended
   */
  record ResendView(
      long id,
      long incident,
      String title,
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

  /** Begins to send again what waits of an incident. */
  @PostMapping
  @ResponseStatus(HttpStatus.ACCEPTED)
  ResendView begin(@RequestBody ResendWish wish) {
    return view(resends.begin(wish.incident(), wish.traces(), By.PERSON));
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
