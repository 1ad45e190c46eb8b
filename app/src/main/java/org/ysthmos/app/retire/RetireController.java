package org.ysthmos.app.retire;

import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;

/** Retiring a bridge that is held. */
@RestController
@RequestMapping(path = "/api/bridges/{id}/retirement", produces = MediaType.APPLICATION_JSON_VALUE)
class RetireController {

  private static final int LONGEST_REASON = 500;

  private final Bridges bridges;
  private final TraceQueue traces;
  private final DeliveryQueue deliveries;
  private final WorkSignals signals;
  private final LiveFeed feed;

  RetireController(
      Bridges bridges,
      TraceQueue traces,
      DeliveryQueue deliveries,
      WorkSignals signals,
      LiveFeed feed) {
    this.bridges = bridges;
    this.traces = traces;
    this.deliveries = deliveries;
    this.signals = signals;
    this.feed = feed;
  }

  /**
   * What still waits for a bridge.
   *
   * @param events that were received and not decided; they pass by when it is retired
   * @param deliveries that are decided and not made; it cannot be retired before they are
   */
  record WaitingView(int events, int deliveries) {}

  /** What still waits for a bridge. */
  @GetMapping
  WaitingView waiting(@PathVariable String id) {
    if (bridges.live(id).isEmpty()) {
      throw ApiProblem.notFound("live bridge", id);
    }
    int open = deliveries.ofBridge(id);
    return new WaitingView(Math.max(0, traces.waiting(id) - traces.delivering(id)), open);
  }

  /**
   * Why a bridge is retired.
   *
   * @param events how many events the person saw waiting; if more wait by now, nothing is done
   */
  record RetireWish(String because, int events) {}

  /** Retires a held bridge: what waits passes by, and nothing is received any more. */
  @PostMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void retire(@PathVariable String id, @RequestBody RetireWish wish) {
    String because = wish.because().strip();
    if (because.isEmpty() || because.length() > LONGEST_REASON) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No reason",
          "Say why in at most " + LONGEST_REASON + " characters; others will read it.");
    }
    WaitingView waiting = waiting(id);
    if (!bridges.isHeld(id)) {
      throw refused("Not held", "Hold the bridge first, so that nothing more is sent meanwhile.");
    }
    if (waiting.deliveries() > 0) {
      throw refused(
          "Deliveries wait",
          "%d of its deliveries are decided and not made. Release it until they are, then hold and"
                  .formatted(waiting.deliveries())
              + " retire it.");
    }
    if (waiting.events() > wish.events()) {
      throw refused(
          "More events wait",
          (waiting.events() == 1 ? "1 event waits" : waiting.events() + " events wait")
              + " by now, and would pass by. Look again.");
    }
    if (!bridges.retire(id, because, By.PERSON)) {
      throw refused("Not held", "Somebody released the bridge meanwhile.");
    }
    signals.raiseAll();
    feed.changed(id, "");
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }
}
