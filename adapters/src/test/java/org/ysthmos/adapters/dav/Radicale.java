package org.ysthmos.adapters.dav;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import org.ysthmos.adapters.DebianServer;

/** A CalDAV server of a test's own, Debian's Radicale, with one user and one calendar of tasks. */
final class Radicale implements AutoCloseable {

  private final int port;
  private final DebianServer server;

  private Radicale(int port, DebianServer server) {
    this.port = port;
    this.server = server;
  }

  static Radicale start(Path folder) throws Exception {
    Path program = DebianServer.need("radicale");
    int port = DebianServer.freePort();
    Files.writeString(folder.resolve("users"), "gardener:s3cret\n");
    Path config = folder.resolve("config");
    Files.writeString(
        config,
        """
        [server]
        hosts = 127.0.0.1:%d
        [auth]
        type = htpasswd
        htpasswd_filename = %s
        htpasswd_encryption = plain
        delay = 0
        [storage]
        filesystem_folder = %s
        """
            .formatted(port, folder.resolve("users"), folder.resolve("data")));
    Radicale started =
        new Radicale(
            port,
            DebianServer.start(
                port,
                folder.resolve("log"),
                List.of(program.toString(), "--config", config.toString())));
    int made =
        started.raw(
            "MKCALENDAR",
            "/gardener/rounds/",
            """
            <C:mkcalendar xmlns:D="DAV:" xmlns:C="urn:ietf:params:xml:ns:caldav"><D:set><D:prop>
            <C:supported-calendar-component-set><C:comp name="VTODO"/></C:supported-calendar-component-set>
            </D:prop></D:set></C:mkcalendar>
            """);
    if (made != 201) {
      throw new IllegalStateException("no calendar was made: " + made);
    }
    return started;
  }

  /** The document of a system whose tasks stand in it. */
  String document() {
    return """
        system: rounds
        name: Rounds
        speaks: caldav
        address: http://127.0.0.1:%d
        sign-in: { basic: { user: gardener, secret: word } }
        collections:
          tasks: { name: Tasks, calendar: /gardener/rounds/ }
        """
        .formatted(port);
  }

  /** A request as it stands; gives the status. */
  int raw(String method, String path, String body) throws Exception {
    byte[] both = "gardener:s3cret".getBytes(StandardCharsets.UTF_8);
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .header("Authorization", "Basic " + Base64.getEncoder().encodeToString(both))
            .header("Content-Type", path.endsWith(".ics") ? "text/calendar" : "application/xml")
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build();
    // A connection of its own: the server ends idle ones as it likes.
    try (HttpClient client = HttpClient.newHttpClient()) {
      return client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
    }
  }

  @Override
  public void close() throws InterruptedException {
    server.close();
  }
}
