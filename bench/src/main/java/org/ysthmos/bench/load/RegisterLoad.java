package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;

/**
 * The register of 200 bridges between 50 systems, of which events came. The yardstick is reading
 * and writing the same answer as JSON.
 */
public final class RegisterLoad {

  private static final int SOURCES = 25;
  private static final int TARGETS = 25;
  private static final int BRIDGES = 200;
  private static final int EVENTS = 2_000;
  private static final int ROUNDS = 60;
  private static final long SEED = 17;

  private RegisterLoad() {}

  public static void main(String[] arguments) throws Exception {
    Path data = Path.of(arguments[1]);
    Map<String, String> addresses = new HashMap<>();
    Path setup = setup(Path.of(arguments[0]), data.resolve("setup"));
    try (Target target = new Target()) {
      for (int i = 0; i < TARGETS; i++) {
        addresses.put("target-" + i, target.address());
      }
      try (Running running = new Running(data.resolve("data"), setup, addresses)) {
        Random random = new Random(SEED);
        for (int i = 0; i < EVENTS; i++) {
          long unused =
              running.hook(
                  "source-" + random.nextInt(SOURCES) + "/notes", "e-" + i, running.body(i));
        }
        while (running.waiting() > 0) {
          Load.pause(50);
        }
        measure();
      }
    }
    System.exit(0);
  }

  private static void measure() throws IOException, InterruptedException {
    ObjectMapper json = new ObjectMapper();
    List<Double> register = new ArrayList<>();
    List<Double> yardstick = new ArrayList<>();
    int bytes = 0;
    try (HttpClient http = HttpClient.newHttpClient()) {
      HttpRequest request =
          HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + Running.PORT + "/api/register"))
              .build();
      for (int round = 0; round < ROUNDS; round++) {
        long began = System.nanoTime();
        HttpResponse<byte[]> answer = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
        register.add((System.nanoTime() - began) / 1e6);
        if (answer.statusCode() != 200) {
          throw new IllegalStateException("the register answers " + answer.statusCode());
        }
        bytes = answer.body().length;
        began = System.nanoTime();
        byte[] again = json.writeValueAsBytes(json.readTree(answer.body()));
        yardstick.add((System.nanoTime() - began) / 1e6);
        if (again.length == 0) {
          throw new IllegalStateException("nothing was written");
        }
      }
    }
    Collections.sort(register);
    Collections.sort(yardstick);
    double median = register.get(ROUNDS / 2);
    System.out.printf(
        "register of %d bridges, %d systems, %,d bytes: median %.1f ms, most %.1f ms"
            + " (%.1f times the yardstick, goal < 200 ms)%n",
        BRIDGES,
        SOURCES + TARGETS,
        bytes,
        median,
        register.getLast(),
        median / yardstick.get(ROUNDS / 2));
  }

  /** Systems and bridges as the load's own, many times over. */
  private static Path setup(Path one, Path many) throws IOException {
    Path systems = Files.createDirectories(many.resolve("systems"));
    Path bridges = Files.createDirectories(many.resolve("bridges"));
    for (int i = 0; i < SOURCES; i++) {
      write(one, "systems/source.yaml", systems.resolve("source-" + i + ".yaml"), i, "source");
    }
    for (int i = 0; i < TARGETS; i++) {
      write(one, "systems/target.yaml", systems.resolve("target-" + i + ".yaml"), i, "target");
    }
    String bridge = Files.readString(one.resolve("bridges/notes.yaml"));
    Random random = new Random(SEED);
    for (int i = 0; i < BRIDGES; i++) {
      Files.writeString(
          bridges.resolve("notes-" + i + ".yaml"),
          bridge
              .replace("bridge: notes", "bridge: notes-" + i)
              .replace("name: Notes", "name: Notes " + i)
              .replace("system: source", "system: source-" + random.nextInt(SOURCES))
              .replace("system: target", "system: target-" + random.nextInt(TARGETS)));
    }
    return many;
  }

  private static void write(Path from, String document, Path to, int number, String id)
      throws IOException {
    String named = id.substring(0, 1).toUpperCase(Locale.ROOT) + id.substring(1);
    Files.writeString(
        to,
        Files.readString(from.resolve(document))
            .replace("system: " + id, "system: " + id + "-" + number)
            .replace("name: " + named, "name: " + named + " " + number));
  }
}
