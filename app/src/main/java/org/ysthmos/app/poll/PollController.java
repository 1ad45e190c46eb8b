package org.ysthmos.app.poll;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.gateway.CollectionRef;

/** What is asked, how far it was followed, and asking at once. */
@RestController
class PollController {

  /**
   * A collection that is asked for changes.
   *
   * @param everySeconds the shortest interval that a live bridge asks for; 0 if none asks any more
   * @param begunAt when it was first followed; what stood there before is not told
   * @param askedAt when it answered last
   * @param nextAt when it is asked next
   * @param reading whether it is being read now
   * @param problem why it could not be read; empty if it could
   */
  record PollView(
      String system,
      String collection,
      long everySeconds,
      Instant begunAt,
      @Schema(nullable = true) @Nullable Instant askedAt,
      Instant nextAt,
      boolean reading,
      String problem) {}

  private final PollMapper polls;
  private final PollPlan plan;
  private final Poller poller;

  PollController(PollMapper polls, PollPlan plan, Poller poller) {
    this.polls = polls;
    this.plan = plan;
    this.poller = poller;
  }

  @GetMapping(path = "/api/polls", produces = MediaType.APPLICATION_JSON_VALUE)
  List<PollView> all() {
    Map<CollectionRef, java.time.Duration> intervals = plan.all();
    return polls.all().stream()
        .map(
            row -> {
              var every = intervals.get(new CollectionRef(row.systemId(), row.collectionId()));
              String problem = row.problem();
              return new PollView(
                  row.systemId(),
                  row.collectionId(),
                  every == null ? 0 : every.toSeconds(),
                  row.begunAt(),
                  row.askedAt(),
                  row.nextAt(),
                  row.state() == PollState.READING,
                  problem == null ? "" : problem);
            })
        .toList();
  }

  /** Asks at once, whatever the interval says. */
  @PostMapping("/api/systems/{system}/collections/{collection}/ask")
  @ResponseStatus(HttpStatus.ACCEPTED)
  void ask(@PathVariable String system, @PathVariable String collection) {
    if (!poller.now(system, collection)) {
      throw ApiProblem.notFound("collection that is asked for changes", system + "/" + collection);
    }
  }
}
