package org.ysthmos.app.courier;

import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.who.By;

/** Taking back what a try made. */
@RestController
class TakeBackController {

  private final TakeBack takeBack;

  TakeBackController(TakeBack takeBack) {
    this.takeBack = takeBack;
  }

  @PostMapping("/api/traces/{id}/take-back")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void takeBack(
      @PathVariable String id, @RequestParam(defaultValue = "false") boolean evenIfTouched) {
    takeBack.run(id, evenIfTouched, By.PERSON);
  }
}
