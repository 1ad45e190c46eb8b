package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpProtocol.ProblemShape;
import org.ysthmos.adapters.system.SignIn;
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
              .withRemedy("Nothing was sent. " + remedy(notSent.trouble()));
      case HttpCaller.NoAnswer none -> noAnswer(none, writes);
    };
  }

  private static String remedy(HttpCaller.Trouble trouble) {
    return switch (trouble) {
      case CERTIFICATE ->
          "Its certificate is not trusted, has expired or fits another name; look at it under Systems, or ask who keeps it";
      case NO_TLS -> "What answers there speaks no TLS; is it the port for http:// ?";
      case CONNECTION -> "Check that the system is up and its address right";
    };
  }

  private Failure noAnswer(HttpCaller.NoAnswer none, boolean writes) {
    String message = system.name() + " gave no answer (" + none.why() + ")";
    boolean plain = "http".equalsIgnoreCase(system.address().getScheme());
    // What speaks TLS answers plain words with an alert, or with nothing at all.
    boolean garbled = none.why().contains("NoHttpResponse") || none.why().contains("Protocol");
    if (plain && garbled && !writes) {
      return Failure.of(FailureKind.UNREACHABLE, message)
          .withRemedy("If TLS is spoken there, the address begins with https://");
    }
    return writes ? unknown(message) : Failure.of(FailureKind.UNREACHABLE, message);
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
          case 401 -> Failure.of(FailureKind.NOT_SIGNED_IN, said).withRemedy(signIn(answered));
          case 403 ->
              Failure.of(FailureKind.NOT_ALLOWED, said)
                  .withRemedy("Ask the owner of " + system.name() + " for the permission");
          case 404, 410 ->
              Failure.of(FailureKind.NOT_FOUND, said)
                  .withRemedy("Check that what the bridge names still exists there");
          case 409, 412 -> Failure.of(FailureKind.CHANGED_MEANWHILE, said);
          case 429 -> Failure.of(FailureKind.RATE_LIMITED, said);
          default -> {
            if (status >= 500) {
              yield serverError(said, writes);
            }
            yield writes ? refused(answered, said) : misunderstood(answered, said);
          }
        };
    Failure coded = failure.withCode(Integer.toString(status));
    return answered.retryAfter().map(coded::withRetryAfter).orElse(coded);
  }

  /** What is wrong with the sign-in, by what the system asks for (RFC 9110 section 11.6.1). */
  private String signIn(Answered answered) {
    if (system.signIn().isEmpty()) {
      return system.name() + " wants to be signed in to; say sign-in in its document";
    }
    SignIn ours = system.signIn().get();
    List<String> asked =
        answered.challenges().stream()
            .map(challenge -> challenge.strip().split("[ ,]", 2)[0])
            .filter(scheme -> !scheme.isEmpty())
            .toList();
    String wanted = String.join(" or ", asked);
    return switch (ours) {
      case SignIn.Basic basic when asked.isEmpty() || holds(asked, "Basic") ->
          "Give the connection to " + system.name() + " a valid user and password";
      case SignIn.Basic basic -> "It takes no user and password here; it asks for " + wanted;
      case SignIn.Bearer bearer when !asked.isEmpty() && !holds(asked, "Bearer") ->
          "If the token is right, it is not taken as one: it asks for " + wanted;
      case SignIn.Bearer bearer -> "Give the connection to " + system.name() + " a valid token";
      case SignIn.Key key ->
          "Give the connection to %s a valid key for its header %s"
              .formatted(system.name(), key.header());
    };
  }

  private static boolean holds(List<String> schemes, String one) {
    return schemes.stream().anyMatch(one::equalsIgnoreCase);
  }

  /** A question that the system did not take. */
  private Failure misunderstood(Answered answered, String said) {
    boolean tls = answered.body().asText().contains("plain HTTP") || said.contains("plain HTTP");
    if (tls && "http".equalsIgnoreCase(system.address().getScheme())) {
      return Failure.of(FailureKind.UNREACHABLE, said)
          .withRemedy("TLS is spoken there: the address begins with https://");
    }
    return Failure.of(FailureKind.SHAPE_CHANGED, said)
        .withRemedy("Compare the call in the system's document with what the system takes now");
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
