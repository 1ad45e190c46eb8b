package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.DebianServer;
import org.ysthmos.adapters.Measured;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** {@code bench/servers}: large libraries and many tasks, at servers that we did not write. */
class DavBench {

  private static final Surroundings SURROUNDINGS =
      new Surroundings(name -> Optional.of("s3cret"), Instant::now);

  @TempDir Path folder;

  /** The yardstick asks the same of the server and throws the answer away. */
  @Test
  void idlePassOverALargeLibrary() throws Exception {
    for (int documents : List.of(20_000, 40_000)) {
      Path at = Files.createDirectories(folder.resolve("library-" + documents));
      Path records = Files.createDirectories(at.resolve("files/records"));
      for (int i = 0; i < documents; i++) {
        Files.writeString(records.resolve("Record of a plant %05d.txt".formatted(i)), "x");
      }
      int port = DebianServer.freePort();
      try (DebianServer server = new LighttpdTest().serve(at, port);
          SystemGateway system =
              SystemReader.read(
                      """
                      system: library
                      name: Library
                      speaks: webdav
                      address: http://127.0.0.1:%d
                      timeout: PT60S
                      collections:
                        records: { name: Records, folder: /records/ }
                      """
                          .formatted(port))
                  .open(SURROUNDINGS)) {
        MetItems met = new MetItems(system, "records");
        assertThat(met.pass()).hasSize(documents);
        double yardstick = Measured.median(3, () -> listed(port));
        double pass = Measured.median(3, () -> idle(met));
        Measured.print("documents, idle pass over " + documents, pass, yardstick);
        Measured.printGrowth("documents, " + documents, 5, () -> idle(met));
      }
    }
  }

  private static Object idle(MetItems met) {
    assertThat(met.pass()).isEmpty();
    return met;
  }

  private static long listed(int port) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/records/"))
            .header("Depth", "1")
            .header("Content-Type", "application/xml")
            .method(
                "PROPFIND",
                HttpRequest.BodyPublishers.ofString(
                    "<propfind xmlns=\"DAV:\"><prop><resourcetype/><getetag/><getlastmodified/><creationdate/><getcontentlength/><getcontenttype/><displayname/></prop></propfind>"))
            .build();
    try (HttpClient client = HttpClient.newHttpClient();
        InputStream in = client.send(request, HttpResponse.BodyHandlers.ofInputStream()).body()) {
      return in.transferTo(OutputStream.nullOutputStream());
    }
  }

  /**
   * The yardstick makes one after the other, as a caller without workers would. A server that lets
   * one write at a time gains nothing by more.
   */
  @Test
  void manyTasksBySeveralAtOnce() throws Exception {
    double yardstick = tasks("one", 1);
    Measured.print("calendar, 400 tasks by 8 at once", tasks("several", 8), yardstick);
  }

  private double tasks(String name, int workers) throws Exception {
    try (Radicale server = Radicale.start(Files.createDirectories(folder.resolve(name)));
        SystemGateway system = SystemReader.read(server.document()).open(SURROUNDINGS)) {
      return Measured.median(1, () -> made(system, name, 400, workers));
    }
  }

  private static Object made(SystemGateway system, String key, int count, int workers)
      throws Exception {
    List<Future<TaskGateway.Outcome>> outcomes = new ArrayList<>();
    try (ExecutorService pool = Executors.newFixedThreadPool(workers)) {
      for (int i = 0; i < count; i++) {
        SequencedMap<String, Value> fields = new LinkedHashMap<>();
        fields.put("title", new Text("Round " + i));
        var task =
            new TaskGateway.Effect(
                "tasks", EffectKind.CREATE, "ys-" + key + i, Optional.empty(), fields);
        outcomes.add(pool.submit(() -> system.deliver(task, made -> {}, call -> {})));
      }
    }
    for (Future<TaskGateway.Outcome> outcome : outcomes) {
      assertThat(outcome.get()).isInstanceOf(TaskGateway.Delivered.class);
    }
    return outcomes;
  }
}
