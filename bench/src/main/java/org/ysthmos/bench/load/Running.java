package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.IntFunction;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.ysthmos.app.YsthmosApplication;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.who.By;

/** The application as it is, in this process, with a source and a target. */
final class Running implements AutoCloseable {

  static final int PORT = 8493;
  private static final ObjectMapper JSON = new ObjectMapper();

  final Path data;
  final Target target = new Target();
  final ConfigurableApplicationContext context;
  private final HttpClient http = HttpClient.newHttpClient();
  private final AtomicLong next = new AtomicLong();

  Running(Path data, Path setup, String... settings) {
    this(data, setup, Map.of(), settings);
  }

  /**
   * @param addresses where other systems stand, by their ids
   */
  Running(Path data, Path setup, Map<String, String> addresses, String... settings) {
    this.data = data;
    try {
      Files.createDirectories(data);
      StringBuilder connections =
          new StringBuilder("target.address=" + target.address() + "\nsecret.source-hook=s\n");
      addresses.forEach(
          (system, address) -> connections.append(system + ".address=" + address + "\n"));
      Files.writeString(data.resolve("connections.properties"), connections);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    List<String> all =
        new ArrayList<>(
            List.of(
                "--ysthmos.port=" + PORT,
                "--ysthmos.data=" + data,
                "--ysthmos.setup=" + setup,
                "--ysthmos.connections=" + data.resolve("connections.properties"),
                "--ysthmos.health.first=1d",
                "--ysthmos.health.quota=1d",
                "--logging.level.root=error"));
    all.addAll(List.of(settings));
    context = SpringApplication.run(YsthmosApplication.class, all.toArray(String[]::new));
  }

  String body(long number) {
    return """
        {"event":"note.made","id":"n-%d","title":"Loose plank %d at the lower boardwalk",
         "body":"%s","danger":%d,"by":"visitor.%d@mail.example"}
        """
        .formatted(
            number,
            number % 977,
            "It moves when one steps on it. ".repeat(12),
            1 + number % 9,
            number % 350);
  }

  /** Sends one webhook; gives how long it took in nanoseconds. */
  long send() {
    long number = next.incrementAndGet();
    return hook("source/notes", "e-" + number, body(number));
  }

  /** The same for any collection. */
  long hook(String collection, String event, String body) {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + PORT + "/hooks/" + collection))
            .header("Source-Secret", "s")
            .header("Source-Event", event)
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build();
    long began = System.nanoTime();
    try {
      HttpResponse<String> answer = http.send(request, HttpResponse.BodyHandlers.ofString());
      if (answer.statusCode() != 202) {
        throw new IllegalStateException(answer.statusCode() + " " + answer.body());
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
    return System.nanoTime() - began;
  }

  /** Sends from many senders, each one after the other; gives the seconds. */
  double sendAll(int senders, int count) {
    AtomicLong left = new AtomicLong(count);
    long began = System.nanoTime();
    try (ExecutorService pool = Executors.newFixedThreadPool(senders)) {
      for (int i = 0; i < senders; i++) {
        pool.execute(
            () -> {
              while (left.getAndDecrement() > 0) {
                send();
              }
            });
      }
    }
    return (System.nanoTime() - began) / 1e9;
  }

  /** Takes events in by the product's own intake, as polled pages are; gives the seconds. */
  double takeIn(int count) {
    return takeIn(count, "source", any -> "notes");
  }

  /** The same of any collections of a system. */
  double takeIn(int count, String system, IntFunction<String> collection) {
    long began = System.nanoTime();
    IntakeWriter intake = context.getBean(IntakeWriter.class);
    for (int done = 0; done < count; done += 500) {
      List<EventRow> page = new ArrayList<>();
      for (int i = 0; i < Math.min(500, count - done); i++) {
        long number = next.incrementAndGet();
        Instant now = Instant.now();
        page.add(
            new EventRow(
                0,
                system,
                "e-" + number,
                collection.apply((int) number),
                "created",
                "n-" + number,
                now,
                now,
                EventMapper.Origin.TOLD,
                body(number).getBytes(StandardCharsets.UTF_8)));
      }
      intake.keepPage(page, nothing -> {});
    }
    return (System.nanoTime() - began) / 1e9;
  }

  void hold(boolean yes) {
    hold("notes", yes);
  }

  void hold(String bridge, boolean yes) {
    Bridges bridges = context.getBean(Bridges.class);
    if (yes) {
      bridges.hold(bridge, "Measured", By.ENGINE);
    } else {
      bridges.release(bridge, By.ENGINE);
    }
  }

  /** How many traces of all bridges are under way. */
  int waitingInAll() {
    int waiting = 0;
    for (JsonNode bridge : get("/api/watch").path("bridges")) {
      waiting += bridge.path("waiting").asInt();
    }
    return waiting;
  }

  int waiting() {
    return get("/api/watch").at("/bridges/0/waiting").asInt();
  }

  JsonNode get(String path) {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + PORT + path)).build();
    try {
      HttpResponse<String> answer = http.send(request, HttpResponse.BodyHandlers.ofString());
      if (answer.statusCode() != 200) {
        throw new IllegalStateException(path + ": " + answer.body());
      }
      return JSON.readTree(answer.body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /** What is answered; nothing if that is empty. */
  JsonNode post(String path, String body) {
    return call("POST", path, body);
  }

  void put(String path, String body) {
    JsonNode unused = call("PUT", path, body);
  }

  private JsonNode call(String method, String path, String body) {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + PORT + path))
            .header("Content-Type", "application/json")
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build();
    try {
      HttpResponse<String> answer = http.send(request, HttpResponse.BodyHandlers.ofString());
      if (answer.statusCode() / 100 != 2) {
        throw new IllegalStateException(path + ": " + answer.body());
      }
      return JSON.readTree(answer.body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  long fileBytes() {
    return data.resolve("ysthmos.mv.db").toFile().length();
  }

  @Override
  public void close() {
    context.close();
    target.close();
  }
}
