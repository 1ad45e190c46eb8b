package org.ysthmos.e2e;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.SequencedMap;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/**
 * A list of tasks that was there before the bridge came, over HTTP; it tells nobody of anything.
 */
final class OldList implements AutoCloseable {

  static final String DOCUMENT =
      """
      system: old-list
      name: Old list
      address: http://127.0.0.1:%d
      sign-in: { bearer: { secret: old-list-token } }
      collections:
        tasks:
          name: Tasks
          record: task
          title: title
          fields:
            title: { name: Title, type: text, required: true }
            state: { name: State, type: choice, required: true, names: { to-do: To do, done: Done } }
          event-fields:
            /id: { name: number, type: text, required: true }
          find:
            - { by: [id], call: "GET /tasks/{id}" }
          list: { call: "GET /tasks", items: /items, id: /id, next: none }
          created-id: /id
          create:
            - { call: POST /tasks, fields: [title, state], key-header: Idempotency-Key, answers-whole: true }
          change:
            - { call: "PATCH /tasks/{id}", fields: [title, state], answers-whole: true }
          push:
            verify: { path: { secret: old-list-token } }
            record: /id
            kind: /type
            kinds: { changed: changed }
      """;

  private static final ObjectMapper JSON = new ObjectMapper();

  private final HttpServer server;
  private final ExecutorService workers = Executors.newFixedThreadPool(4);
  private final SequencedMap<String, ObjectNode> tasks = new TreeMap<>();

  OldList() {
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 50);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    server.createContext("/tasks", this::answer);
    server.setExecutor(workers);
    server.start();
  }

  int port() {
    return server.getAddress().getPort();
  }

  /** A task of which nobody is told. */
  synchronized String add(String title) {
    String id = "ol-%04d".formatted(tasks.size() + 1);
    tasks.put(id, JSON.createObjectNode().put("id", id).put("title", title).put("state", "to-do"));
    return id;
  }

  synchronized List<String> titles() {
    return tasks.values().stream().map(task -> task.path("title").asText()).toList();
  }

  private synchronized void answer(HttpExchange call) throws IOException {
    String[] path = call.getRequestURI().getPath().split("/");
    String id = path.length > 2 ? path[2] : "";
    byte[] body = call.getRequestBody().readAllBytes();
    ObjectNode answer =
        switch (call.getRequestMethod()) {
          case "POST" -> {
            ObjectNode wish = (ObjectNode) JSON.readTree(body);
            yield changed(add(wish.path("title").asText()), wish);
          }
          case "PATCH" -> changed(id, (ObjectNode) JSON.readTree(body));
          default -> id.isEmpty() ? all() : tasks.get(id);
        };
    byte[] bytes = (answer == null ? "{}" : answer.toString()).getBytes(StandardCharsets.UTF_8);
    call.getResponseHeaders().set("Content-Type", "application/json");
    call.sendResponseHeaders(answer == null ? 404 : 200, bytes.length);
    call.getResponseBody().write(bytes);
    call.close();
  }

  private ObjectNode changed(String id, ObjectNode wish) {
    ObjectNode task = tasks.get(id);
    task.setAll(wish);
    return task;
  }

  private ObjectNode all() {
    ObjectNode all = JSON.createObjectNode();
    ArrayNode items = all.putArray("items");
    tasks.values().forEach(items::add);
    return all;
  }

  @Override
  public void close() {
    server.stop(0);
    workers.shutdown();
  }
}
