package org.ysthmos.adapters.http;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.Header;
import org.ysthmos.adapters.http.HttpCaller.Sending;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.gateway.RemoteCall;

/** Takes calls down, with secrets masked and long bodies cut. */
final class CallNotes {

  static final int LONGEST_KEPT_BODY = 16_000;

  private static final List<String> SECRET_HEADERS = List.of("authorization", "cookie");

  private final String system;
  private final Optional<String> signInHeader;

  CallNotes(SystemDescription system) {
    this.system = system.name();
    this.signInHeader = system.signIn().map(SignIn::header);
  }

  Begun begin(Sending sending, HttpUriRequestBase request, Instant start) {
    return new Begun(sending, request, start);
  }

  /** A call that is under way. */
  final class Begun {
    private final Sending sending;
    private final HttpUriRequestBase request;
    private final Instant start;
    private final long began = System.nanoTime();

    private Begun(Sending sending, HttpUriRequestBase request, Instant start) {
      this.sending = sending;
      this.request = request;
      this.start = start;
    }

    RemoteCall answered(ClassicHttpResponse response, byte[] body) {
      List<String> headers = new ArrayList<>();
      for (Header header : response.getHeaders()) {
        headers.add(header.getName() + ": " + header.getValue());
      }
      String text = kept(new String(body, StandardCharsets.UTF_8));
      return call(response.getCode(), headers, text, "");
    }

    RemoteCall failed(String why) {
      return call(0, List.of(), "", why);
    }

    private RemoteCall call(int status, List<String> headers, String body, String problem) {
      return new RemoteCall(
          system,
          sending.purpose(),
          start,
          Duration.ofNanos(System.nanoTime() - began),
          lines(),
          kept(sending.body()),
          status,
          headers,
          body,
          problem);
    }

    private List<String> lines() {
      List<String> lines = new ArrayList<>();
      lines.add(request.getMethod() + " " + sending.address());
      for (Header header : request.getHeaders()) {
        String name = header.getName();
        boolean secret =
            SECRET_HEADERS.contains(name.toLowerCase(Locale.ROOT))
                || signInHeader.filter(name::equalsIgnoreCase).isPresent();
        lines.add(header.getName() + ": " + (secret ? "••••••••" : header.getValue()));
      }
      return lines;
    }
  }

  private static String kept(String body) {
    return body.length() <= LONGEST_KEPT_BODY ? body : body.substring(0, LONGEST_KEPT_BODY) + "…";
  }
}
