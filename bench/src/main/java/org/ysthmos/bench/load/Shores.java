package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;

/** A system with two places of tasks that keeps them, lists them and tells of nothing. */
final class Shores implements AutoCloseable {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int PAGE = 100;

  /** The tasks of a place, in the order in which they were made. */
  private static final class Place {
    private final List<String> order = new ArrayList<>();
    private final Map<String, ObjectNode> tasks = new ConcurrentHashMap<>();

    synchronized String make(ObjectNode task, String prefix) {
      String id = prefix + (order.size() + 1);
      order.add(id);
      tasks.put(id, task.put("id", id));
      return id;
    }

    synchronized List<String> page(int from) {
      return List.copyOf(order.subList(from, Math.min(order.size(), from + PAGE)));
    }

    synchronized int size() {
      return order.size();
    }
  }

  private final Map<String, Place> places = Map.of("north", new Place(), "south", new Place());
  private final AtomicLong calls = new AtomicLong();
  private final HttpServer server;

  Shores() {
    System.setProperty("sun.net.httpserver.nodelay", "true");
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 64);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    server.setExecutor(Executors.newCachedThreadPool());
    server.createContext("/", this::answer);
    server.start();
  }

  String address() {
    return "http://127.0.0.1:" + server.getAddress().getPort();
  }

  long calls() {
    return calls.get();
  }

  private Place place(String name) {
    return Objects.requireNonNull(places.get(name), name);
  }

  int size(String place) {
    return place(place).size();
  }

  void fill(String place, int count) {
    for (int i = 0; i < count; i++) {
      ObjectNode task = JSON.createObjectNode();
      task.put("title", "Loose plank %d at the lower boardwalk".formatted(i));
      task.put("status", "open").put("owner", "visitor.%d@mail.example".formatted(i % 350));
      task.put("notes", "It moves when one steps on it. ".repeat(1 + i % 12).strip());
      String unused = place(place).make(task, place.charAt(0) + "-");
    }
  }

  /** Every so-manieth task is done, and nobody is told. */
  void finish(String place, int each) {
    Place of = place(place);
    for (int i = 0; i < of.size(); i += each) {
      of.tasks.computeIfPresent(
          of.order.get(i), (id, task) -> task.deepCopy().put("status", "done"));
    }
  }

  /** Somebody gives every so-manieth task another title; gives their ids. */
  List<String> retitle(String place, int each, String more) {
    Place of = place(place);
    List<String> changed = new ArrayList<>();
    for (int i = 0; i < of.size(); i += each) {
      String id = of.order.get(i);
      of.tasks.computeIfPresent(
          id, (any, task) -> task.deepCopy().put("title", task.path("title").asText() + more));
      changed.add(id);
    }
    return changed;
  }

  /** How many tasks have a title that ends so. */
  long titled(String place, String ending) {
    return place(place).tasks.values().stream()
        .filter(task -> task.path("title").asText().endsWith(ending))
        .count();
  }

  private void answer(HttpExchange exchange) throws IOException {
    calls.incrementAndGet();
    String[] path = exchange.getRequestURI().getPath().substring(1).split("/", -1);
    Place place = place(path[0]);
    byte[] body = exchange.getRequestBody().readAllBytes();
    JsonNode answer =
        switch (exchange.getRequestMethod()) {
          case "POST" -> {
            ObjectNode task = (ObjectNode) JSON.readTree(body);
            String unused = place.make(task, path[0].charAt(0) + "-");
            yield task;
          }
          case "PATCH" -> {
            JsonNode changes = JSON.readTree(body);
            yield place.tasks.computeIfPresent(
                path[1],
                (id, task) -> {
                  ObjectNode changed = task.deepCopy();
                  changed.setAll((ObjectNode) changes);
                  return changed;
                });
          }
          default -> path.length > 1 ? place.tasks.get(path[1]) : list(place, exchange);
        };
    byte[] bytes = JSON.writeValueAsBytes(answer);
    exchange.getResponseHeaders().add("Content-Type", "application/json");
    exchange.sendResponseHeaders(200, bytes.length);
    exchange.getResponseBody().write(bytes);
    exchange.close();
  }

  private static JsonNode list(Place place, HttpExchange exchange) {
    String query = String.valueOf(exchange.getRequestURI().getQuery());
    int from = query.startsWith("from=") ? Integer.parseInt(query.substring(5)) : 0;
    ObjectNode answer = JSON.createObjectNode();
    ArrayNode items = answer.putArray("items");
    place.page(from).forEach(id -> items.add(place.tasks.get(id)));
    if (from + PAGE < place.size()) {
      answer.put("next", from + PAGE);
    }
    return answer;
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
