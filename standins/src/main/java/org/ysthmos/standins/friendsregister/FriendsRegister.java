package org.ysthmos.standins.friendsregister;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;

/**
 * The register of the friends' society: people, their memberships and what they pledge. It tells
 * nobody of anything: whoever wants to know asks for what changed, page by page, each page naming
 * the next in its Link header. Fields look alike: a friend, whoever looks after them, whoever made
 * a pledge and whoever pays have a mail address each.
 */
public final class FriendsRegister implements StandIn {

  /** What is asked of a pledge, by the key of the answer. */
  static final List<String> QUESTIONS =
      List.of("mail", "stewardMail", "payerMail", "what", "amount");

  static final List<String> OF_A_PERSON = List.of("name", "mail", "ownerMail");
  static final List<String> OF_A_MEMBERSHIP = List.of("memberMail", "payerMail", "kind");
  static final List<String> KINDS = List.of("single", "family", "school");

  private final PagedLog pledges;
  private final PagedLog people;
  private final PagedLog memberships;
  private final StandInServer server;

  /**
   * @throws IOException if the port cannot be opened
   */
  public FriendsRegister(int port, String token, Path data, ControlledClock clock)
      throws IOException {
    this.pledges =
        new PagedLog("pledges", "fr-", 3101, data.resolve("friends-register.ndjson"), clock);
    this.people = new PagedLog("people", "fp-", 801, data.resolve("friends-people.ndjson"), clock);
    this.memberships =
        new PagedLog("memberships", "fm-", 1401, data.resolve("friends-members.ndjson"), clock);
    Routes routes =
        new Routes()
            .open("GET", "/", request -> Reply.html(FriendsPages.form()))
            .open(
                "GET",
                "/pledges/{id}",
                request -> Reply.html(FriendsPages.record("A pledge", pledges.find(request))))
            .open(
                "GET",
                "/people/{id}",
                request -> Reply.html(FriendsPages.record("A friend", people.find(request))))
            .open("POST", "/pledges", this::pledge)
            .open("POST", "/people", this::join)
            .signedIn("GET", "/api/pledges", pledges::list)
            .signedIn("POST", "/api/pledges", this::pledgeByApi)
            .signedIn("GET", "/api/pledges/{id}", request -> Reply.json(200, pledges.find(request)))
            .signedIn(
                "PATCH",
                "/api/pledges/{id}",
                request -> Reply.json(200, pledges.edit(request, QUESTIONS)))
            .signedIn("GET", "/api/people", people::list)
            .signedIn("GET", "/api/people/{id}", request -> Reply.json(200, people.find(request)))
            .signedIn(
                "PATCH",
                "/api/people/{id}",
                request -> Reply.json(200, people.edit(request, OF_A_PERSON)))
            .signedIn("GET", "/api/memberships", memberships::list)
            .signedIn(
                "GET",
                "/api/memberships/{id}",
                request -> Reply.json(200, memberships.find(request)));
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
    ObjectNode made = pledges.make(QUESTIONS, request.form());
    return Reply.html(FriendsPages.thanks("Your pledge", made.path("id").asText()));
  }

  private Reply pledgeByApi(Request request) {
    Map<String, String> answers = new LinkedHashMap<>();
    QUESTIONS.forEach(question -> answers.put(question, request.json().path(question).asText("")));
    return Reply.json(201, pledges.make(QUESTIONS, answers));
  }

  /** A new friend, with a membership; nobody is a friend twice. */
  private Reply join(Request request) {
    Map<String, String> form = new LinkedHashMap<>(request.form());
    String mail = form.getOrDefault("mail", "").strip();
    if (mail.isEmpty()) {
      throw Refusal.ofField("mail", "a friend has a mail address");
    }
    if (!KINDS.contains(form.getOrDefault("kind", KINDS.getFirst()))) {
      throw Refusal.ofField("kind", "a membership is one of " + String.join(", ", KINDS));
    }
    ObjectNode friend;
    synchronized (this) {
      friend =
          people
              .first(one -> one.path("mail").asText().equalsIgnoreCase(mail))
              .orElseGet(() -> people.make(OF_A_PERSON, form));
      form.putIfAbsent("kind", KINDS.getFirst());
      form.put("memberMail", mail);
      ObjectNode unused = memberships.make(OF_A_MEMBERSHIP, form);
    }
    return Reply.html(FriendsPages.thanks("Your entry", friend.path("id").asText()));
  }

  @Override
  public void close() {
    server.close();
  }
}
