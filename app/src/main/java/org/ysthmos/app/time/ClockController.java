package org.ysthmos.app.time;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Instant;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sets the time, where the settings allow it: for tests and for making a demo's past. */
@Hidden
@RestController
@ConditionalOnProperty("ysthmos.settable-clock")
class ClockController {

  record Now(Instant now) {}

  private final AppClock clock;

  ClockController(AppClock clock) {
    this.clock = clock;
  }

  @PutMapping("/api/clock")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void set(@RequestBody Now wanted) {
    clock.set(wanted.now());
  }

  @DeleteMapping("/api/clock")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void release() {
    clock.release();
  }
}
