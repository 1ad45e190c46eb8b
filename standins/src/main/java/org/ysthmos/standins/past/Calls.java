package org.ysthmos.standins.past;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.stream.Stream;

/** Calls of the application and of the stand-ins, one or several at once. */
final class Calls implements AutoCloseable {

  private final HttpClient http = HttpClient.newHttpClient();

  /** An account has used up its calls. */
  static final class TooMany extends IOException {
    private TooMany(String message) {
      super(message);
    }
  }

  /**
   * The body of an answer.
   *
   * @param authorization empty for none
   * @throws IOException if it says that it cannot be done
   */
  String send(String method, URI to, String body, String type, String authorization)
      throws IOException, InterruptedException {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(to)
            .timeout(Duration.ofSeconds(30))
            .header("Content-Type", type)
            .method(method, HttpRequest.BodyPublishers.ofString(body));
    if (!authorization.isEmpty()) {
      request.header("Authorization", authorization);
    }
    HttpResponse<String> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    if (answer.statusCode() >= 400) {
      String why = method + " " + to + " answers " + answer.statusCode() + ": " + answer.body();
      throw answer.statusCode() == 429 ? new TooMany(why) : new IOException(why);
    }
    return answer.body();
  }

  /** Asks all at once, as this is done very often. */
  List<String> together(Stream<HttpRequest> requests) throws IOException, InterruptedException {
    return answers(begun(requests));
  }

  List<CompletableFuture<HttpResponse<String>>> begun(Stream<HttpRequest> requests) {
    return requests
        .map(request -> http.sendAsync(request, HttpResponse.BodyHandlers.ofString()))
        .toList();
  }

  static List<String> answers(List<CompletableFuture<HttpResponse<String>>> asked)
      throws IOException, InterruptedException {
    List<String> answers = new ArrayList<>();
    for (CompletableFuture<HttpResponse<String>> one : asked) {
      try {
        HttpResponse<String> answer = one.get();
        if (answer.statusCode() >= 400) {
          throw new IOException(answer.uri() + " answers " + answer.statusCode());
        }
        answers.add(answer.body());
      } catch (ExecutionException e) {
        throw new IOException("a side does not answer: " + e.getCause(), e);
      }
    }
    return answers;
  }

  @Override
  public void close() {
    http.close();
  }
}
