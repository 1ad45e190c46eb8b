package org.ysthmos.adapters.dav;

import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.ysthmos.adapters.http.HttpCaller;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.http.HttpCaller.Sending;
import org.ysthmos.adapters.http.HttpFailures;
import org.ysthmos.adapters.http.HttpLimiter;
import org.ysthmos.adapters.http.HttpProtocol.ProblemShape;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.load.RateLimiter;

/** The requests of WebDAV and its kin. */
final class DavCalls implements AutoCloseable {

  private static final int LONGEST_TAG = 300;

  private static final String XML = "application/xml";

  private final SystemDescription system;
  private final HttpCaller caller;
  private final HttpFailures failures;
  private final RateLimiter limiter;

  DavCalls(SystemDescription system, Surroundings surroundings) {
    this.system = system;
    this.limiter = new RateLimiter(system.limit());
    this.caller = new HttpCaller(system, new HttpLimiter(limiter, Optional.empty()), surroundings);
    // Answers are XML or text; there is no message in them that a person would read.
    Pointer nowhere = Pointer.parse("/error");
    this.failures = new HttpFailures(system, new ProblemShape(nowhere, nowhere, Optional.empty()));
  }

  RateLimiter limiter() {
    return limiter;
  }

  /** A call that did not come to what was asked. */
  static final class Failed extends Exception {
    private final transient Failure failure;

    Failed(Failure failure) {
      super(failure.message());
      this.failure = failure;
    }

    Failure failure() {
      return failure;
    }
  }

  /**
   * Asks for properties of a resource and of its members (RFC 4918 section 9.1).
   *
   * @param properties names in braces-namespace form
   * @param each gets each resource as it comes
   */
  void list(URI at, List<String> properties, Consumer<Multistatus.Response> each, CallLog log)
      throws Failed {
    String body = "<propfind xmlns=\"DAV:\"><prop>" + elements(properties) + "</prop></propfind>";
    Optional<String> unused =
        multistatus(Purpose.READ, "PROPFIND", at, Map.of("Depth", "1"), body, each, log);
  }

  /**
   * Asks what changed since a token (RFC 6578 section 3.2).
   *
   * @param token empty to get one, with all members
   */
  Multistatus changes(URI at, String token, List<String> properties, CallLog log) throws Failed {
    String body =
        "<sync-collection xmlns=\"DAV:\"><sync-token>%s</sync-token><sync-level>1</sync-level><prop>%s</prop></sync-collection>"
            .formatted(escape(token), elements(properties));
    List<Multistatus.Response> responses = new ArrayList<>();
    Optional<String> next =
        multistatus(Purpose.POLL, "REPORT", at, Map.of("Depth", "0"), body, responses::add, log);
    return new Multistatus(responses, next);
  }

  /** Gives the sync-token. */
  private Optional<String> multistatus(
      Purpose purpose,
      String method,
      URI at,
      Map<String, String> headers,
      String body,
      Consumer<Multistatus.Response> each,
      CallLog log)
      throws Failed {
    Outcome outcome = new Outcome();
    Answer answer =
        caller.stream(
            new Sending(purpose, method, at, headers, XML, body, true),
            in -> {
              try {
                outcome.token = Multistatus.read(in, each);
              } catch (Multistatus.Unreadable e) {
                outcome.mistake = Optional.ofNullable(e.getMessage());
              }
            },
            log);
    Answered unused = made(answer, false);
    if (outcome.mistake.isPresent()) {
      throw shapeChanged("there is a mistake: " + outcome.mistake.get());
    }
    return outcome.token;
  }

  /** What reading an answer came to. */
  private static final class Outcome {
    private Optional<String> token = Optional.empty();
    private Optional<String> mistake = Optional.empty();
  }

  /** Reads a resource; empty if it is not there. */
  Optional<Answered> get(Purpose purpose, URI at, CallLog log) throws Failed {
    Answer answer = send(purpose, "GET", at, Map.of(), "", "", log);
    return answer instanceof Answered answered
            && (answered.status() == 404 || answered.status() == 410)
        ? Optional.empty()
        : Optional.of(made(answer, false));
  }

  /** Writes a resource if a condition in a header is met. */
  Answer put(
      Purpose purpose, URI at, String header, String value, String type, String body, CallLog log) {
    return send(purpose, "PUT", at, Map.of(header, value), type, body, log);
  }

  Answer delete(URI at, Optional<String> tag, CallLog log) {
    Map<String, String> headers = tag.map(read -> Map.of("If-Match", read)).orElse(Map.of());
    return send(Purpose.REMOVE, "DELETE", at, headers, "", "", log);
  }

  private Answer send(
      Purpose purpose,
      String method,
      URI at,
      Map<String, String> headers,
      String type,
      String body,
      CallLog log) {
    return caller.call(new Sending(purpose, method, at, headers, type, body, true), log);
  }

  /**
   * @throws Failed unless it was answered well
   */
  Answered made(Answer answer, boolean writes) throws Failed {
    if (answer instanceof Answered answered && answered.status() / 100 == 2) {
      return answered;
    }
    throw new Failed(failures.of(answer, writes));
  }

  Failed shapeChanged(String what) {
    return new Failed(failures.shapeChanged(what));
  }

  Failed refused(FailureKind kind, String message, String remedy) {
    return new Failed(Failure.of(kind, message).withRemedy(remedy));
  }

  /** What a name in an answer leads to, at this system and nowhere else. */
  URI resolve(String href) throws Failed {
    try {
      URI home = system.address();
      URI at = home.resolve(href.replace(" ", "%20"));
      if (home.getScheme().equalsIgnoreCase(at.getScheme())
          && home.getAuthority().equalsIgnoreCase(at.getAuthority())) {
        return at;
      }
      throw shapeChanged("a resource is said to be at another address, " + at);
    } catch (IllegalArgumentException e) {
      throw shapeChanged("the name of a resource is no address: " + e.getMessage());
    }
  }

  private static String elements(List<String> properties) {
    return properties.stream().map(DavCalls::element).collect(Collectors.joining());
  }

  private static String element(String name) {
    int end = name.indexOf('}');
    return "<%s xmlns=\"%s\"/>".formatted(name.substring(end + 1), escape(name.substring(1, end)));
  }

  private static String escape(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
  }

  @Override
  public void close() {
    caller.close();
  }

  /**
   * A tag without its mark of weakness (RFC 9110 section 8.8.1), as it is kept: of a very long one
   * the beginning, with what tells it from others that begin alike.
   */
  static String strong(String tag) {
    String strong = tag.startsWith("W/") ? tag.substring(2) : tag;
    return strong.length() <= LONGEST_TAG
        ? strong
        : strong.substring(0, LONGEST_TAG) + "… " + strong.length() + " " + strong.hashCode();
  }
}
