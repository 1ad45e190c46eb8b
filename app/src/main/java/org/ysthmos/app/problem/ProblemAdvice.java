package org.ysthmos.app.problem;

import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import org.ysthmos.core.document.DocumentException;

/** Turns what goes wrong into problem details; what nobody expected is logged and named so. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {

  private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

  @ExceptionHandler(DocumentException.class)
  ProblemDetail document(DocumentException e) {
    ProblemDetail problem = ProblemDetail.forStatus(HttpStatus.UNPROCESSABLE_ENTITY);
    problem.setTitle("The document cannot be used");
    problem.setDetail(e.getMessage());
    problem.setProperty(
        "problems",
        e.problems().stream()
            .map(
                p ->
                    Map.of(
                        "path", p.path(),
                        "line", p.line(),
                        "column", p.column(),
                        "message", p.message()))
            .toList());
    return problem;
  }

  @ExceptionHandler(RuntimeException.class)
  ProblemDetail unexpected(RuntimeException e) {
    LOG.error("unexpected", e);
    ProblemDetail problem = ProblemDetail.forStatus(HttpStatus.INTERNAL_SERVER_ERROR);
    problem.setTitle("Something broke here");
    problem.setDetail("Nothing was changed by this request. The log of the application says more.");
    return problem;
  }
}
