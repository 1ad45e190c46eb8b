package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.StringJoiner;
import org.junit.jupiter.api.Test;

/** Mails of a real account become tasks, and letters go out. */
class MailIT extends AppTestBase {

  private static String room(String path, Map<String, String> form) throws Exception {
    StringJoiner body = new StringJoiner("&");
    form.forEach(
        (key, value) -> body.add(key + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8)));
    return send("POST", "http://127.0.0.1:" + POST.port() + path, body.toString(), Map.of()).body();
  }

  /** Writes to the garden; gives the id of the mail. */
  private static String write(String folder, String subject, boolean flagged) throws Exception {
    return room(
            "/mails",
            Map.of(
                "folder",
                folder,
                "name",
                "Escola do Cais",
                "from",
                "office@cais-school.example",
                "subject",
                subject,
                "text",
                "Trinta crianças",
                "flagged",
                flagged ? "yes" : ""))
        .replaceAll("(?s).*id=\"number\">([^<]*)<.*", "$1");
  }

  private static void followed() {
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> !poll().path("askedAt").isNull() && !poll().path("askedAt").isMissingNode());
  }

  private static JsonNode poll() {
    for (JsonNode poll : api("/polls")) {
      if (poll.path("system").asText().equals("post-room")) {
        return poll;
      }
    }
    return JSON.createObjectNode();
  }

  private static JsonNode task(JsonNode trace) throws Exception {
    return board("GET", "/api/tasks/" + trace.path("target").asText(), "");
  }

  @Test
  void flaggedMailBecomesATaskInTheLaneOfItsFolderWithoutBeingAskedFor() throws Exception {
    followed();
    // Its interval is five minutes: the word of the server is what makes it be asked.
    String id = write("Holiday club", "Verão no jardim", true);
    JsonNode newest = settled(id, 2);
    assertThat(newest.path("verdict").asText()).isIn("CREATE", "UNCHANGED");
    JsonNode created =
        tracesOf(id).stream()
            .filter(trace -> trace.path("verdict").asText().equals("CREATE"))
            .findFirst()
            .orElseThrow();
    JsonNode task = task(created);
    assertThat(task.path("title").asText()).isEqualTo("Escola do Cais: Verão no jardim");
    assertThat(task.path("lane").asText()).isEqualTo("holiday-club");
    assertThat(task.path("assignees").path(0).asText()).isEqualTo("bu-32");
    assertThat(task.path("notes").asText()).contains("Trinta crianças", "mid:" + id);
  }

  @Test
  void mailWithoutAFlagIsPassedByUntilSomebodyFlagsIt() throws Exception {
    followed();
    String id = write("Primary schools", "Obrigada " + System.nanoTime(), false);
    assertThat(settled(id, 1).path("verdict").asText()).isEqualTo("PASSED_BY");
    room("/flags", Map.of("folder", "Primary schools", "id", id, "on", "yes"));
    send("POST", app("/api/systems/post-room/collections/school-visits/ask"), "", Map.of());
    assertThat(settled(id, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(story(tracesOf(id).getFirst()).at("/lines/0/text").asText())
        .isEqualTo("Asked Post Room what changed, stored");
  }

  @Test
  void foldersMadeAnewMakeNothingTwice() throws Exception {
    followed();
    String id = write("Secondary schools", "Botany", true);
    settled(id, 2);
    fault(POST.port(), "uids-renewed", "", "", 1);
    String later = write("Secondary schools", "Another", true);
    settled(later, 2);
    assertThat(tracesOf(id)).hasSize(2);
  }

  @Test
  void letterIsSentOnceAndItsTraceTellsOfIt() throws Exception {
    String document =
        """
        bridge: hazard-to-grounds
        name: Thanks
        purpose: Whoever reports a hazard is thanked
        from: { system: visitor-desk, collection: hazard-reports, event: created }
        to: { system: post-room, collection: letters }
        lookups:
          report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
        match: [/submission]
        fields:
          to: { value: report/answers/mail, steps: [in-list] }
          subject: { text: "Thank you for report {/submission}" }
          text: { text: "We look after it: {report/answers/problem}" }
        ceiling: { creates: 60, per: PT1H }
        """;
    assertThat(putBridge(document).statusCode()).isLessThan(300);
    String number = report(Map.of("mail", "maria@mail.example"));
    JsonNode trace = settled(number, 1);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    assertThat(trace.path("target").asText()).endsWith("@tidewrack.example");
    assertThat(story(trace).path("lines").toString())
        .contains("Handed the letter in at Post Room", "Kept a copy of the letter at Post Room");
  }
}
