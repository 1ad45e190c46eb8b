package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.DebianServer;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.SystemGateway;

/** Against real WebDAV servers, each with habits of its own. */
abstract class WebDavServerTest {

  @TempDir Path folder;
  private DebianServer server;
  private SystemGateway system;
  private int port;

  @BeforeEach
  void start() throws Exception {
    port = DebianServer.freePort();
    Files.createDirectories(folder.resolve("files/records/ferns"));
    server = serve(folder, port);
    system =
        SystemReader.read(
                """
                system: library
                name: Library
                speaks: webdav
                address: http://127.0.0.1:%d
                collections:
                  records:
                    name: Records
                    folder: /records/
                    properties:
                      /kind: { name: kind, type: text, property: "{https://garden.example/ns}kind" }
                """
                    .formatted(port))
            .open(new Surroundings(name -> Optional.empty(), () -> Instant.EPOCH));
  }

  /** Serves the folder {@code files} in a folder for reading and writing. */
  abstract DebianServer serve(Path at, int on) throws Exception;

  @AfterEach
  void stop() throws Exception {
    if (server != null) {
      system.close();
      server.close();
    }
  }

  private int raw(String method, String path, String body) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .header("Content-Type", "application/xml")
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build();
    // A connection of its own: the server ends idle ones as it likes.
    try (HttpClient client = HttpClient.newHttpClient()) {
      return client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
    }
  }

  private Map<String, Changed> all() {
    Page page = (Page) system.changes("records", Cursor.BEGINNING, call -> {});
    assertThat(page.next()).isEmpty();
    return page.records().stream().collect(Collectors.toMap(Changed::id, one -> one));
  }

  @Test
  void documentsOfAllFoldersAreToldWithTheirTagsAndProperties() throws Exception {
    assertThat(raw("PUT", "/records/ferns/Blechnum%20spicant.txt", "hard fern")).isEqualTo(201);
    assertThat(raw("PUT", "/records/plan.txt", "plan")).isEqualTo(201);
    assertThat(
            raw(
                "PROPPATCH",
                "/records/plan.txt",
                """
                <D:propertyupdate xmlns:D="DAV:"><D:set><D:prop>
                <kind xmlns="https://garden.example/ns">plant record</kind>
                </D:prop></D:set></D:propertyupdate>
                """))
        .isIn(204, 207);
    Map<String, Changed> all = all();
    assertThat(all.keySet())
        .containsExactlyInAnyOrder("/records/plan.txt", "/records/ferns/Blechnum spicant.txt");
    Changed fern = all.get("/records/ferns/Blechnum spicant.txt");
    assertThat(fern.record().path("name").asText()).isEqualTo("Blechnum spicant.txt");
    assertThat(fern.record().path("folder").asText()).isEqualTo("/records/ferns");
    assertThat(fern.record().path("link").asText()).endsWith("/ferns/Blechnum%20spicant.txt");
    assertThat(fern.record().path("bytes").numberValue()).isEqualTo(9L);
    assertThat(fern.changed()).isPresent();
    assertThat(all.get("/records/plan.txt").record().path("kind").asText())
        .isEqualTo("plant record");
  }

  @Test
  void revisionGivesAnotherTagAndReadingAgainTheSame() throws Exception {
    raw("PUT", "/records/plan.txt", "one");
    String first = all().get("/records/plan.txt").version();
    assertThat(all().get("/records/plan.txt").version()).isEqualTo(first);
    raw("PUT", "/records/plan.txt", "another");
    assertThat(all().get("/records/plan.txt").version()).isNotEqualTo(first);
  }

  private static List<String> told(List<Changed> changes) {
    return changes.stream().map(one -> one.kind().orElse("") + " " + one.id()).sorted().toList();
  }

  /** Creation dates move with the content there, so that what was met says what a change is. */
  @Test
  void whatHappensToDocumentsIsToldByWhatWasMet() throws Exception {
    raw("PUT", "/records/old.txt", "old");
    MetItems met = new MetItems(system, "records");
    met.pass();
    assertThat(met.pass()).isEmpty();
    raw("PUT", "/records/new.txt", "a new one");
    assertThat(told(met.pass())).containsExactly("added /records/new.txt");
    raw("PUT", "/records/new.txt", "a new one, revised");
    List<Changed> revised = met.pass();
    assertThat(told(revised)).containsExactly("revised /records/new.txt");
    raw("PUT", "/records/ferns/far.txt", "x");
    raw("DELETE", "/records/old.txt", "");
    List<Changed> both = met.pass();
    assertThat(told(both))
        .containsExactly("added /records/ferns/far.txt", "removed /records/old.txt");
    assertThat(met.pass()).isEmpty();
    assertThat(met.items()).containsOnlyKeys("/records/new.txt", "/records/ferns/far.txt");
  }

  @Test
  void documentThatIsMovedIsOneDocument() throws Exception {
    raw("PUT", "/records/plan.txt", "the plan");
    MetItems met = new MetItems(system, "records");
    met.pass();
    move("/records/plan.txt", "/records/ferns/plan of 2026.txt");
    List<Changed> changes = met.pass();
    assertThat(told(changes)).containsExactly("renamed /records/ferns/plan of 2026.txt");
    assertThat(changes.getFirst().record().path("was").asText()).isEqualTo("/records/plan.txt");
    assertThat(met.pass()).isEmpty();
  }

  private void move(String from, String to) throws Exception {
    String destination = "http://127.0.0.1:" + port + to.replace(" ", "%20");
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + from))
            .header("Destination", destination)
            .method("MOVE", HttpRequest.BodyPublishers.noBody())
            .build();
    try (HttpClient client = HttpClient.newHttpClient()) {
      assertThat(client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode())
          .isIn(201, 204);
    }
  }

  @Test
  void documentIsFoundByItsPathAndAFolderThatIsGoneIsNamed() throws Exception {
    raw("PUT", "/records/plan.txt", "one");
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", "/records/plan.txt");
    assertThat(((Found) system.find("records", keys, call -> {})).records()).hasSize(1);
    keys.put("id", "/records/none.txt");
    assertThat(((Found) system.find("records", keys, call -> {})).records()).isEmpty();
    raw("DELETE", "/records/", "");
    NotRead notRead = (NotRead) system.changes("records", Cursor.BEGINNING, call -> {});
    assertThat(notRead.failure().kind()).isEqualTo(FailureKind.NOT_FOUND);
  }
}
