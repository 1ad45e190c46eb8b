package org.ysthmos.app.problem;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonMappingException;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import org.ysthmos.app.store.Journal;
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

  @Override
  protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException unreadable,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    ProblemDetail problem = ProblemDetail.forStatus(status);
    problem.setTitle("The body cannot be read");
    problem.setDetail(why(unreadable.getCause()));
    return handleExceptionInternal(unreadable, problem, headers, status, request);
  }

  private static String why(@Nullable Throwable cause) {
    if (cause instanceof JsonMappingException mapping && !mapping.getPath().isEmpty()) {
      String at =
          mapping.getPath().stream()
              .map(one -> one.getFieldName() == null ? "" + one.getIndex() : one.getFieldName())
              .collect(Collectors.joining("/"));
      return "What stands at “" + at + "” is not what is taken there.";
    }
    if (cause instanceof JsonProcessingException json) {
      var at = json.getLocation();
      return "It is no JSON that is taken here"
          + (at == null ? "." : " (line " + at.getLineNr() + ", column " + at.getColumnNr() + ").");
    }
    return "A body is needed.";
  }

  @ExceptionHandler(Journal.Full.class)
  ProblemDetail full(Journal.Full e) {
    ProblemDetail problem = ProblemDetail.forStatus(HttpStatus.SERVICE_UNAVAILABLE);
    problem.setTitle("Nothing can be written just now");
    problem.setDetail("Nothing was changed: %s. Try again in a while.".formatted(e.getMessage()));
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
