package org.ysthmos.app.problem;

import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.web.embedded.tomcat.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** What the server refuses before any code of ours sees it is answered as problem details too. */
@Component
class ServerProblems implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

  @Override
  public void customize(TomcatServletWebServerFactory factory) {
    factory.addContextCustomizers(
        context -> {
          if (context.getParent() instanceof StandardHost host) {
            host.setErrorReportValveClass(Valve.class.getName());
          }
        });
  }

  /** Writes a problem where the server would write a page; made by the server, by its name. */
  public static final class Valve extends ErrorReportValve {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Override
    protected void report(Request request, Response response, @Nullable Throwable thrown) {
      int status = response.getStatus();
      if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
        return;
      }
      HttpStatus known = HttpStatus.resolve(status);
      String title = known == null ? "Refused" : known.getReasonPhrase();
      try {
        response.setContentType("application/problem+json");
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response
            .getReporter()
            .write(
                JSON.writeValueAsString(
                    Map.of(
                        "type",
                        "about:blank",
                        "title",
                        title,
                        "status",
                        status,
                        "detail",
                        "The request cannot be taken as it is; check its address and headers.")));
        response.finishResponse();
      } catch (IOException e) {
        throw new UncheckedIOException("an answer could not be written", e);
      }
    }
  }
}
