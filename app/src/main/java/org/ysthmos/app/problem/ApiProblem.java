package org.ysthmos.app.problem;

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

  public static ApiProblem notFound(String what, String id) {
    return new ApiProblem(
        HttpStatus.NOT_FOUND, "Not found", "There is no " + what + " “" + id + "”.");
  }
}
