package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.jspecify.annotations.Nullable;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.hook.HookSender;

/**
 * An HTTP server on loopback for one stand-in. Every stand-in publishes {@code /openapi.json},
 * takes faults at {@code /control/faults} and the time at {@code /control/clock}.
 */
public final class StandInServer implements AutoCloseable {

  private static final Logger LOG = Logger.getLogger(StandInServer.class.getName());

  /** Milliseconds that a caller may wait for webhooks to be taken. */
  private static final int LONGEST_WAIT = 1_000;

  private static final int LARGEST_BODY = 1 << 20;

  static {
    // The end of a long answer would wait 40 ms for the caller to acknowledge what came before
    // (Nagle's algorithm against delayed acknowledgement). The JDK reads this with its first
    // server.
    System.setProperty("sun.net.httpserver.nodelay", "true");
  }

  private final HttpServer server;
  private final Routes routes;
  private final Faults faults;
  private final Switches switches;
  private final String token;
  private final Map<String, Happening> happenings = new ConcurrentHashMap<>();

  /**
   * @param port 0 for any free port
   * @param token what callers of a signed-in route send as bearer token
   * @throws IOException if the port cannot be opened
   */
  public StandInServer(int port, String token, String openApi, ControlledClock clock, Routes routes)
      throws IOException {
    this(port, token, openApi, clock, routes, null);
  }

  /**
   * @param own the faults that can be switched on; null for those of HTTP
   */
  public StandInServer(
      int port,
      String token,
      String openApi,
      ControlledClock clock,
      Routes routes,
      @Nullable Switches own)
      throws IOException {
    this.token = token;
    this.routes = routes;
    this.faults = new Faults(clock);
    this.switches = own == null ? faults : own;
    routes.open("GET", "/openapi.json", request -> Reply.of(200, "application/json", openApi));
    routes.open("GET", "/control/faults", request -> Reply.json(200, listed()));
    routes.open(
        "POST",
        "/control/faults",
        request -> {
          switchOn(request.json());
          return Reply.empty();
        });
    routes.open(
        "DELETE",
        "/control/faults",
        request -> {
          switches.clear();
          return Reply.empty();
        });
    routes.open(
        "PUT",
        "/control/clock",
        request -> {
          clock.set(Instant.parse(request.json().path("now").asText()));
          return Reply.empty();
        });
    routes.open(
        "DELETE",
        "/control/clock",
        request -> {
          clock.release();
          return Reply.empty();
        });
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
    server.setExecutor(Executors.newCachedThreadPool());
    server.createContext("/", this::serve);
  }

  /**
   * Lets something else be switched on with the faults, which happens once and at once.
   *
   * @param kind the word for it
   */
  public void alsoSwitches(String kind, String title, Runnable what) {
    happenings.put(kind, new Happening(title, what));
  }

  private record Happening(String title, Runnable what) {}

  private void switchOn(JsonNode wish) {
    Happening happening = happenings.get(wish.path("kind").asText());
    if (happening == null) {
      switches.add(wish);
    } else {
      happening.what().run();
    }
  }

  private ObjectNode listed() {
    ObjectNode list = switches.list();
    happenings.forEach(
        (kind, one) ->
            list.withArray("kinds").addObject().put("kind", kind).put("title", one.title()));
    return list;
  }

  public void start() {
    server.start();
  }

  /**
   * Lets faults befall the webhooks of a sender, and says how many are under way, once none is or
   * the milliseconds have gone by that a caller waits.
   */
  public void tellsBy(HookSender sender) {
    faults.ofHooksToo();
    sender.troubledBy(faults::takeOfHooks);
    routes.open(
        "GET",
        "/control/hooks",
        request -> {
          int wait = Math.min(request.query("wait").map(Integer::parseInt).orElse(0), LONGEST_WAIT);
          int underWay = sender.underWay(Duration.ofMillis(wait));
          return Reply.json(200, Request.JSON.createObjectNode().put("underWay", underWay));
        });
    routes.open(
        "POST",
        "/control/hooks",
        request -> {
          sender.sendWaiting();
          return Reply.empty();
        });
  }

  public int port() {
    return server.getAddress().getPort();
  }

  @Override
  public void close() {
    server.stop(0);
  }

  private void serve(HttpExchange exchange) throws IOException {
    String method = exchange.getRequestMethod();
    String path = exchange.getRequestURI().getPath();
    try (exchange) {
      // The switches work whatever they have switched on.
      Optional<Faults.Fault> fault =
          path.startsWith("/control/") ? Optional.empty() : faults.take(method, path);
      if (fault.isPresent() && before(fault.get(), exchange)) {
        return;
      }
      Reply reply = answer(exchange, method, path);
      if (fault.isPresent() && fault.get().kind() == Faults.Kind.ANSWER_LOST) {
        return;
      }
      if (fault.isPresent()) {
        reply = after(fault.get(), exchange, reply);
      }
      send(exchange, reply);
    }
  }

  /** Carries out a fault that comes before the work; true if nothing more is to be done. */
  private static boolean before(Faults.Fault fault, HttpExchange exchange) throws IOException {
    switch (fault.kind()) {
      case DOWN -> {}
      case ERROR -> send(exchange, new Refusal(500, "something broke here").reply());
      case NOT_FOUND -> send(exchange, new Refusal(404, "there is nothing here").reply());
      case FORBIDDEN -> send(exchange, new Refusal(403, "this account may not do that").reply());
      case QUOTA_FULL ->
          send(exchange, Refusal.quotaFull("this account holds as much as it may").reply());
      case TOKEN_EXPIRED -> send(exchange, new Refusal(401, "the token has expired").reply());
      case TOO_MANY ->
          send(exchange, Refusal.tooMany("too many calls", fault.pause().toSeconds()).reply());
      case SLOW -> {
        rest(fault.pause());
        return false;
      }
      case SLOW_ANSWER,
          ANSWER_LOST,
          TRUNCATED,
          FIELD_RENAMED,
          HOOK_TWICE,
          HOOK_OUT_OF_ORDER,
          HOOK_LOST -> {
        return false;
      }
    }
    return true;
  }

  /** Carries out a fault that comes after the work. */
  private static Reply after(Faults.Fault fault, HttpExchange exchange, Reply reply)
      throws IOException {
    switch (fault.kind()) {
      case SLOW_ANSWER -> rest(fault.pause());
      case TRUNCATED -> {
        // More is promised than comes, so whoever reads it notices.
        exchange.sendResponseHeaders(reply.status(), reply.body().length + 1L);
        exchange.getResponseBody().write(reply.body(), 0, reply.body().length / 2);
        exchange.getResponseBody().flush();
        throw new IOException("broken off, as wished");
      }
      case FIELD_RENAMED -> {
        String[] names = fault.field().split(":", -1);
        String text = new String(reply.body(), StandardCharsets.UTF_8);
        String renamed =
            text.replace("\"" + names[0] + "\":", "\"" + names[names.length - 1] + "\":");
        return new Reply(reply.status(), reply.headers(), renamed.getBytes(StandardCharsets.UTF_8));
      }
      default -> {}
    }
    return reply;
  }

  private static void rest(Duration wait) {
    try {
      Thread.sleep(wait);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private Reply answer(HttpExchange exchange, String method, String path) {
    try {
      List<Routes.Match> matches = routes.matching(path);
      if (matches.isEmpty()) {
        throw new Refusal(404, "nothing is at " + path);
      }
      Routes.Match match =
          matches.stream()
              .filter(m -> m.route().method().equals(method))
              .findFirst()
              .orElseThrow(() -> new Refusal(405, method + " is not taken at " + path));
      Request request = request(exchange, match.slots());
      if (match.route().needsToken() && !hasToken(request)) {
        throw new Refusal(401, "sign in with a bearer token");
      }
      return match.route().handler().answer(request);
    } catch (Refusal refusal) {
      return refusal.reply();
    } catch (RuntimeException | IOException e) {
      LOG.log(Level.WARNING, method + " " + path, e);
      return new Refusal(500, "something broke here").reply();
    }
  }

  private boolean hasToken(Request request) {
    return request.header("Authorization").filter(("Bearer " + token)::equals).isPresent();
  }

  private static Request request(HttpExchange exchange, Map<String, String> slots)
      throws IOException {
    try (InputStream in = exchange.getRequestBody()) {
      byte[] body = in.readNBytes(LARGEST_BODY);
      String query = Optional.ofNullable(exchange.getRequestURI().getRawQuery()).orElse("");
      return new Request(
          exchange.getRequestMethod(),
          slots,
          Request.parameters(query),
          exchange.getRequestHeaders(),
          body);
    }
  }

  private static void send(HttpExchange exchange, Reply reply) throws IOException {
    reply.headers().forEach((name, value) -> exchange.getResponseHeaders().set(name, value));
    exchange.sendResponseHeaders(
        reply.status(), reply.body().length == 0 ? -1 : reply.body().length);
    if (reply.body().length > 0) {
      exchange.getResponseBody().write(reply.body());
    }
  }

  /** Text made safe to stand in a page. */
  public static String escape(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }

  /** Reads a text file of this module, such as an OpenAPI description. */
  public static String resource(String name) {
    try (InputStream in = StandInServer.class.getResourceAsStream(name)) {
      if (in == null) {
        throw new IllegalStateException("the stand-in lacks its file " + name);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new IllegalStateException("the stand-in cannot read its file " + name, e);
    }
  }
}
