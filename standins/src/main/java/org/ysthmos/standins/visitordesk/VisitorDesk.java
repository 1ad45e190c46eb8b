package org.ysthmos.standins.visitordesk;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.hook.HookSender;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * The hazard report form of the garden. Every answer is a text, the date and the scale included;
 * the webhook carries only the submission id, and the answers are read by a second call.
 */
public final class VisitorDesk implements StandIn {

  /** The questions of the form, by the key of the answer. */
  static final List<String> QUESTIONS =
      List.of("place", "problem", "seenOn", "danger", "mail", "photo");

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int FIRST_NUMBER = 20401;

  private final RecordLog submissions;
  private final HookSender sender;
  private final ControlledClock clock;
  private final URI hook;
  private final String hookSecret;
  private final StandInServer server;

  /**
   * @param hook where webhooks go
   * @param hookSecret signs them
   * @throws IOException if the port cannot be opened
   */
  public VisitorDesk(
      int port, String token, Path data, ControlledClock clock, URI hook, String hookSecret)
      throws IOException {
    this.submissions = new RecordLog(data.resolve("visitor-desk.ndjson"));
    this.clock = clock;
    this.sender = new HookSender(clock);
    this.hook = hook;
    this.hookSecret = hookSecret;
    Routes routes =
        new Routes()
            .open("GET", "/", request -> Reply.html(VisitorDeskPages.form()))
            .open("POST", "/reports", this::sendIn)
            .signedIn("GET", "/api/submissions", this::list)
            .signedIn("POST", "/api/submissions", this::sendInByApi)
            .signedIn("GET", "/api/submissions/{id}", this::one)
            .signedIn("PATCH", "/api/submissions/{id}", this::edit)
            .signedIn("POST", "/api/submissions/{id}/announcements", this::announceAgain);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/visitor-desk.json"), clock, routes);
    server.tellsBy(sender);
  }

  @Override
  public VisitorDesk start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private Reply sendIn(Request request) {
    ObjectNode submission = keep(request.form());
    announce(submission, "submission.created");
    return Reply.html(VisitorDeskPages.thanks(submission.path("id").asText()));
  }

  private Reply sendInByApi(Request request) {
    ObjectNode answers = JSON.createObjectNode();
    QUESTIONS.forEach(q -> answers.put(q, request.json().path(q).asText("")));
    Map<String, String> asForm = JSON.convertValue(answers, new StringMap());
    ObjectNode submission = keep(asForm);
    announce(submission, "submission.created");
    return Reply.json(201, submission);
  }

  private synchronized ObjectNode keep(Map<String, String> form) {
    ObjectNode submission = JSON.createObjectNode();
    submission.put("id", "vd-" + (FIRST_NUMBER + submissions.everKept()));
    submission.put("sentAt", clock.instant().toString());
    ObjectNode answers = submission.putObject("answers");
    QUESTIONS.forEach(question -> answers.put(question, form.getOrDefault(question, "")));
    submissions.keep(submission);
    return submission;
  }

  private void announce(ObjectNode submission, String type) {
    ObjectNode body = JSON.createObjectNode().put("type", type);
    body.put("submission", submission.path("id").asText());
    sender.send(hook, hookSecret, "msg_" + UUID.randomUUID(), body.toString());
  }

  private synchronized Reply list(Request request) {
    List<ObjectNode> all = submissions.all();
    boolean newest = request.query("order").filter("newest"::equals).isPresent();
    ArrayNode items = JSON.createArrayNode();
    (newest ? all.reversed() : all).forEach(items::add);
    return Reply.json(200, JSON.createObjectNode().set("items", items));
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return submissions
        .get(id)
        .orElseThrow(() -> new Refusal(404, "no submission has the number " + id));
  }

  private Reply one(Request request) {
    return Reply.json(200, find(request));
  }

  private Reply edit(Request request) {
    ObjectNode changed = find(request).deepCopy();
    ObjectNode answers = (ObjectNode) changed.path("answers");
    request
        .json()
        .properties()
        .forEach(
            entry -> {
              if (!QUESTIONS.contains(entry.getKey())) {
                throw Refusal.ofField(entry.getKey(), "the form has no such question");
              }
              answers.set(entry.getKey(), entry.getValue());
            });
    synchronized (this) {
      submissions.keep(changed);
    }
    announce(changed, "submission.changed");
    return Reply.json(200, changed);
  }

  private Reply announceAgain(Request request) {
    announce(find(request), "submission.created");
    return Reply.empty();
  }

  @Override
  public void close() {
    server.close();
    sender.close();
  }

  private static final class StringMap
      extends com.fasterxml.jackson.core.type.TypeReference<Map<String, String>> {}
}
