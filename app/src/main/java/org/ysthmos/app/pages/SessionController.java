package org.ysthmos.app.pages;

import java.time.Instant;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.Settings;
import org.ysthmos.app.time.AppClock;

/** What the screens need to know before they show anything. */
@RestController
class SessionController {

  /**
   * The time of the application and how it is shown.
   *
   * @param zone an IANA zone id
   */
  record Session(Instant now, String zone) {}

  private final AppClock clock;
  private final Settings settings;

  SessionController(AppClock clock, Settings settings) {
    this.clock = clock;
    this.settings = settings;
  }

  @GetMapping(path = "/api/session", produces = MediaType.APPLICATION_JSON_VALUE)
  Session session() {
    return new Session(clock.instant(), settings.zone().getId());
  }
}
