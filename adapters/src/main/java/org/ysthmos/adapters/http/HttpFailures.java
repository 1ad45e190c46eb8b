package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpProtocol.ProblemShape;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/**
 * Turns an answer that is no success into a failure with its kind. Statuses as RFC 9110 has them.
 */
public final class HttpFailures {

  private final SystemDescription system;
  private final ProblemShape problem;

  public HttpFailures(SystemDescription system, ProblemShape problem) {
    this.system = system;
    this.problem = problem;
  }

  /**
   * @param writes whether the call may have changed something, so that no answer leaves it unknown
   */
  public Failure of(HttpCaller.Answer answer, boolean writes) {
    return switch (answer) {
      case Answered answered -> ofStatus(answered, writes);
      case HttpCaller.NoRoom full ->
          Failure.noRoom(system.name() + " leaves no room for another call just now", full.time());
      case HttpCaller.NotSent notSent ->
          Failure.of(
                  FailureKind.UNREACHABLE,
                  system.name() + " cannot be reached (" + notSent.why() + ")")
              .withRemedy(
                  notSent.certificate()
                      ? "Nothing was sent. Its certificate is not trusted, has expired or fits another name; ask who keeps it"
                      : "Nothing was sent. Check that the system is up and its address right");
      case HttpCaller.NoAnswer none ->
          writes
              ? unknown(system.name() + " gave no answer (" + none.why() + ")")
              : Failure.of(
                  FailureKind.UNREACHABLE, system.name() + " gave no answer (" + none.why() + ")");
    };
  }

  /** The answer is not as the system's document says. */
  public Failure shapeChanged(String what) {
    return Failure.of(FailureKind.SHAPE_CHANGED, "In the answer of " + system.name() + " " + what)
        .withRemedy("Compare the system's document with what it sends now");
  }

  private Failure ofStatus(Answered answered, boolean writes) {
    int status = answered.status();
    String said = said(answered);
    if (isFull(answered)) {
      return Failure.of(FailureKind.QUOTA_FULL, said)
          .withCode(Integer.toString(status))
          .withRemedy(
              "Finish or remove something there, or ask the owner of "
                  + system.name()
                  + " for more room; then send again");
    }
    Failure failure =
        switch (status) {
          case 401 ->
              Failure.of(FailureKind.NOT_SIGNED_IN, said)
                  .withRemedy("Give the connection to " + system.name() + " a valid token");
          case 403 ->
              Failure.of(FailureKind.NOT_ALLOWED, said)
                  .withRemedy("Ask the owner of " + system.name() + " for the permission");
          case 404, 410 ->
              Failure.of(FailureKind.NOT_FOUND, said)
                  .withRemedy("Check that what the bridge names still exists there");
          case 409, 412 -> Failure.of(FailureKind.CHANGED_MEANWHILE, said);
          case 429 -> Failure.of(FailureKind.RATE_LIMITED, said);
          default -> status >= 500 ? serverError(said, writes) : refused(answered, said);
        };
    Failure coded = failure.withCode(Integer.toString(status));
    return answered.retryAfter().map(coded::withRetryAfter).orElse(coded);
  }

  private boolean isFull(Answered answered) {
    return problem
        .full()
        .filter(full -> full.at().in(answered.body()).asText().equals(full.word()))
        .isPresent();
  }

  private static Failure serverError(String said, boolean writes) {
    return writes ? unknown(said) : Failure.of(FailureKind.UNREACHABLE, said);
  }

  private static Failure unknown(String message) {
    return Failure.of(FailureKind.ANSWER_UNKNOWN, message)
        .withRemedy("It will be looked for by its key before it is tried again");
  }

  private Failure refused(Answered answered, String said) {
    JsonNode field = problem.field().in(answered.body());
    Failure failure =
        Failure.of(FailureKind.VALUE_REFUSED, said)
            .withRemedy("Change the rule of the field, or what the system takes, then send again");
    return field.isTextual() ? failure.withField(field.textValue(), "") : failure;
  }

  private String said(Answered answered) {
    JsonNode message = problem.message().in(answered.body());
    String text = message.isValueNode() ? ": " + message.asText() : "";
    return system.name() + " answered " + answered.status() + text;
  }
}
