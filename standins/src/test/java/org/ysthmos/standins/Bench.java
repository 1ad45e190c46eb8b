package org.ysthmos.standins;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.ysthmos.standins.http.StandIn;

/** Calls stand-ins as another system or a browser would, and receives what they tell. */
final class Bench implements AutoCloseable {

  static final ObjectMapper JSON = new ObjectMapper();
  private static final HttpClient HTTP = HttpClient.newHttpClient();

  /** A webhook that came. */
  record Told(String path, Map<String, List<String>> headers, String body) {

    JsonNode json() throws IOException {
      return JSON.readTree(body);
    }

    String header(String name) {
      return headers.entrySet().stream()
          .filter(entry -> entry.getKey().equalsIgnoreCase(name))
          .map(entry -> entry.getValue().getFirst())
          .findFirst()
          .orElse("");
    }
  }

  private final BlockingQueue<Told> told = new ArrayBlockingQueue<>(100);
  private final HttpServer receiver;

  Bench() throws IOException {
    receiver = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    receiver.createContext(
        "/",
        exchange -> {
          String body =
              new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
          told.add(
              new Told(
                  exchange.getRequestURI().getPath(),
                  Map.copyOf(exchange.getRequestHeaders()),
                  body));
          exchange.sendResponseHeaders(202, -1);
          exchange.close();
        });
    receiver.start();
  }

  URI address(String path) {
    return URI.create("http://127.0.0.1:" + receiver.getAddress().getPort() + path);
  }

  Told told() throws InterruptedException {
    Told next = told.poll(10, TimeUnit.SECONDS);
    if (next == null) {
      throw new AssertionError("nothing was told");
    }
    return next;
  }

  static HttpResponse<String> call(
      StandIn standIn, String method, String path, Map<String, String> headers, String body)
      throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + standIn.port() + path))
            .timeout(Duration.ofSeconds(10))
            .method(method, HttpRequest.BodyPublishers.ofString(body));
    headers.forEach(request::header);
    return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
  }

  static HttpResponse<String> call(
      StandIn standIn, String token, String method, String path, String body) throws Exception {
    return call(standIn, method, path, Map.of("Authorization", "Bearer " + token), body);
  }

  /** What a person sends in on a page; gives the number that the page answers with. */
  static String form(StandIn standIn, String path, Map<String, String> fields) throws Exception {
    StringJoiner body = new StringJoiner("&");
    fields.forEach(
        (key, value) -> body.add(key + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8)));
    return call(standIn, "POST", path, Map.of(), body.toString())
        .body()
        .replaceAll("(?s).*id=\"number\">([^<]*)<.*", "$1");
  }

  static JsonNode json(HttpResponse<String> answer) throws IOException {
    return JSON.readTree(answer.body());
  }

  @Override
  public void close() {
    receiver.stop(0);
  }
}
