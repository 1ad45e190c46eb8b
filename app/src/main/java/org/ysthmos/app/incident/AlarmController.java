package org.ysthmos.app.incident;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;
import org.ysthmos.core.document.DocumentException;

/** Who is told of incidents. */
@RestController
@RequestMapping(path = "/api/alarms", produces = MediaType.APPLICATION_JSON_VALUE)
class AlarmController {

  private static final int LONGEST = 20_000;

  /**
   * Who is told.
   *
   * @param document as YAML; empty if nobody is
   */
  record AlarmDocument(String document) {}

  private final Alarms alarms;
  private final Messages messages;
  private final Telling telling;

  AlarmController(Alarms alarms, Messages messages, Telling telling) {
    this.alarms = alarms;
    this.messages = messages;
    this.telling = telling;
  }

  @GetMapping
  AlarmDocument read() {
    return new AlarmDocument(alarms.document());
  }

  /** Tells people by this document from now on. */
  @PutMapping
  AlarmDocument change(@RequestBody AlarmDocument wanted) {
    if (wanted.document().length() > LONGEST) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "Too long",
          "The document may have at most %,d characters.".formatted(LONGEST));
    }
    try {
      alarms.change(wanted.document(), By.PERSON);
      telling.waitNoMore();
    } catch (DocumentException e) {
      throw unusable(e);
    }
    return read();
  }

  /** Sends a trial message by every way; what each came to. */
  @PostMapping("/try")
  List<Messages.TrialOutcome> tryAll() {
    try {
      return messages.tryAll();
    } catch (DocumentException e) {
      throw unusable(e);
    }
  }

  private static ApiProblem unusable(DocumentException e) {
    return new ApiProblem(
        HttpStatus.UNPROCESSABLE_ENTITY, "Cannot be used", String.valueOf(e.getMessage()), e);
  }
}
