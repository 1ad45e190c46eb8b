package org.ysthmos.app.problem;

import java.time.Duration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.web.ErrorResponseException;

/** An answer that is no success: what is wrong and what to do. */
public final class ApiProblem extends ErrorResponseException {

  public ApiProblem(HttpStatus status, String title, String detail) {
    super(status);
    setTitle(title);
    setDetail(detail);
  }

  public ApiProblem(HttpStatus status, String title, String detail, Throwable cause) {
    super(status, cause);
    setTitle(title);
    setDetail(detail);
  }

  /** What cannot be done just now, and may be later: RFC 9110 section 10.2.3. */
  public static ApiProblem later(String title, String detail, Duration wait) {
    ApiProblem problem = new ApiProblem(HttpStatus.SERVICE_UNAVAILABLE, title, detail);
    problem.getHeaders().set(HttpHeaders.RETRY_AFTER, Long.toString(wait.toSeconds()));
    return problem;
  }

  public static ApiProblem notFound(String what, String id) {
    return new ApiProblem(
        HttpStatus.NOT_FOUND, "Not found", "There is no " + what + " “" + id + "”.");
  }
}
