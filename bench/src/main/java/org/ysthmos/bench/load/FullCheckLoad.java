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
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

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
    bulk(pairs / 2);
  }

  /** Half of all tasks are edited at once on one side, which tells of each. */
  private void bulk(int edits) {
    long calls = shores.calls();
    long began = System.nanoTime();
    List<String> edited = shores.retitle("south", 2, EDITED);
    Iterator<String> left = edited.iterator();
    try (ExecutorService senders = Executors.newFixedThreadPool(SENDERS)) {
      for (int i = 0; i < SENDERS; i++) {
        senders.execute(() -> tell(left));
      }
    }
    double told = (System.nanoTime() - began) / 1e9;
    while (shores.titled("north", EDITED) < edits) {
      Load.pause(50);
    }
    double seconds = (System.nanoTime() - began) / 1e9;
    say(
        "bulk edit of %,d tasks: told in %.1f s, carried across in %.1f s (%.0f a second), %.2f calls each"
            .formatted(
                edits, told, seconds, edits / seconds, (shores.calls() - calls) / (double) edits));
    check("after the bulk edit");
  }

  private void tell(Iterator<String> left) {
    while (true) {
      String id;
      synchronized (left) {
        if (!left.hasNext()) {
          return;
        }
        id = left.next();
      }
      running.hook(
          "shores/south", "edit-" + id, "{\"id\":\"%s\",\"event\":\"changed\"}".formatted(id));
    }
  }

  private static final String EDITED = ", again";
  private static final int SENDERS = 16;

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
