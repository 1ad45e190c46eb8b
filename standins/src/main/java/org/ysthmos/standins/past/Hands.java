package org.ysthmos.standins.past;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.StringJoiner;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** What people do on the pages and by the calls of the stand-ins, and the clocks of both sides. */
final class Hands implements AutoCloseable {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Pattern NUMBER = Pattern.compile("id=\"number\">([^<]*)<");

  /** Those that tell by webhooks of what people do there. */
  private static final List<String> TELLING =
      List.of("visitor-desk", "climate-desk", "garden-chat", "grounds-board");

  /** That which tells of our own writing, too. */
  private static final List<String> TELLING_OF_US = List.of("grounds-board");

  /** A webhook that was not taken by then is on no way but waits for something. */
  private static final Duration LONG_OVERDUE = Duration.ofMillis(100);

  private static final Duration PATIENCE = Duration.ofMinutes(5);

  private final Calls calls = new Calls();
  private final Properties settings;
  private final URI app;

  /** Numbers of what was made, by what the plan calls it. */
  private final Map<String, String> numbers = new TreeMap<>();

  private final JobsSeen jobs = new JobsSeen();

  /** The stand-ins at which something was done since it was last quiet. */
  private final Set<String> touched = new TreeSet<>();

  /** What the application asks at intervals; nothing while that may have changed. */
  private final List<Polled> polled = new ArrayList<>();

  private record Polled(String system, String collection) {}

  /** What the application said of its time when it last rested. */
  private Ahead known = new Ahead(Instant.MIN, false, false, Instant.MAX);

  /**
   * @param settings the settings of the stand-ins: their ports and tokens
   * @param app the application whose past it is
   */
  Hands(Properties settings, URI app) {
    this.settings = settings;
    this.app = app;
  }

  /** What a person sends in on a page; the number that the page answers with. */
  String form(String standIn, String path, Map<String, String> fields)
      throws IOException, InterruptedException {
    StringJoiner body = new StringJoiner("&");
    new TreeMap<>(fields)
        .forEach(
            (name, value) ->
                body.add(name + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8)));
    touched.add(standIn);
    String page =
        calls.send(
            "POST", at(standIn, path), body.toString(), "application/x-www-form-urlencoded", "");
    Matcher number = NUMBER.matcher(page);
    return number.find() ? number.group(1) : "";
  }

  /**
   * A call that needs the token of a stand-in. Where the application has used up what the account
   * may ask in a minute, it is made in the next.
   */
  JsonNode call(String standIn, String method, String path, String body)
      throws IOException, InterruptedException {
    if (!method.equals("GET")) {
      touched.add(standIn);
    }
    String bearer = "Bearer " + settings.getProperty(standIn + ".token", "");
    try {
      return read(calls.send(method, at(standIn, path), body, "application/json", bearer));
    } catch (Calls.TooMany inThisMinute) {
      passes(Duration.ofSeconds(61));
      return read(calls.send(method, at(standIn, path), body, "application/json", bearer));
    }
  }

  /**
   * A call of the application, as its screens make it, once it has carried across what was done
   * before.
   */
  JsonNode engine(String method, String path, String body)
      throws IOException, InterruptedException {
    restFirst();
    if (!method.equals("GET")) {
      polled.clear();
    }
    return asked(method, path, body);
  }

  private void restFirst() throws IOException, InterruptedException {
    if (!touched.isEmpty()) {
      quiet();
    }
  }

  private JsonNode asked(String method, String path, String body)
      throws IOException, InterruptedException {
    return read(calls.send(method, app.resolve(path), body, "application/json", ""));
  }

  /** Puts a document of the application to work. */
  void document(String path, String document) throws IOException, InterruptedException {
    restFirst();
    polled.clear();
    String unused = calls.send("PUT", app.resolve(path), document, "application/yaml", "");
  }

  JobsSeen jobs() {
    return jobs;
  }

  private static JsonNode read(String answer) throws IOException {
    return answer.isEmpty() ? JSON.createObjectNode() : JSON.readTree(answer);
  }

  /** Switches a fault on at a stand-in. */
  void fault(String standIn, String kind, String method, String below, int calls, String field)
      throws IOException, InterruptedException {
    String body =
        JSON.createObjectNode()
            .put("kind", kind)
            .put("method", method)
            .put("below", below)
            .put("calls", calls)
            .put("field", field)
            .put("waitMillis", 20_000)
            .toString();
    tell("POST", at(standIn, "/control/faults"), body);
  }

  /** Everything works again at a stand-in. */
  void mended(String standIn) throws IOException, InterruptedException {
    tell("DELETE", at(standIn, "/control/faults"), "");
  }

  private URI at(String standIn, String path) {
    return URI.create("http://127.0.0.1:" + settings.getProperty(standIn + ".port") + path);
  }

  private void tell(String method, URI to, String body) throws IOException, InterruptedException {
    String unused = calls.send(method, to, body, "application/json", "");
  }

  /** Remembers the number of something under what the plan calls it. */
  void remember(String name, String number) {
    numbers.put(name, number);
  }

  /**
   * @throws IllegalStateException if nothing was made under this name
   */
  String number(String name) {
    String number = numbers.get(name);
    if (number == null) {
      throw new IllegalStateException("nothing was made as " + name);
    }
    return number;
  }

  /** The time of the application. */
  Instant now() throws IOException, InterruptedException {
    return ahead("/api/clock").now();
  }

  /**
   * What the application says of its time.
   *
   * @param underWay whether anything is due and not done
   * @param waited whether anything was when it was asked
   * @param next when something is tried again; the end of time if nothing is, or while something is
   *     under way
   */
  private record Ahead(Instant now, boolean underWay, boolean waited, Instant next) {}

  private Ahead ahead(String path) throws IOException, InterruptedException {
    JsonNode said = asked("GET", path, "");
    return new Ahead(
        Instant.parse(said.path("now").asText()),
        said.path("underWay").asBoolean(),
        said.path("waited").asBoolean(),
        said.path("next").isTextual() ? Instant.parse(said.path("next").asText()) : Instant.MAX);
  }

  /** From now on it is this time on both sides, unless it is later there already. */
  void clocks(Instant at) throws IOException, InterruptedException {
    clocks(at, now());
  }

  private void clocks(Instant at, Instant now) throws IOException, InterruptedException {
    if (at.isAfter(now)) {
      String body = "{\"now\":\"" + at + "\"}";
      calls.together(
          Stream.of(at("grounds-board", "/control/clock"), app.resolve("/api/clock"))
              .map(
                  clock ->
                      HttpRequest.newBuilder(clock)
                          .header("Content-Type", "application/json")
                          .PUT(HttpRequest.BodyPublishers.ofString(body))
                          .build()));
    }
  }

  /** Waits until all that is due by now is done, and lets those wait that wait for later. */
  void quiet() throws IOException, InterruptedException {
    List<String> telling = TELLING.stream().filter(touched::contains).toList();
    List<CompletableFuture<HttpResponse<String>>> asked = askWhereSomethingWasDone();
    told(telling);
    List<String> unused = Calls.answers(asked);
    rest();
  }

  /** What tells nobody is polled soon, not at each step of a clock that goes on by minutes. */
  private List<CompletableFuture<HttpResponse<String>>> askWhereSomethingWasDone()
      throws IOException, InterruptedException {
    touched.removeAll(TELLING);
    if (touched.isEmpty()) {
      return List.of();
    }
    if (polled.isEmpty()) {
      for (JsonNode poll : asked("GET", "/api/polls", "")) {
        if (poll.path("everySeconds").asLong() > 0) {
          polled.add(new Polled(poll.path("system").asText(), poll.path("collection").asText()));
        }
      }
    }
    List<CompletableFuture<HttpResponse<String>>> asked =
        calls.begun(
            polled.stream()
                .filter(poll -> touched.contains(poll.system()))
                .map(
                    poll ->
                        HttpRequest.newBuilder(
                                app.resolve(
                                    "/api/systems/%s/collections/%s/ask"
                                        .formatted(poll.system(), poll.collection())))
                            .POST(HttpRequest.BodyPublishers.noBody())
                            .build()));
    touched.clear();
    return asked;
  }

  /** The same where nothing was done that a system would tell of. */
  private void rest() throws IOException, InterruptedException {
    long until = System.nanoTime() + PATIENCE.toNanos();
    boolean toldOfUs = false;
    while (System.nanoTime() < until) {
      known = ahead("/api/clock/rest");
      if (known.underWay()) {
        // Something waits for room that only time makes.
        clocks(known.now().plus(Duration.ofSeconds(2)), known.now());
      } else if ((known.waited() || toldOfUs) && isTelling(TELLING_OF_US, Duration.ZERO)) {
        told(TELLING_OF_US);
        toldOfUs = true;
      } else {
        return;
      }
    }
    throw new IOException("the application does not come to an end of what is due");
  }

  /**
   * Waits until systems have told of what was just done there. Nobody waits in a past for webhooks
   * that others were to overtake.
   */
  private void told(List<String> standIns) throws IOException, InterruptedException {
    long until = System.nanoTime() + PATIENCE.toNanos();
    while (isTelling(standIns, LONG_OVERDUE)) {
      if (System.nanoTime() > until) {
        throw new IOException("webhooks of " + String.join(", ", standIns) + " do not arrive");
      }
      for (String standIn : standIns) {
        tell("POST", at(standIn, "/control/hooks"), "");
      }
    }
  }

  /**
   * Whether webhooks are under way there.
   *
   * @param longest how long is waited until none is
   */
  private boolean isTelling(List<String> standIns, Duration longest)
      throws IOException, InterruptedException {
    String path = "/control/hooks?wait=" + longest.toMillis();
    boolean telling = false;
    for (String answer :
        calls.together(
            standIns.stream().map(standIn -> HttpRequest.newBuilder(at(standIn, path)).build()))) {
      telling |= JSON.readTree(answer).path("underWay").asInt() > 0;
    }
    return telling;
  }

  /**
   * Goes on to a time, and to every time before it at which something is tried again. What is due
   * at that time begins, and what people do then is done meanwhile.
   */
  void goOnTo(Instant at) throws IOException, InterruptedException {
    while (!known.next().isAfter(at)) {
      clocks(known.next().plusMillis(1), known.now());
      rest();
    }
    clocks(at, known.now());
  }

  /** Lets time go by in the middle of a deed. */
  void passes(Duration time) throws IOException, InterruptedException {
    quiet();
    goOnTo(now().plus(time));
    rest();
  }

  /** Both sides have the machine's time again. */
  void releaseClocks() throws IOException, InterruptedException {
    tell("DELETE", at("grounds-board", "/control/clock"), "");
    tell("DELETE", app.resolve("/api/clock"), "");
  }

  @Override
  public void close() {
    calls.close();
  }
}
