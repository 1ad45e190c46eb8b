package org.ysthmos.app.sync;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.sync.SyncedHistory.StepOfField;
import org.ysthmos.app.sync.SyncedStepMapper.StepRow;

/** What became of a pair, trace by trace. */
@RestController
@RequestMapping(path = "/api/kept-pairs", produces = MediaType.APPLICATION_JSON_VALUE)
class SyncedHistoryController {

  private static final int PAGE = 30;

  /** Of a trace that another one caused, which is no person's wish. */
  private static final String BY_A_TRACE = "trace ";

  /**
   * What a trace came to.
   *
   * @param trace its id; empty if it is not kept any more
   * @param askedBy the person or program that asked for it; empty where an event came
   */
  record PairStep(long id, Instant at, String trace, String askedBy, List<StepOfField> fields) {}

  /** The newest first; {@code before} leads to the older ones and is null if there are none. */
  record PairSteps(List<PairStep> steps, @Schema(nullable = true) @Nullable Long before) {}

  private final SyncedStepMapper mapper;
  private final SyncedHistory history;

  SyncedHistoryController(SyncedStepMapper mapper, SyncedHistory history) {
    this.mapper = mapper;
    this.history = history;
  }

  @GetMapping("/{bridge}/{key}/steps")
  PairSteps steps(
      @PathVariable String bridge, @PathVariable String key, @RequestParam Optional<Long> before) {
    List<StepRow> rows = mapper.of(bridge, key, before.orElse(Long.MAX_VALUE), PAGE + 1);
    List<StepRow> page = rows.subList(0, Math.min(PAGE, rows.size()));
    return new PairSteps(
        page.stream().map(this::view).toList(), rows.size() > PAGE ? page.getLast().id() : null);
  }

  private PairStep view(StepRow row) {
    return new PairStep(
        row.id(),
        row.at(),
        Optional.ofNullable(row.traceId()).orElse(""),
        Optional.ofNullable(row.askedBy()).filter(by -> !by.startsWith(BY_A_TRACE)).orElse(""),
        history.read(row.fields()));
  }
}
