package org.ysthmos.bench.load;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;

/** A task system that answers at once and keeps nothing but how often it was called. */
final class Target implements AutoCloseable {

  private final HttpServer server;
  private final AtomicLong calls = new AtomicLong();

  Target() {
    System.setProperty("sun.net.httpserver.nodelay", "true");
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 64);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    server.setExecutor(Executors.newCachedThreadPool());
    server.createContext(
        "/tasks",
        exchange -> {
          boolean looks = exchange.getRequestMethod().equals("GET");
          try (InputStream in = exchange.getRequestBody()) {
            in.readAllBytes();
          }
          long number = looks ? 0 : calls.incrementAndGet();
          String text = looks ? "{\"items\":[]}" : "{\"id\":\"t" + number + "\"}";
          byte[] answer = text.getBytes(StandardCharsets.UTF_8);
          exchange.getResponseHeaders().add("Content-Type", "application/json");
          exchange.sendResponseHeaders(looks ? 200 : 201, answer.length);
          exchange.getResponseBody().write(answer);
          exchange.close();
        });
    server.start();
  }

  String address() {
    return "http://127.0.0.1:" + server.getAddress().getPort();
  }

  long calls() {
    return calls.get();
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
