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

/** The application and the stand-ins, each a process of its own, started from the built jars. */
class Processes implements AutoCloseable {

  private static final AtomicInteger NEXT =
      new AtomicInteger(20000 + (int) (ProcessHandle.current().pid() % 350) * 10);

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final HttpClient HTTP = HttpClient.newHttpClient();
  static final String SECRET = "whsec_ZW5kIHRvIGVuZCBzZWNyZXQ=";
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
  Processes(String... settings) {
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
          secret.grounds-board-hook=%s
          grounds-board.practice-address=http://127.0.0.1:%d/control/faults
          """
              .formatted(desk, board, friends, SECRET, SECRET, board));
      Files.writeString(
          data.resolve("standins.properties"),
          """
          visitor-desk.port=%d
          visitor-desk.token=desk
          visitor-desk.hook=%s/hooks/visitor-desk/hazard-reports
          visitor-desk.hook-secret=%s
          grounds-board.port=%d
          grounds-board.token=board
          grounds-board.task-hooks=%s/hooks/grounds-board
          grounds-board.hook-secret=%s
          friends-register.port=%d
          friends-register.token=friends
          """
              .formatted(desk, appAddress(), SECRET, board, appAddress(), SECRET, friends));
      for (String other :
          List.of("works-ledger", "climate-desk", "garden-chat", "chore-table", "leaf-library")) {
        add(other, freePort());
      }
      addPostRoom();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    standIns =
        start(
            "standins.log",
            Unpacked.java(),
            List.of(
                "-jar",
                STAND_INS.toString(),
                "--data",
                data.resolve("standins").toString(),
                "--settings",
                data.resolve("standins.properties").toString()));
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
    int pages = freePort();
    others.put("post-room", "http://127.0.0.1:" + pages);
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
            .formatted(pages, imap, smtp));
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

  private Process start(String log, List<String> java, List<String> arguments) {
    List<String> command = new ArrayList<>(java);
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

  /** Where the application keeps what it must not lose. */
  Path home() {
    return data;
  }

  private Process startApplication() {
    List<String> all =
        new ArrayList<>(
            List.of(
                "--ysthmos.port=" + app,
                "--ysthmos.data=" + home(),
                "--ysthmos.setup=" + ROOT.resolve("demo"),
                "--ysthmos.connections=" + data.resolve("connections.properties"),
                "--ysthmos.retry.first=200ms",
                "--ysthmos.retry.longest=1s",
                "--ysthmos.retry.tries=60",
                "--ysthmos.retry.looks=500ms,6s",
                "--ysthmos.work.lease=3s",
                // A look would use up a fault that a test set for a call of its own.
                "--ysthmos.health.first=1d",
                "--ysthmos.health.quota=1d",
                "--ysthmos.check.first=1d"));
    all.addAll(settings);
    return start("application.log", Unpacked.application(), all);
  }

  /** Carries out the garden's days before {@code end}; the exit status of the program. */
  int makePast(int days, Instant end) {
    Process past =
        start(
            "past.log",
            Unpacked.java(),
            List.of(
                "-cp",
                STAND_INS.toString(),
                "org.ysthmos.standins.past.Past",
                data.resolve("standins.properties").toString(),
                appAddress(),
                Integer.toString(days),
                end.toString()));
    return ended(past);
  }

  /**
   * Runs a command of the application in a process of its own, on its data folder.
   *
   * @param main the class of the command
   * @return its exit status; what it said stands in {@code command.log}
   */
  int command(String main, String... words) {
    List<String> all = new ArrayList<>(List.of("-cp", Unpacked.JAR.toString(), main));
    all.addAll(List.of(words));
    all.addAll(List.of("--data", home().toString()));
    return ended(start("command.log", Unpacked.java(), all));
  }

  private static int ended(Process process) {
    try {
      return process.waitFor();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /** The port of the application. */
  int port() {
    return app;
  }

  /** A file of the data folder. */
  final Path kept(String name) {
    return data.resolve(name);
  }

  static JsonNode read(String json) throws IOException {
    return JSON.readTree(json);
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
    int unused = ended(application);
  }

  /**
   * Ends the application as its keeper would, and waits until it has ended; gives its exit status.
   */
  int stop() {
    application.destroy();
    return ended(application);
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
      return read(send(method, address, body, headers).body());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The address of a stand-in that has no accessor of its own. */
  String address(String standIn) {
    return java.util.Objects.requireNonNull(others.get(standIn));
  }

  @Override
  public void close() {
    application.destroyForcibly();
    standIns.destroyForcibly();
  }
}
