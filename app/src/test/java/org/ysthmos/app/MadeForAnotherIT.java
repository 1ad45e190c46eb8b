package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** An event whose task needs another's has that made, if its bridge says so. */
class MadeForAnotherIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);

  private static void whole(String id, String from, String match) throws Exception {
    live(
        """
        bridge: %s
        name: Whole
        purpose: What parts belong to
        from: { %s }
        to: { system: works-ledger, collection: jobs }
        match: [%s]
        fields: { title: { text: "Whole {%s}" }, status: { always: planned } }
        ceiling: { creates: 100, per: PT1H }
        """
            .formatted(id, from, match, match));
  }

  private static void part(String id, String whole, String wait) throws Exception {
    live(
        """
        bridge: %s
        name: Part
        purpose: A part of what another record became
        from: { system: climate-desk, collection: tickets, event: [created] }
        to: { system: works-ledger, collection: jobs }
        lookups:
          whole:
            in: %s
            from: tasks
            by: { record: { value: /ticket/subject, steps: [part: { after: "Part of ", missing: empty }] } }
            wait: %s
            none: make
        when: { value: /ticket/subject, starts-with: "Part of " }
        match: [/ticket/id]
        fields: { title: { text: "Part of job {whole/id}" }, status: { always: planned } }
        ceiling: { creates: 100, per: PT1H }
        """
            .formatted(id, whole, wait));
  }

  private static void live(String document) throws Exception {
    var answer = putBridge(document.lines().findFirst().orElseThrow().substring(8), document);
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  private static String ticket(String subject) throws Exception {
    return openTicket(subject, "As said");
  }

  private static JsonNode ended(String record, String bridge) {
    await()
        .atMost(LONG)
        .until(
            () ->
                of(record, bridge).stream()
                    .anyMatch(trace -> !trace.path("verdict").asText().equals("WAITING")));
    return of(record, bridge).getFirst();
  }

  private static JsonNode events(String ticket) {
    return api("/where/record?system=climate-desk&collection=tickets&record=" + ticket)
        .path("events");
  }

  private static List<JsonNode> of(String record, String bridge) {
    return tracesOf(record).stream()
        .filter(trace -> trace.path("bridge").asText().equals(bridge))
        .toList();
  }

  private static String title(JsonNode trace) {
    return trace.path("title").asText();
  }

  @Test
  void otherBridgeIsGivenTheNewestEventOfTheRecordOnce() throws Exception {
    String first = ticket("Older than the bridges");
    // Its webhook may come after the answer.
    await().atMost(LONG).until(() -> !events(first).isEmpty());
    whole(
        "whole-ticket",
        "system: climate-desk, collection: tickets, event: [created]",
        "/ticket/id");
    part("part-ticket", "whole-ticket", "PT1M");
    String second = ticket("Part of " + first);
    String third = ticket("Part of " + first);
    JsonNode part = ended(second, "part-ticket");
    ended(third, "part-ticket");
    ended(first, "whole-ticket");
    // Both parts asked for it, or one did while the other saw it under way; one job came of it.
    List<JsonNode> created =
        of(first, "whole-ticket").stream()
            .filter(trace -> trace.path("verdict").asText().equals("CREATE"))
            .toList();
    assertThat(created).hasSize(1);
    JsonNode made = created.getFirst();
    assertThat(story(made).toString()).contains("Asked for by trace ");
    assertThat(title(part)).isEqualTo("Part of job " + made.path("target").asText());
    assertThat(title(ended(third, "part-ticket"))).isEqualTo(title(part));
  }

  @Test
  void recordOfWhichNoEventCameIsReadWhereItStands() throws Exception {
    var answer =
        send(
            "POST",
            "http://127.0.0.1:" + FRIENDS.port() + "/api/pledges",
            "{\"what\":\"A bench\",\"mail\":\"a@mail.example\"}",
            Map.of("Authorization", "Bearer friends"));
    String pledge = JSON.readTree(answer.body()).path("id").asText();
    whole(
        "whole-pledge",
        "system: friends-register, collection: pledges, event: [created], every: PT1H",
        "/id");
    part("part-pledge", "whole-pledge", "PT1M");
    JsonNode part = ended(ticket("Part of " + pledge), "part-pledge");
    JsonNode made = ended(pledge, "whole-pledge");
    assertThat(title(part)).isEqualTo("Part of job " + made.path("target").asText());
  }

  @Test
  void whatCannotBeMadeIsToldWhileItIsWaitedForAndThenFails() throws Exception {
    whole(
        "whole-lost", "system: climate-desk, collection: tickets, event: [created]", "/ticket/id");
    part("part-lost", "whole-lost", "PT4S");
    String lost = ticket("Part of cd-0");
    await()
        .atMost(LONG)
        .until(
            () ->
                of(lost, "part-lost").stream()
                    .anyMatch(
                        trace ->
                            trace.path("reason").asText().contains("No event of the record was")));
    JsonNode failed = ended(lost, "part-lost");
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("reason").asText()).contains("made no task of “cd-0”");
  }
}
