package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** What people write down about a bridge, and what it said before. */
class NotesIT extends AppTestBase {

  private static final String PATH = "/api/bridges/school-visit/notes";

  private static ObjectNode wish(String words, String link, int basedOn) {
    return JSON.createObjectNode()
        .put("kind", "TROUBLE")
        .put("words", words)
        .put("link", link)
        .put("over", false)
        .put("basedOn", basedOn);
  }

  private static HttpResponse<String> write(String method, String path, JsonNode wish)
      throws Exception {
    return send(method, app(path), wish.toString(), Map.of("Content-Type", "application/json"));
  }

  private static JsonNode newest() {
    return api("/bridges/school-visit/notes").path(0);
  }

  @Test
  void whatANoteSaidBeforeIsKept() throws Exception {
    var added = write("POST", PATH, wish(" Mails without a date fail ", "", 0));
    assertThat(added.statusCode()).as(added.body()).isEqualTo(200);
    JsonNode note = newest();
    assertThat(note.path("words").asText()).isEqualTo("Mails without a date fail");
    String at = PATH + "/" + note.path("id").asText();
    String link = "https://garden.example/wiki/visits";
    assertThat(write("PUT", at, wish("Mails of clubs fail", link, 1)).statusCode()).isEqualTo(200);
    assertThat(write("PUT", at, wish("Too late", "", 1)).statusCode()).isEqualTo(409);
    JsonNode anew = newest();
    assertThat(anew.path("words").asText()).isEqualTo("Mails of clubs fail");
    assertThat(anew.path("link").asText()).isEqualTo(link);
    assertThat(anew.at("/before/0/words").asText()).isEqualTo("Mails without a date fail");
    assertThat(anew.path("overSince").isNull()).isTrue();

    assertThat(
            write("PUT", at, wish("Mails of clubs fail", link, 2).put("over", true)).statusCode())
        .isEqualTo(200);
    String since = newest().path("overSince").asText();
    assertThat(since).isNotEmpty();
    assertThat(newest().path("before")).hasSize(2);
    // It is over since then, whatever is written about it later.
    assertThat(write("PUT", at, wish("They were mended", "", 3).put("over", true)).statusCode())
        .isEqualTo(200);
    assertThat(newest().path("overSince").asText()).isEqualTo(since);
  }

  /** A picture of one point. */
  private static byte[] onePoint() throws IOException {
    ByteArrayOutputStream png = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(1, 1, BufferedImage.TYPE_INT_RGB), "png", png);
    return png.toByteArray();
  }

  private static HttpResponse<String> picture(String at, String shows, byte[] bytes)
      throws Exception {
    String query = "?shows=" + URLEncoder.encode(shows, StandardCharsets.UTF_8);
    return HTTP.send(
        HttpRequest.newBuilder(URI.create(app(at + "/pictures" + query)))
            .header("Content-Type", "image/png")
            .header("Origin", app(""))
            .POST(HttpRequest.BodyPublishers.ofByteArray(bytes))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void picturesBelongToANoteAndAreKeptThoughTakenAway() throws Exception {
    assertThat(write("POST", PATH, wish("The form of clubs", "", 0)).statusCode()).isEqualTo(200);
    String at = PATH + "/" + newest().path("id").asText();
    assertThat(picture(at, "The form", onePoint()).statusCode()).isEqualTo(204);
    JsonNode shown = newest().at("/pictures/0");
    assertThat(shown.path("shows").asText()).isEqualTo("The form");
    String address = at + "/pictures/" + shown.path("id").asText();
    HttpResponse<byte[]> read =
        HTTP.send(
            HttpRequest.newBuilder(URI.create(app(address))).build(),
            HttpResponse.BodyHandlers.ofByteArray());
    assertThat(read.body()).isEqualTo(onePoint());
    assertThat(read.headers().firstValue("Content-Type")).contains("image/png");
    assertThat(read.headers().firstValue("X-Content-Type-Options")).contains("nosniff");

    assertThat(send("DELETE", app(address), "", Map.of()).statusCode()).isEqualTo(204);
    assertThat(newest().path("pictures")).isEmpty();
    assertThat(send("GET", app(address), "", Map.of()).statusCode()).isEqualTo(404);
    assertThat(send("DELETE", app(address), "", Map.of()).statusCode()).isEqualTo(404);
  }

  @Test
  void whatIsNoPictureIsRefusedWhateverItIsCalled() throws Exception {
    assertThat(write("POST", PATH, wish("With a page", "", 0)).statusCode()).isEqualTo(200);
    String at = PATH + "/" + newest().path("id").asText();
    byte[] page = "<svg onload=alert(1)></svg>".getBytes(StandardCharsets.UTF_8);
    assertThat(picture(at, "A page", page).body()).contains("no picture of the kinds PNG");
    assertThat(picture(at, " ", onePoint()).body()).contains("what the picture shows");
    assertThat(picture(at, "Too large", new byte[(2 << 20) + 1]).body()).contains("at most 2 MB");
    assertThat(picture(PATH + "/999999", "Nowhere", onePoint()).statusCode()).isEqualTo(404);
    assertThat(
            picture("/api/bridges/partner-call/notes/" + newest().path("id"), "Other", onePoint())
                .statusCode())
        .isEqualTo(404);
    for (int i = 0; i < 10; i++) {
      assertThat(picture(at, "Number " + i, onePoint()).statusCode()).isEqualTo(204);
    }
    assertThat(picture(at, "One more", onePoint()).body()).contains("at most 10 pictures");
  }

  @Test
  void ofTwoAtOnceOneIsTold() throws Exception {
    assertThat(write("POST", PATH, wish("First", "", 0)).statusCode()).isEqualTo(200);
    String at = PATH + "/" + newest().path("id").asText();
    List<CompletableFuture<Integer>> both =
        Stream.of("One", "Other")
            .map(
                words ->
                    CompletableFuture.supplyAsync(
                        () -> {
                          try {
                            return write("PUT", at, wish(words, "", 1)).statusCode();
                          } catch (Exception e) {
                            throw new IllegalStateException(e);
                          }
                        }))
            .toList();
    assertThat(both.stream().map(CompletableFuture::join)).containsExactlyInAnyOrder(200, 409);
    assertThat(newest().path("before")).hasSize(1);
  }

  @Test
  void whatCannotBeKeptIsRefusedWithItsReason() throws Exception {
    assertThat(write("POST", PATH, wish("  ", "", 0)).statusCode()).isEqualTo(422);
    for (String link : List.of("javascript:alert(1)", "garden.example", "https://", "ht tp://x")) {
      assertThat(write("POST", PATH, wish("See there", link, 0)).body())
          .contains("no address that begins with https://");
    }
    assertThat(write("POST", "/api/bridges/none/notes", wish("x", "", 0)).statusCode())
        .isEqualTo(404);
    assertThat(write("PUT", PATH + "/999999", wish("x", "", 1)).statusCode()).isEqualTo(404);
  }
}
