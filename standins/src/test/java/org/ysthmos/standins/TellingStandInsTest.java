package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.Map;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.standins.climatedesk.ClimateDesk;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.gardenchat.GardenChat;

/** The stand-ins that tell of what happens, each in its own way. */
class TellingStandInsTest {

  @TempDir Path data;
  private Bench bench;
  private ClimateDesk climate;
  private GardenChat chat;

  @BeforeEach
  void start() throws Exception {
    bench = new Bench();
    ControlledClock clock = new ControlledClock();
    climate =
        new ClimateDesk(0, "climate", data, clock, bench.address("/tickets"), "shared").start();
    chat = new GardenChat(0, "chat", data, clock, bench.address("/talk"), "hush").start();
  }

  @AfterEach
  void stop() {
    climate.close();
    chat.close();
    bench.close();
  }

  /** HMAC-SHA256 as RFC 2104 has it, over the body as it was sent. */
  private static String hmac(String secret, String body) throws Exception {
    Mac mac = Mac.getInstance("HmacSHA256");
    mac.init(new SecretKeySpec(secret.getBytes(StandardCharsets.UTF_8), "HmacSHA256"));
    return HexFormat.of().formatHex(mac.doFinal(body.getBytes(StandardCharsets.UTF_8)));
  }

  @Test
  void ticketIsToldWholeSignedAndWithItsVersion() throws Exception {
    String number =
        Bench.form(
            climate,
            "/tickets",
            Map.of("requester", "a@b.example", "subject", "Cold", "description", "Fault code: X"));
    Bench.Told opened = bench.told();
    assertThat(opened.header("Climate-Signature"))
        .isEqualTo("sha256=" + hmac("shared", opened.body()));
    assertThat(opened.json().path("what").asText()).isEqualTo("ticket-made");
    assertThat(opened.json().at("/ticket/id").asText()).isEqualTo(number);
    assertThat(opened.json().at("/ticket/version").asInt()).isEqualTo(1);
    Bench.form(climate, "/tickets/" + number + "/status", Map.of("status", "solved"));
    Bench.Told solved = bench.told();
    assertThat(solved.json().at("/ticket/status").asText()).isEqualTo("solved");
    assertThat(solved.json().at("/ticket/version").asInt()).isEqualTo(2);
    assertThat(solved.header("Climate-Delivery")).isNotEqualTo(opened.header("Climate-Delivery"));
  }

  private String ticket(String subject) throws Exception {
    Map<String, String> form = Map.of("requester", "a@b.example", "subject", subject);
    return Bench.form(climate, "/tickets", form);
  }

  private void fault(String kind) throws Exception {
    String body = "{\"kind\":\"" + kind + "\",\"calls\":1}";
    assertThat(Bench.call(climate, "POST", "/control/faults", Map.of(), body).statusCode())
        .isEqualTo(204);
  }

  @Test
  void webhookThatIsDeliveredTwiceHasTheSameIdBothTimes() throws Exception {
    fault("hook-twice");
    ticket("Cold");
    Bench.Told first = bench.told();
    Bench.Told second = bench.told();
    assertThat(second.header("Climate-Delivery")).isEqualTo(first.header("Climate-Delivery"));
    assertThat(second.body()).isEqualTo(first.body());
    ticket("Warm");
    assertThat(bench.told().body()).contains("Warm");
  }

  @Test
  void webhookIsOvertakenByTheNext() throws Exception {
    fault("hook-out-of-order");
    ticket("Earlier");
    ticket("Later");
    assertThat(bench.told().body()).contains("Later");
    assertThat(bench.told().body()).contains("Earlier");
  }

  @Test
  void ticketRefusesFieldsAndStatusesThatItDoesNotHave() throws Exception {
    String number =
        Bench.json(Bench.call(climate, "climate", "POST", "/api/tickets", "{\"subject\":\"Cold\"}"))
            .path("id")
            .asText();
    String path = "/api/tickets/" + number;
    for (String body : new String[] {"{\"status\":\"finished\"}", "{\"requester\":\"x\"}"}) {
      assertThat(Bench.call(climate, "climate", "PATCH", path, body).statusCode()).isEqualTo(422);
    }
    assertThat(Bench.call(climate, "climate", "PATCH", path, "{\"status\":\"open\"}").statusCode())
        .isEqualTo(200);
    JsonNode listed = Bench.json(Bench.call(climate, "climate", "GET", "/api/tickets", ""));
    assertThat(listed.at("/tickets/0/status").asText()).isEqualTo("open");
  }

  @Test
  void messageAndReactionAreToldAtAddressesOfTheirOwn() throws Exception {
    String message =
        Bench.form(
            chat, "/messages", Map.of("channel", "nursery", "author", "wen", "text", "It wobbles"));
    Bench.Told said = bench.told();
    assertThat(said.path()).isEqualTo("/talk/messages");
    assertThat(said.header("Chat-Secret")).isEqualTo("hush");
    assertThat(said.json().path("text").asText()).isEqualTo("It wobbles");
    Bench.form(chat, "/reactions", Map.of("message", message, "reaction", "seedling", "by", "ana"));
    Bench.Told marked = bench.told();
    assertThat(marked.path()).isEqualTo("/talk/reactions");
    // A reaction names its message, but not what it says.
    assertThat(marked.json().path("ts")).isEqualTo(said.json().path("ts"));
    assertThat(marked.json().path("author").asText()).isEqualTo("wen");
    assertThat(marked.body()).doesNotContain("It wobbles");
  }

  @Test
  void messageIsFoundByChannelTimestampAndAuthorAndPostedOnceUnderItsKey() throws Exception {
    String body = "{\"channel\":\"works\",\"text\":\"Done\",\"key\":\"k-1\"}";
    JsonNode first = Bench.json(Bench.call(chat, "chat", "POST", "/api/messages", body));
    JsonNode again = Bench.json(Bench.call(chat, "chat", "POST", "/api/messages", body));
    assertThat(again.path("id")).isEqualTo(first.path("id"));
    String asked =
        "/api/messages?channel=works&ts="
            + first.path("ts").asText()
            + "&author="
            + first.path("author").asText();
    assertThat(Bench.json(Bench.call(chat, "chat", "GET", asked, "")).path("messages")).hasSize(1);
    assertThat(
            Bench.json(Bench.call(chat, "chat", "GET", "/api/messages?key=k-2", ""))
                .path("messages"))
        .isEmpty();
    String id = first.path("id").asText();
    assertThat(Bench.call(chat, "chat", "DELETE", "/api/messages/" + id, "").statusCode())
        .isEqualTo(204);
    assertThat(Bench.call(chat, "chat", "GET", "/api/messages/" + id, "").statusCode())
        .isEqualTo(404);
  }

  @Test
  void messageWithoutWordsOrInNoChannelIsRefused() throws Exception {
    for (String body :
        new String[] {
          "{\"channel\":\"works\",\"text\":\" \"}", "{\"channel\":\"nowhere\",\"text\":\"x\"}"
        }) {
      assertThat(Bench.call(chat, "chat", "POST", "/api/messages", body).statusCode())
          .isEqualTo(422);
    }
  }
}
