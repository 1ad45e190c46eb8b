package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What bridges changed is put back as it was before. */
class PutBackIT extends RecallTestBase {

  /** What was there before holds again what it held, unless somebody changed it since. */
  @Test
  void whatWasChangedIsPutBack() throws Exception {
    put("changing");
    String number = report(Map.of("problem", "changing one"));
    String job = own("changing", number, 1).path("target").asText();
    String before = ledger("GET", "/api/jobs/" + job, "").path("description").asText();
    String other = report(Map.of("problem", "changing another"));
    String touched = own("changing", other, 1).path("target").asText();
    desk("PATCH", "/api/submissions/" + number, "{\"place\":\"Rope bridge\"}");
    JsonNode second = own("changing", number, 2);
    desk("PATCH", "/api/submissions/" + other, "{\"place\":\"Rope bridge\"}");
    own("changing", other, 2);
    changeByHand(touched);
    assertThat(ledger("GET", "/api/jobs/" + job, "").path("description").asText())
        .isEqualTo("Rope bridge");

    String path =
        "/"
            + asked("POST", "", "{\"trace\":\"%s\"}".formatted(second.path("id").asText()))
                .path("id")
                .asText();
    looked(path);
    assertThat(recall(path).at("/counts/puts").asInt()).isEqualTo(1);
    JsonNode item = ofJob(path, job);
    assertThat(item.path("way").asText()).isEqualTo("PUT_BACK");
    assertThat(item.path("puts").toString()).contains("Description", before);
    begin(path, 1);
    assertThat(ended(path).at("/counts/takenBack").asInt()).isEqualTo(1);
    assertThat(ledger("GET", "/api/jobs/" + job, "").path("description").asText())
        .isEqualTo(before);
    assertThat(story(second).toString()).contains("is to hold again what it held");

    // Of both together: one was written anew since, by being put back; the other was touched.
    Instant now = Instant.now();
    ObjectNode wish =
        JSON.createObjectNode()
            .put("bridge", "changing")
            .put("from", second.path("receivedAt").asText())
            .put("until", now.plusSeconds(5).toString());
    String both = "/" + asked("POST", "", wish.toString()).path("id").asText();
    looked(both);
    assertThat(ofJob(both, job).path("words").asText()).contains("written anew since");
    assertThat(ofJob(both, touched).path("looked").asText()).isEqualTo("CHANGED");
    assertThat(recall(both).at("/counts/chosen").asInt()).isZero();

    // The next event of the record has its say again.
    desk("PATCH", "/api/submissions/" + number, "{\"place\":\"Palm house\"}");
    own("changing", number, 3);
    assertThat(ledger("GET", "/api/jobs/" + job, "").path("description").asText())
        .isEqualTo("Palm house");
  }
}
