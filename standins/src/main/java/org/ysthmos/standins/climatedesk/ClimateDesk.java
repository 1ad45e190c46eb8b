package org.ysthmos.standins.climatedesk;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
 * Tickets about the climate of the glasshouses. What is to be known stands in one text with
 * labelled parts. Each change is told by a webhook with the whole ticket, its version, and an
 * HMAC-SHA256 of the body in hexadecimal digits in the header {@code Climate-Signature}.
 */
public final class ClimateDesk implements StandIn {

  static final List<String> STATUSES = List.of("new", "open", "on-hold", "solved", "reopened");

  /** What can be changed of a ticket; the job that it became is written by whoever made that. */
  private static final List<String> CHANGED =
      List.of("subject", "description", "status", "job", "jobPage");

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Page PAGE = new Page("Climate Desk", "#2f6d5b");
  private static final int FIRST_NUMBER = 9101;

  private final RecordLog tickets;
  private final ControlledClock clock;
  private final URI hook;
  private final String hookSecret;
  private final HookSender sender;
  private final StandInServer server;

  /**
   * @param hook where changes are told
   * @throws IOException if the port cannot be opened
   */
  public ClimateDesk(
      int port, String token, Path data, ControlledClock clock, URI hook, String hookSecret)
      throws IOException {
    this.tickets = new RecordLog(data.resolve("climate-desk.ndjson"));
    this.clock = clock;
    this.hook = hook;
    this.hookSecret = hookSecret;
    this.sender = new HookSender(clock);
    Routes routes =
        new Routes()
            .open("GET", "/", request -> page())
            .open("GET", "/tickets/{id}", request -> PAGE.with(list(List.of(find(request)))))
            .open("POST", "/tickets", request -> PAGE.made(make(request.form())))
            .open("POST", "/tickets/{id}/status", this::setStatus)
            .signedIn("GET", "/api/tickets", this::list)
            .signedIn("POST", "/api/tickets", this::makeByApi)
            .signedIn("GET", "/api/tickets/{id}", request -> Reply.json(200, find(request)))
            .signedIn("PATCH", "/api/tickets/{id}", this::edit);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/climate-desk.json"), clock, routes);
    server.tellsBy(sender);
  }

  @Override
  public ClimateDesk start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return tickets.get(id).orElseThrow(() -> new Refusal(404, "there is no ticket “" + id + "”"));
  }

  private String make(Map<String, String> form) {
    ObjectNode ticket = JSON.createObjectNode();
    synchronized (this) {
      ticket.put("id", "cd-" + (FIRST_NUMBER + tickets.everKept()));
      ticket.put("subject", form.getOrDefault("subject", ""));
      ticket.put("description", form.getOrDefault("description", ""));
      ticket.put("requester", form.getOrDefault("requester", ""));
      ticket.put("status", "new");
      keep(ticket);
    }
    tell(ticket, "ticket-made");
    return ticket.path("id").asText();
  }

  private Reply makeByApi(Request request) {
    Map<String, String> form = new LinkedHashMap<>();
    request
        .json()
        .properties()
        .forEach(entry -> form.put(entry.getKey(), entry.getValue().asText()));
    String id = make(form);
    synchronized (this) {
      return Reply.json(201, tickets.get(id).orElseThrow());
    }
  }

  private Reply edit(Request request) {
    ObjectNode ticket;
    synchronized (this) {
      ticket = find(request).deepCopy();
      for (var entry : request.json().properties()) {
        String field = entry.getKey();
        if (!CHANGED.contains(field)) {
          throw Refusal.ofField(field, "a ticket has no such field to change");
        }
        if (field.equals("status") && !STATUSES.contains(entry.getValue().asText())) {
          throw Refusal.ofField(field, "a status is one of " + String.join(", ", STATUSES));
        }
        ticket.set(field, entry.getValue());
      }
      keep(ticket);
    }
    tell(ticket, "ticket-changed");
    return Reply.json(200, ticket);
  }

  private Reply setStatus(Request request) {
    ObjectNode ticket;
    synchronized (this) {
      ticket = find(request).deepCopy();
      ticket.put("status", request.form().getOrDefault("status", "open"));
      keep(ticket);
    }
    tell(ticket, "ticket-changed");
    return Reply.seeOther("/");
  }

  private void keep(ObjectNode ticket) {
    String now = clock.instant().toString();
    if (!ticket.has("openedAt")) {
      ticket.put("openedAt", now);
    }
    ticket.put("changedAt", now).put("version", ticket.path("version").asInt() + 1);
    tickets.keep(ticket);
  }

  private void tell(ObjectNode ticket, String what) {
    ObjectNode body = JSON.createObjectNode().put("what", what);
    body.set("ticket", ticket);
    String text = body.toString();
    sender.send(
        hook,
        UUID.randomUUID().toString(),
        text,
        (id, sent) ->
            Map.of(
                "Climate-Delivery",
                id,
                "Climate-Signature",
                "sha256=" + HookSender.hex(hookSecret, sent)));
  }

  private synchronized Reply list(Request request) {
    ArrayNode items = JSON.createArrayNode();
    tickets.all().reversed().stream().limit(50).forEach(items::add);
    return Reply.json(200, JSON.createObjectNode().set("tickets", items));
  }

  private synchronized Reply page() {
    Map<String, String> fields = new LinkedHashMap<>();
    fields.put("requester", "Your mail address");
    fields.put("subject", "What is it about?");
    fields.put("description", "Write it with labels, for example: Fault code: HV-12");
    return PAGE.with(
        Page.form("/tickets", fields, "Open a ticket")
            + "<h2>Tickets</h2>"
            + list(tickets.all().reversed()));
  }

  private static String list(List<ObjectNode> tickets) {
    return Page.table(
        List.of("Ticket", "Subject", "Requester", "Status", ""),
        tickets.stream()
            .map(
                ticket ->
                    List.of(
                        cell(ticket, "id"),
                        cell(ticket, "subject"),
                        cell(ticket, "requester"),
                        cell(ticket, "status"),
                        "<form method=\"post\" action=\"/tickets/%s/status\"><button name=\"status\" value=\"solved\">Solve</button></form>"
                            .formatted(cell(ticket, "id"))))
            .toList());
  }

  private static String cell(ObjectNode ticket, String field) {
    return Page.escape(ticket.path(field).asText(""));
  }

  @Override
  public void close() {
    server.close();
    sender.close();
  }
}
