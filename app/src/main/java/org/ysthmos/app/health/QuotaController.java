package org.ysthmos.app.health;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.health.QuotaMapper.QuotaRow;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.load.QuotaCourse;

/** How a system fills. */
@RestController
@RequestMapping(path = "/api/systems", produces = MediaType.APPLICATION_JSON_VALUE)
class QuotaController {

  /**
   * How a system filled in the last days.
   *
   * @param points how full it was, in the order of time
   * @param since from where on the pace is reckoned; null while there is none
   * @param perDay how much is added in a day; null while that is not known
   * @param fullAt when it is full at this pace; null if it does not fill, or that is not known
   * @param fillers the bridges that made something there in that time, the one with most first
   */
  record FillingView(
      List<FillingPoint> points,
      @Schema(nullable = true) @Nullable Instant since,
      @Schema(nullable = true) @Nullable Double perDay,
      @Schema(nullable = true) @Nullable Instant fullAt,
      List<Quotas.Filler> fillers) {}

  /** How full it was at a moment. */
  record FillingPoint(Instant at, long used, long most) {}

  private final Quotas quotas;
  private final Systems systems;

  QuotaController(Quotas quotas, Systems systems) {
    this.quotas = quotas;
    this.systems = systems;
  }

  @GetMapping("/{id}/quota")
  FillingView filling(@PathVariable String id) {
    if (systems.find(id).isEmpty()) {
      throw ApiProblem.notFound("system", id);
    }
    Quotas.Filling filling = quotas.filling(id);
    Optional<QuotaCourse> course = filling.course();
    return new FillingView(
        filling.points().stream().map(QuotaController::point).toList(),
        course.map(QuotaCourse::since).orElse(null),
        course.map(QuotaCourse::perDay).orElse(null),
        course.flatMap(QuotaCourse::fullAt).orElse(null),
        filling.fillers());
  }

  private static FillingPoint point(QuotaRow row) {
    return new FillingPoint(row.at(), row.used(), row.most());
  }
}
