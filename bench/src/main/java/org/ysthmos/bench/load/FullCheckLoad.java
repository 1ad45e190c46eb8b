package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.Map;

/** Full checks of many pairs, against bare reading of both lists in the same run. */
final class FullCheckLoad {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int CHANGED_EACH = 100;

  private final Running running;
  private final Shores shores;
  private final HttpClient http = HttpClient.newHttpClient();

  private FullCheckLoad(Running running, Shores shores) {
    this.running = running;
    this.shores = shores;
  }

  static void run(Path setup, Path data, int pairs) {
    try (Shores shores = new Shores();
        Running running = new Running(data, setup, Map.of("shores", shores.address()))) {
      new FullCheckLoad(running, shores).measure(pairs);
    }
  }

  private void measure(int pairs) {
    shores.fill("north", pairs);
    double found = check("of %,d tasks without a pair".formatted(pairs));
    long began = System.nanoTime();
    running.post("/api/full-checks/" + newest().path("id").asLong() + "/repair", ALL_NOT_MADE);
    awaitEnd();
    double repaired = (System.nanoTime() - began) / 1e9;
    say(
        "made across by putting right: %,d in %.1f s (%.0f a second)"
            .formatted(shores.size("south"), repaired, pairs / repaired));
    double first = bare();
    double yardstick = Math.min(first, bare());
    say("bare reading of both lists: %.2f s".formatted(yardstick));
    for (int round = 0; round < 3; round++) {
      double alike = check("of %,d pairs that are alike".formatted(pairs));
      say("against bare reading: %.1f (ratio)".formatted(alike / yardstick));
    }
    shores.finish("north", CHANGED_EACH);
    double some = check("of %,d pairs, one of %d changed".formatted(pairs, CHANGED_EACH));
    say("against bare reading: %.1f (ratio)".formatted(some / yardstick));
    say("found in the first: %.1f s".formatted(found));
  }

  private static final String ALL_NOT_MADE = "{\"kinds\":[\"NOT_MADE\"],\"numbers\":null}";

  /** Runs one; gives the seconds. */
  private double check(String of) {
    long calls = shores.calls();
    long began = System.nanoTime();
    running.post("/api/full-checks", "{\"bridge\":\"shores\"}");
    awaitEnd();
    double seconds = (System.nanoTime() - began) / 1e9;
    say(
        "full check %s: %.2f s, %,d calls, %s found"
            .formatted(of, seconds, shores.calls() - calls, newest().path("kinds")));
    return seconds;
  }

  private JsonNode newest() {
    return running.get("/api/full-checks?bridge=shores").at("/checks/0");
  }

  private void awaitEnd() {
    while (!newest().path("state").asText().equals("ENDED")) {
      if (newest().path("state").asText().equals("FAILED")) {
        throw new IllegalStateException(newest().path("problem").asText());
      }
      Load.pause(20);
    }
  }

  /** Both lists, page by page, read and parsed and nothing else. */
  private double bare() {
    long began = System.nanoTime();
    for (String place : new String[] {"north", "south"}) {
      String next = "";
      do {
        JsonNode page = page("/" + place + (next.isEmpty() ? "" : "?from=" + next));
        next = page.path("next").asText("");
      } while (!next.isEmpty());
    }
    return (System.nanoTime() - began) / 1e9;
  }

  private JsonNode page(String path) {
    HttpRequest request = HttpRequest.newBuilder(URI.create(shores.address() + path)).build();
    try {
      return JSON.readTree(http.send(request, HttpResponse.BodyHandlers.ofByteArray()).body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  private static void say(String line) {
    System.out.println(line);
  }
}
