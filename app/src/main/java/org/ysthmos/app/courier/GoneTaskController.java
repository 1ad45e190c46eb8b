package org.ysthmos.app.courier;

import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.who.By;

/** What a person says about a task that others removed. */
@RestController
class GoneTaskController {

  /**
   * The task is on its way.
   *
   * @param trace the id of the trace that makes it
   */
  record MadeAnew(String trace) {}

  private final GoneTasks tasks;

  GoneTaskController(GoneTasks tasks) {
    this.tasks = tasks;
  }

  @PostMapping(path = "/api/traces/{id}/make-anew", produces = MediaType.APPLICATION_JSON_VALUE)
  ResponseEntity<MadeAnew> makeAnew(@PathVariable String id) {
    return ResponseEntity.accepted().body(new MadeAnew(tasks.makeAnew(id, By.PERSON)));
  }

  @PostMapping("/api/traces/{id}/leave-removed")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void leave(@PathVariable String id) {
    tasks.leave(id, By.PERSON);
  }
}
