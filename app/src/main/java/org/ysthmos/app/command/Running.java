package org.ysthmos.app.command;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** The application that runs on this machine, asked through its API. */
public final class Running {

  /** Longer than copying takes on the slowest disk that holds as much as we keep. */
  private static final Duration LONGEST = Duration.ofHours(2);

  private static final JsonMapper JSON = new JsonMapper();

  private final int port;

  public Running(int port) {
    this.port = port;
  }

  /**
   * Asks it.
   *
   * @param body null for none
   * @return what it answered; a missing node if that is nothing
   * @throws Refused if nothing answers, or it refuses
   */
  public JsonNode ask(String method, String path, @Nullable JsonNode body)
      throws IOException, InterruptedException {
    HttpRequest.BodyPublisher sent =
        body == null
            ? HttpRequest.BodyPublishers.noBody()
            : HttpRequest.BodyPublishers.ofString(body.toString());
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .timeout(LONGEST)
            .header("Content-Type", "application/json")
            .method(method, sent)
            .build();
    try (HttpClient client = HttpClient.newHttpClient()) {
      HttpResponse<String> answer = client.send(request, HttpResponse.BodyHandlers.ofString());
      JsonNode said = JSON.readTree(answer.body());
      if (answer.statusCode() >= 300) {
        throw new Refused(
            said.path("detail").asText("It answers %d.".formatted(answer.statusCode())));
      }
      return said;
    } catch (ConnectException e) {
      throw new Refused(
          "The data folder is in use, but nothing answers on port %d. Try again once it has started."
              .formatted(port),
          e);
    }
  }
}
