package org.ysthmos.standins.friendsregister;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * The register of the friends' society. It tells nobody of anything: whoever wants to know asks for
 * the pledges that changed, page by page, each page naming the next in its Link header. Fields look
 * alike: whoever made a pledge, whoever looks after it and whoever pays have a mail address each.
 */
public final class FriendsRegister implements StandIn {

  /** What a person says of a pledge, by the key of the answer. */
  static final List<String> QUESTIONS =
      List.of("mail", "stewardMail", "payerMail", "what", "amount");

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm:ss.SSS'Z'").withZone(ZoneOffset.UTC);
  private static final int FIRST_NUMBER = 3101;
  private static final int MOST_ON_A_PAGE = 50;

  private final RecordLog pledges;
  private final ControlledClock clock;
  private final StandInServer server;

  /**
   * @throws IOException if the port cannot be opened
   */
  public FriendsRegister(int port, String token, Path data, ControlledClock clock)
      throws IOException {
    this.pledges = new RecordLog(data.resolve("friends-register.ndjson"));
    this.clock = clock;
    Routes routes =
        new Routes()
            .open("GET", "/", request -> Reply.html(FriendsPages.form()))
            .open("GET", "/pledges/{id}", request -> Reply.html(FriendsPages.pledge(find(request))))
            .open("POST", "/pledges", this::pledge)
            .signedIn("GET", "/api/pledges", this::list)
            .signedIn("POST", "/api/pledges", this::pledgeByApi)
            .signedIn("GET", "/api/pledges/{id}", request -> Reply.json(200, find(request)))
            .signedIn("PATCH", "/api/pledges/{id}", this::edit);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/friends-register.json"), clock, routes);
  }

  @Override
  public FriendsRegister start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private Reply pledge(Request request) {
    ObjectNode made = make(request.form());
    return Reply.html(FriendsPages.thanks(made.path("id").asText()));
  }

  private Reply pledgeByApi(Request request) {
    Map<String, String> answers = new LinkedHashMap<>();
    QUESTIONS.forEach(question -> answers.put(question, request.json().path(question).asText("")));
    return Reply.json(201, make(answers));
  }

  private synchronized ObjectNode make(Map<String, String> answers) {
    ObjectNode pledge = JSON.createObjectNode();
    pledge.put("id", "fr-" + (FIRST_NUMBER + pledges.everKept()));
    QUESTIONS.forEach(question -> pledge.put(question, answers.getOrDefault(question, "").strip()));
    String now = now();
    pledge.put("createdAt", now).put("changedAt", now);
    pledges.keep(pledge);
    return pledge;
  }

  private synchronized ObjectNode find(Request request) {
    String id = request.slot("id");
    return pledges.get(id).orElseThrow(() -> new Refusal(404, "there is no pledge “" + id + "”"));
  }

  private synchronized Reply edit(Request request) {
    ObjectNode changed = find(request).deepCopy();
    request
        .json()
        .properties()
        .forEach(
            entry -> {
              if (!QUESTIONS.contains(entry.getKey())) {
                throw Refusal.ofField(entry.getKey(), "a pledge has no such field");
              }
              changed.set(entry.getKey(), entry.getValue());
            });
    changed.put("changedAt", now());
    pledges.keep(changed);
    return Reply.json(200, changed);
  }

  /** Always with milliseconds, so that the order of the texts is the order in time. */
  private String now() {
    return MOMENT.format(clock.instant());
  }

  private static boolean changedSince(ObjectNode pledge, String since) {
    try {
      return !Instant.parse(pledge.path("changedAt").asText()).isBefore(Instant.parse(since));
    } catch (DateTimeParseException e) {
      throw new Refusal(400, "changedSince is a moment such as 2026-11-24T13:58:07Z");
    }
  }

  /** The place of a pledge in the listing: what changed first, and of the same moment by id. */
  private static String place(ObjectNode pledge) {
    return pledge.path("changedAt").asText() + " " + pledge.path("id").asText();
  }

  private synchronized Reply list(Request request) {
    int limit =
        Math.clamp(request.query("limit").map(Integer::parseInt).orElse(20), 1, MOST_ON_A_PAGE);
    Optional<String> after = request.query("after");
    List<ObjectNode> fitting =
        pledges.all().stream()
            .filter(
                pledge ->
                    request.query("changedSince").stream()
                        .allMatch(since -> changedSince(pledge, since)))
            .filter(pledge -> after.stream().allMatch(seen -> place(pledge).compareTo(seen) > 0))
            .sorted(Comparator.comparing(FriendsRegister::place))
            .toList();
    List<ObjectNode> page = fitting.subList(0, Math.min(limit, fitting.size()));
    ArrayNode items = JSON.createArrayNode();
    page.forEach(items::add);
    Reply reply = Reply.json(200, JSON.createObjectNode().set("pledges", items));
    return fitting.size() > page.size()
        ? reply.with("Link", "<" + next(request, limit, place(page.getLast())) + ">; rel=\"next\"")
        : reply;
  }

  private static String next(Request request, int limit, String last) {
    String since =
        request.query("changedSince").map(text -> "&changedSince=" + encoded(text)).orElse("");
    return "/api/pledges?limit=" + limit + since + "&after=" + encoded(last);
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  @Override
  public void close() {
    server.close();
  }
}
