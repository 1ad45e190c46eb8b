package org.ysthmos.standins.worksledger;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Page;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * Jobs of the works department. People are known by their mail, a job is due on a whole day, a
 * change needs the tag of what was read ({@code If-Match}), a job that is made twice under one
 * {@code Idempotency-Key} is one job, and whoever wants to know asks for changes after a cursor.
 */
public final class WorksLedger implements StandIn {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Page PAGE = new Page("Works Ledger", "#7a4b2a");
  private static final int FIRST_NUMBER = 5201;
  private static final int MOST_ON_A_PAGE = 40;

  private final RecordLog jobs;
  private final RecordLog keys;
  private final ControlledClock clock;
  private final StandInServer server;
  private int lastOrdinal;

  /**
   * @throws IOException if the port cannot be opened
   */
  public WorksLedger(int port, String token, Path data, ControlledClock clock) throws IOException {
    this.jobs = new RecordLog(data.resolve("works-ledger.ndjson"));
    this.keys = new RecordLog(data.resolve("works-ledger-keys.ndjson"));
    this.clock = clock;
    for (ObjectNode job : jobs.all()) {
      lastOrdinal = Math.max(lastOrdinal, job.path("ordinal").asInt());
    }
    Routes routes =
        new Routes()
            .open("GET", "/", request -> page())
            .open("GET", "/jobs/{id}", request -> PAGE.with(list(List.of(find(request)))))
            .open("POST", "/jobs/{id}/status", request -> byHand(request, "status"))
            .open("POST", "/jobs/{id}/title", request -> byHand(request, "title"))
            .signedIn("GET", "/api/jobs/{id}", request -> answer(200, find(request)))
            .signedIn("POST", "/api/jobs", this::create)
            .signedIn("PATCH", "/api/jobs/{id}", this::change)
            .signedIn("DELETE", "/api/jobs/{id}", this::remove)
            .signedIn("GET", "/api/changes", this::changes);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/works-ledger.json"), clock, routes);
  }

  @Override
  public WorksLedger start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return jobs.get(id).orElseThrow(() -> new Refusal(404, "there is no job “" + id + "”"));
  }

  private static Reply answer(int status, ObjectNode job) {
    return Reply.json(status, job).with("ETag", tag(job));
  }

  private static String tag(ObjectNode job) {
    return "\"" + job.path("ordinal").asInt() + "\"";
  }

  private synchronized Reply create(Request request) {
    Optional<String> key = request.header("Idempotency-Key");
    Optional<ObjectNode> known =
        key.flatMap(keys::get).flatMap(kept -> jobs.get(kept.path("job").asText()));
    if (known.isPresent()) {
      return answer(200, known.get());
    }
    ObjectNode job = JSON.createObjectNode().put("id", "wl-" + (FIRST_NUMBER + jobs.everKept()));
    job.put("status", "open");
    JobRules.apply(request.json(), job, id -> jobs.get(id).isPresent());
    if (job.path("title").asText().isBlank()) {
      throw Refusal.ofField("title", "a job has a title");
    }
    keep(job);
    key.ifPresent(
        text ->
            keys.keep(JSON.createObjectNode().put("id", text).put("job", job.path("id").asText())));
    return answer(201, job);
  }

  private synchronized Reply change(Request request) {
    ObjectNode job = find(request).deepCopy();
    String tag =
        request
            .header("If-Match")
            .orElseThrow(() -> new Refusal(428, "send If-Match with the tag of what you read"));
    if (!tag.equals(tag(job)) && !tag.equals("*")) {
      throw new Refusal(412, "the job was changed since it was read");
    }
    JobRules.apply(request.json(), job, id -> jobs.get(id).isPresent());
    keep(job);
    return answer(200, job);
  }

  private synchronized Reply remove(Request request) {
    jobs.remove(find(request).path("id").asText());
    return Reply.empty();
  }

  private void keep(ObjectNode job) {
    String now = clock.instant().toString();
    if (!job.has("createdAt")) {
      job.put("createdAt", now);
    }
    job.put("changedAt", now).put("ordinal", ++lastOrdinal);
    jobs.keep(job);
  }

  /** Each change has a number; whoever asks gets what was numbered later than their cursor. */
  private synchronized Reply changes(Request request) {
    int after = number(request, "after", 0);
    int limit = Math.clamp(number(request, "limit", MOST_ON_A_PAGE), 1, MOST_ON_A_PAGE);
    List<ObjectNode> later =
        jobs.all().stream()
            .filter(job -> job.path("ordinal").asInt() > after)
            .sorted(Comparator.comparingInt(job -> job.path("ordinal").asInt()))
            .toList();
    List<ObjectNode> page = later.subList(0, Math.min(limit, later.size()));
    ObjectNode body = JSON.createObjectNode();
    ArrayNode items = body.putArray("changes");
    page.forEach(items::add);
    int cursor = page.isEmpty() ? after : page.getLast().path("ordinal").asInt();
    body.put("cursor", Integer.toString(cursor));
    if (later.size() > page.size()) {
      body.put("more", Integer.toString(cursor));
    }
    return Reply.json(200, body);
  }

  private static int number(Request request, String name, int otherwise) {
    try {
      return request.query(name).map(Integer::parseInt).orElse(otherwise);
    } catch (NumberFormatException e) {
      throw new Refusal(400, name + " is a number");
    }
  }

  private synchronized Reply page() {
    return PAGE.with(list(jobs.all().reversed()));
  }

  private static String list(List<ObjectNode> jobs) {
    return Page.table(
        List.of("Job", "Title", "Owner", "Due", "Status", ""),
        jobs.stream()
            .map(
                job ->
                    List.of(
                        cell(job, "id"),
                        cell(job, "title") + "<br><small>" + cell(job, "description") + "</small>",
                        cell(job, "owner"),
                        cell(job, "due"),
                        cell(job, "status"),
                        statusForm(job)))
            .toList());
  }

  private static String statusForm(JsonNode job) {
    StringBuilder options = new StringBuilder();
    for (String status : JobRules.STATUSES) {
      String selected = status.equals(job.path("status").asText()) ? " selected" : "";
      options.append("<option").append(selected).append('>').append(status).append("</option>");
    }
    return """
        <form method="post" action="/jobs/%1$s/status"><select name="status" aria-label="Status">%2$s</select><button>Set</button></form>
        <form method="post" action="/jobs/%1$s/title"><input name="title" aria-label="Title" value="%3$s"><button>Call it so</button></form>
        """
        .formatted(cell(job, "id"), options, cell(job, "title"));
  }

  private static String cell(JsonNode job, String field) {
    return Page.escape(job.path(field).asText(""));
  }

  /** Somebody changes a field of a job on the page. */
  private synchronized Reply byHand(Request request, String field) {
    ObjectNode job = find(request).deepCopy();
    ObjectNode wish = JSON.createObjectNode().put(field, request.form().getOrDefault(field, ""));
    JobRules.apply(wish, job, id -> true);
    keep(job);
    return Reply.seeOther("/");
  }

  @Override
  public void close() {
    server.close();
  }
}
