package org.ysthmos.e2e;

import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;

/** The application and the stand-ins, each a process of its own, started from the built jars. */
final class Together implements AutoCloseable {

  private static final AtomicInteger NEXT =
      new AtomicInteger(20000 + (int) (ProcessHandle.current().pid() % 350) * 10);

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final HttpClient HTTP = HttpClient.newHttpClient();
  private static final String SECRET = "whsec_ZW5kIHRvIGVuZCBzZWNyZXQ=";
  private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
  private static final Path STAND_INS =
      ROOT.resolve("standins/target/ysthmos-standins-0.1.0-SNAPSHOT-all.jar");

  private final Path data;
  private final int app = freePort();
  private final int desk = freePort();
  private final int board = freePort();
  private final int friends = freePort();
  private final Map<String, String> others = new java.util.HashMap<>();
  private final Process standIns;
  private final List<String> settings;
  private Process application;

  /**
   * @param settings of the application, besides those that all tests share
   */
  Together(String... settings) {
    this.settings = List.of(settings);
    try {
      data = Files.createTempDirectory("ysthmos-e2e");
      Files.writeString(
          data.resolve("connections.properties"),
          """
          visitor-desk.address=http://127.0.0.1:%d
          grounds-board.address=http://127.0.0.1:%d
          friends-register.address=http://127.0.0.1:%d
          secret.friends-register-token=friends
          secret.visitor-desk-token=desk
          secret.grounds-board-token=board
          secret.visitor-desk-hook=%s
          """
              .formatted(desk, board, friends, SECRET));
      Files.writeString(
          data.resolve("standins.properties"),
          """
          visitor-desk.port=%d
          visitor-desk.token=desk
          visitor-desk.hook=%s/hooks/visitor-desk/hazard-reports
          visitor-desk.hook-secret=%s
          grounds-board.port=%d
          grounds-board.token=board
          friends-register.port=%d
          friends-register.token=friends
          """
              .formatted(desk, appAddress(), SECRET, board, friends));
      for (String other :
          List.of("works-ledger", "climate-desk", "garden-chat", "chore-table", "leaf-library")) {
        add(other, freePort());
      }
      addPostRoom();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    standIns =
        java(
            "standins.log",
            STAND_INS,
            "--data",
            data.resolve("standins").toString(),
            "--settings",
            data.resolve("standins.properties").toString());
    application = startApplication();
    awaitUp();
  }

  /** A stand-in that is there like the others, but no test drives by itself. */
  private void add(String name, int port) throws IOException {
    others.put(name, "http://127.0.0.1:" + port);
    append(
        "connections.properties",
        """
        %1$s.address=http://127.0.0.1:%2$d%3$s
        %1$s.practice-address=http://127.0.0.1:%2$d/control/faults
        secret.%1$s-token=t
        secret.%1$s-hook=h
        secret.%1$s-password=t
        """
            .formatted(name, port, name.equals("leaf-library") ? "/dav" : ""));
    append(
        "standins.properties",
        """
        %1$s.port=%2$d
        %1$s.token=t
        %1$s.hook=%3$s/hooks/climate-desk/tickets
        %1$s.hooks=%3$s/hooks/garden-chat
        %1$s.hook-secret=h
        %1$s.password=t
        """
            .formatted(name, port, appAddress()));
  }

  private void addPostRoom() throws IOException {
    int imap = freePort();
    int smtp = freePort();
    append(
        "connections.properties",
        """
        post-room.address=imap://127.0.0.1:%d
        post-room.send-address=smtp://127.0.0.1:%d
        secret.post-room-password=p
        """
            .formatted(imap, smtp));
    append(
        "standins.properties",
        "post-room.port=%d\npost-room.imap-port=%d\npost-room.smtp-port=%d\npost-room.password=p\n"
            .formatted(freePort(), imap, smtp));
  }

  private void append(String file, String text) throws IOException {
    Files.writeString(data.resolve(file), text, StandardOpenOption.APPEND);
  }

  private static int freePort() {
    // Below the range from which the system takes ports for connections, so that none is taken
    // between the choice and its use.
    for (int port = NEXT.getAndIncrement(); port < 32_000; port = NEXT.getAndIncrement()) {
      try (ServerSocket socket = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
        return socket.getLocalPort();
      } catch (IOException taken) {
        // The next one, then.
        continue;
      }
    }
    throw new IllegalStateException("no port is free");
  }

  private Process java(String log, Path jar, String... arguments) {
    List<String> words = new ArrayList<>(List.of("-jar", jar.toString()));
    words.addAll(List.of(arguments));
    return java(log, words);
  }

  private Process java(String log, List<String> arguments) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC"));
    command.addAll(arguments);
    try {
      return new ProcessBuilder(command)
          .redirectErrorStream(true)
          .redirectOutput(ProcessBuilder.Redirect.appendTo(data.resolve(log).toFile()))
          .start();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Process startApplication() {
    List<String> all =
        new ArrayList<>(
            List.of(
                "--ysthmos.port=" + app,
                "--ysthmos.data=" + data,
                "--ysthmos.setup=" + ROOT.resolve("demo"),
                "--ysthmos.connections=" + data.resolve("connections.properties"),
                "--ysthmos.retry.first=200ms",
                "--ysthmos.retry.longest=1s",
                "--ysthmos.retry.tries=60",
                "--ysthmos.retry.looks=500ms,6s",
                "--ysthmos.work.lease=3s",
                // A look would use up a fault that a test set for a call of its own.
                "--ysthmos.health.first=1d"));
    all.addAll(settings);
    return java(
        "application.log", ROOT.resolve("app/target/ysthmos-app.jar"), all.toArray(String[]::new));
  }

  /** Carries out the garden's days before {@code end}; the exit status of the program. */
  int makePast(int days, Instant end) {
    Process past =
        java(
            "past.log",
            List.of(
                "-cp",
                STAND_INS.toString(),
                "org.ysthmos.standins.past.Past",
                data.resolve("standins.properties").toString(),
                appAddress(),
                Integer.toString(days),
                end.toString()));
    try {
      return past.waitFor();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  String log(String name) {
    try {
      return Files.readString(data.resolve(name));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void awaitUp() {
    await()
        .atMost(Duration.ofSeconds(90))
        .pollInterval(Duration.ofMillis(200))
        .ignoreExceptions()
        .until(() -> send("GET", appAddress() + "/api/session", "", Map.of()).statusCode() == 200);
  }

  /** Ends the application as a power cut would: nothing of it runs any further. */
  void kill() {
    application.destroyForcibly();
    try {
      application.waitFor();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /**
   * Ends the application as its keeper would, and waits until it has ended; gives its exit status.
   */
  int stop() {
    application.destroy();
    try {
      return application.waitFor();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Copies the database as it is on the disk. */
  void keepCopy() {
    copy("ysthmos.mv.db", "copy.mv.db");
  }

  /** Puts the copy in the place of the database. */
  void restoreCopy() {
    copy("copy.mv.db", "ysthmos.mv.db");
  }

  private void copy(String from, String to) {
    try {
      Files.copy(data.resolve(from), data.resolve(to), StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  void restart() {
    application = startApplication();
    awaitUp();
  }

  String appAddress() {
    return "http://127.0.0.1:" + app;
  }

  String deskAddress() {
    return "http://127.0.0.1:" + desk;
  }

  String friendsAddress() {
    return "http://127.0.0.1:" + friends;
  }

  String boardAddress() {
    return "http://127.0.0.1:" + board;
  }

  HttpResponse<String> send(
      String method, String address, String body, Map<String, String> headers) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(address))
            .timeout(Duration.ofSeconds(20))
            .method(method, HttpRequest.BodyPublishers.ofString(body));
    headers.forEach(request::header);
    try {
      return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  JsonNode json(String method, String address, String body, Map<String, String> headers) {
    try {
      return JSON.readTree(send(method, address, body, headers).body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Sends a report in through the desk's own API; the desk then sends its webhook. */
  String report(String problem, String danger) {
    String body =
        """
        {"place":"Palm walk","problem":"%s","seenOn":"23 November 2026","danger":"%s",
         "mail":"k.lund@mail.example","photo":""}
        """
            .formatted(problem, danger);
    return json(
            "POST",
            deskAddress() + "/api/submissions",
            body,
            Map.of("Authorization", "Bearer desk"))
        .path("id")
        .asText();
  }

  /** From now on it is this time in the application, until it is started again. */
  void clock(Instant now) {
    HttpResponse<String> set =
        send(
            "PUT",
            appAddress() + "/api/clock",
            "{\"now\":\"%s\"}".formatted(now),
            Map.of("Content-Type", "application/json"));
    if (set.statusCode() != 204) {
      throw new IllegalStateException("the clock cannot be set: " + set.body());
    }
  }

  void fault(String address, String kind, String method, String below, int calls, int millis) {
    send(
        "POST",
        address + "/control/faults",
        """
        {"kind":"%s","method":"%s","below":"%s","calls":%d,"waitMillis":%d}
        """
            .formatted(kind, method, below, calls, millis),
        Map.of());
  }

  /** The address of a stand-in that has no accessor of its own. */
  String address(String standIn) {
    return java.util.Objects.requireNonNull(others.get(standIn));
  }

  void clearFaults() {
    send("DELETE", deskAddress() + "/control/faults", "", Map.of());
    send("DELETE", boardAddress() + "/control/faults", "", Map.of());
  }

  /** Every task as the board wrote it down, the newest state of each. */
  List<JsonNode> tasks() {
    Map<String, JsonNode> newest = new java.util.LinkedHashMap<>();
    try {
      Path file = data.resolve("standins").resolve("grounds-board.ndjson");
      if (Files.exists(file)) {
        for (String line : Files.readAllLines(file)) {
          JsonNode task = JSON.readTree(line);
          if (task.path("removed").asBoolean()) {
            newest.remove(task.path("id").asText());
          } else {
            newest.put(task.path("id").asText(), task);
          }
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return List.copyOf(newest.values());
  }

  List<JsonNode> tasksOf(String number) {
    return tasks().stream()
        .filter(task -> task.path("notes").asText().contains("Report " + number + ","))
        .toList();
  }

  List<JsonNode> tracesOf(String number) {
    JsonNode found = json("GET", appAddress() + "/api/traces?text=" + number, "", Map.of());
    return StreamSupport.stream(found.path("traces").spliterator(), false)
        .filter(trace -> trace.path("record").asText().equals(number))
        .toList();
  }

  void awaitVerdict(String number, String verdict) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(
            () ->
                tracesOf(number).stream()
                    .anyMatch(trace -> trace.path("verdict").asText().equals(verdict)));
  }

  /** Those reports of which no trace has come to a verdict in time. */
  List<String> withoutVerdict(List<String> numbers, String verdict, Duration longest) {
    List<String> open = new ArrayList<>(numbers);
    long until = System.nanoTime() + longest.toNanos();
    while (!open.isEmpty() && System.nanoTime() < until) {
      open.removeIf(
          number ->
              tracesOf(number).stream()
                  .anyMatch(trace -> trace.path("verdict").asText().equals(verdict)));
    }
    return open;
  }

  /** All that is told of a report's traces, for whoever wonders why. */
  String told(String number) {
    return number
        + tracesOf(number).stream()
            .map(trace -> trace.path("id").asText())
            .map(id -> "\n" + json("GET", appAddress() + "/api/traces/" + id, "", Map.of()))
            .collect(Collectors.joining());
  }

  @Override
  public void close() {
    application.destroyForcibly();
    standIns.destroyForcibly();
  }
}
