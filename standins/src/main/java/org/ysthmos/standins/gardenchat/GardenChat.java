package org.ysthmos.standins.gardenchat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.hook.HookSender;
import org.ysthmos.standins.http.Page;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * A chat with channels. Each type of event is told at an address of its own, with a shared secret
 * in a header. A reaction is told with the channel, the timestamp and the author of its message,
 * but without its text.
 */
public final class GardenChat implements StandIn {

  static final List<String> CHANNELS = List.of("nursery", "works", "visits");

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Page PAGE = new Page("Garden Chat", "#41538c");

  private final RecordLog messages;
  private final ControlledClock clock;
  private final URI hooks;
  private final String hookSecret;
  private final HookSender sender;
  private final StandInServer server;
  private long lastMicros;

  /**
   * @param hooks below which each type of event has its address: {@code messages} and {@code
   *     reactions}
   * @throws IOException if the port cannot be opened
   */
  public GardenChat(
      int port, String token, Path data, ControlledClock clock, URI hooks, String hookSecret)
      throws IOException {
    this.messages = new RecordLog(data.resolve("garden-chat.ndjson"));
    this.clock = clock;
    this.hooks = hooks;
    this.hookSecret = hookSecret;
    this.sender = new HookSender(clock);
    Routes routes =
        new Routes()
            .open("GET", "/", request -> page())
            .open("POST", "/messages", request -> PAGE.made(say(request.form())))
            .open("POST", "/reactions", request -> PAGE.made(react(request.form())))
            .signedIn("GET", "/api/messages", this::search)
            .signedIn("POST", "/api/messages", this::post)
            .signedIn("DELETE", "/api/messages/{id}", this::remove)
            .signedIn("GET", "/api/messages/{id}", request -> Reply.json(200, find(request)));
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/garden-chat.json"), clock, routes);
    server.tellsBy(sender);
  }

  @Override
  public GardenChat start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return messages.get(id).orElseThrow(() -> new Refusal(404, "there is no message “" + id + "”"));
  }

  private String say(Map<String, String> form) {
    return keep(
            form.getOrDefault("channel", ""),
            form.getOrDefault("author", ""),
            form.getOrDefault("text", ""),
            "")
        .path("id")
        .asText();
  }

  /** A message that was posted under the same key is not posted again. */
  private Reply post(Request request) {
    JsonNode wish = request.json();
    String key = wish.path("key").asText("");
    synchronized (this) {
      Optional<ObjectNode> known =
          messages.all().stream()
              .filter(one -> !key.isEmpty() && one.path("key").asText().equals(key))
              .findFirst();
      if (known.isPresent()) {
        return Reply.json(200, known.get());
      }
    }
    if (wish.path("text").asText("").isBlank()) {
      throw Refusal.ofField("text", "a message says something");
    }
    return Reply.json(
        201, keep(wish.path("channel").asText(""), "ysthmos", wish.path("text").asText(), key));
  }

  private ObjectNode keep(String channel, String author, String text, String key) {
    if (!CHANNELS.contains(channel)) {
      throw Refusal.ofField("channel", "a channel is one of " + String.join(", ", CHANNELS));
    }
    ObjectNode message = JSON.createObjectNode();
    synchronized (this) {
      String ts = timestamp();
      message.put("id", channel + "-" + ts.replace(".", "-"));
      message.put("channel", channel).put("ts", ts).put("author", author).put("text", text);
      message.put("at", clock.instant().toString());
      if (!key.isEmpty()) {
        message.put("key", key);
      }
      messages.keep(message);
    }
    ObjectNode body = JSON.createObjectNode().put("event", "message.posted");
    body.setAll(message);
    tell("messages", body);
    return message;
  }

  /** Seconds and microseconds; no two messages have the same. */
  private String timestamp() {
    var now = clock.instant();
    long micros = Math.max(now.getEpochSecond() * 1_000_000 + now.getNano() / 1000, lastMicros + 1);
    lastMicros = micros;
    return "%d.%06d".formatted(micros / 1_000_000, micros % 1_000_000);
  }

  private String react(Map<String, String> form) {
    ObjectNode message;
    synchronized (this) {
      String id = form.getOrDefault("message", "");
      message =
          messages.get(id).orElseThrow(() -> new Refusal(404, "there is no message “" + id + "”"));
    }
    String id = "re-" + UUID.randomUUID();
    ObjectNode body = JSON.createObjectNode().put("event", "reaction.added").put("id", id);
    body.put("reaction", form.getOrDefault("reaction", "seedling"));
    body.put("by", form.getOrDefault("by", ""));
    body.put("channel", message.path("channel").asText());
    body.put("ts", message.path("ts").asText());
    body.put("author", message.path("author").asText());
    tell("reactions", body);
    return id;
  }

  private void tell(String what, ObjectNode body) {
    sender.send(
        URI.create(hooks + "/" + what),
        UUID.randomUUID().toString(),
        body.toString(),
        (id, sent) -> Map.of("Chat-Event", id, "Chat-Secret", hookSecret));
  }

  private synchronized Reply search(Request request) {
    ArrayNode items = JSON.createArrayNode();
    messages.all().reversed().stream()
        .filter(one -> fits(request, one, "channel") && fits(request, one, "ts"))
        .filter(one -> fits(request, one, "author") && fits(request, one, "key"))
        .limit(50)
        .forEach(items::add);
    return Reply.json(200, JSON.createObjectNode().set("messages", items));
  }

  private static boolean fits(Request request, ObjectNode message, String field) {
    return request.query(field).stream()
        .allMatch(value -> value.equals(message.path(field).asText()));
  }

  private synchronized Reply remove(Request request) {
    messages.remove(find(request).path("id").asText());
    return Reply.empty();
  }

  private synchronized Reply page() {
    Map<String, String> fields = new LinkedHashMap<>();
    fields.put("channel", "Channel: " + String.join(", ", CHANNELS));
    fields.put("author", "Who are you?");
    fields.put("text", "What do you say?");
    return PAGE.with(
        Page.form("/messages", fields, "Say it")
            + "<h2>Messages</h2>"
            + Page.table(
                List.of("Channel", "Who", "Message", ""),
                messages.all().reversed().stream().map(GardenChat::row).toList()));
  }

  private static List<String> row(ObjectNode message) {
    return List.of(
        Page.escape(message.path("channel").asText()),
        Page.escape(message.path("author").asText()),
        Page.escape(message.path("text").asText()),
        "<form method=\"post\" action=\"/reactions\"><input type=\"hidden\" name=\"message\" value=\"%s\"><button name=\"reaction\" value=\"seedling\">Seedling</button></form>"
            .formatted(Page.escape(message.path("id").asText())));
  }

  @Override
  public void close() {
    server.close();
    sender.close();
  }
}
