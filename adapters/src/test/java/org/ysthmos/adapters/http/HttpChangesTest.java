package org.ysthmos.adapters.http;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changes;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.SystemGateway;

/** Pages of changed records over real HTTP, in each way that a description can say. */
class HttpChangesTest {

  private record Told(String body, String link) {}

  private final List<String> asked = new ArrayList<>();
  private Function<String, Told> answer = query -> new Told("{\"items\":[]}", "");
  private HttpServer server;
  private SystemGateway system;

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext(
        "/",
        exchange -> {
          asked.add(exchange.getRequestURI().toString());
          Told told = answer.apply(String.valueOf(exchange.getRequestURI().getQuery()));
          if (!told.link().isEmpty()) {
            exchange.getResponseHeaders().add("Link", told.link());
          }
          byte[] bytes = told.body().getBytes(UTF_8);
          exchange.sendResponseHeaders(200, bytes.length);
          exchange.getResponseBody().write(bytes);
          exchange.close();
        });
    server.start();
  }

  @AfterEach
  void stop() {
    server.stop(0);
    system.close();
  }

  private Changes read(String next, Cursor place) {
    String document =
        """
        system: shop
        name: Shop
        address: http://127.0.0.1:%d
        problem: { message: /error, field: /field }
        timeout: PT5S
        collections:
          orders:
            name: Orders
            record: order
            fields: { /id: { name: id, type: text } }
            poll:
              call: "GET /orders?limit=2"
              items: /items
              id: /id
              version: /rev
              changed: /at
              since: { parameter: from }
              %s
        """
            .formatted(server.getAddress().getPort(), next);
    system =
        SystemReader.read(document)
            .open(new Surroundings(secret -> Optional.empty(), () -> Instant.EPOCH));
    return system.changes("orders", place, call -> {});
  }

  private static Cursor from(String since, String page) {
    return new Cursor(Optional.ofNullable(since), Optional.ofNullable(page));
  }

  private static final String ONE = "{\"id\":7,\"rev\":3,\"at\":\"2026-11-24T10:00:00Z\"}";

  @Test
  void recordIsReadWithItsVersionAndItsMoment() {
    answer = query -> new Told("{\"items\":[" + ONE + "]}", "");
    Page page = (Page) read("", Cursor.BEGINNING);
    assertThat(page.next()).isEmpty();
    var record = page.records().getFirst();
    assertThat(record.id()).isEqualTo("7");
    assertThat(record.version()).isEqualTo("3");
    assertThat(record.changed()).contains(Instant.parse("2026-11-24T10:00:00Z"));
    assertThat(record.created()).isEmpty();
    assertThat(asked).containsExactly("/orders?limit=2");
  }

  @Test
  void linkIsFollowedAsItStandsAndKeepsWhatItSays() {
    answer = query -> new Told("{\"items\":[" + ONE + "]}", "</orders?at=b%20c>; rel=\"next\"");
    Page first = (Page) read("next: { link: next }", from("2026-11-24T09:00:00Z", null));
    assertThat(asked.getFirst()).isEqualTo("/orders?limit=2&from=2026-11-24T09%3A00%3A00Z");
    system.changes("orders", from("2026-11-24T09:00:00Z", first.next().orElseThrow()), c -> {});
    assertThat(asked.getLast()).isEqualTo("/orders?at=b%20c");
  }

  @Test
  void linkToAnotherAddressIsNotFollowedWithOurToken() {
    answer = query -> new Told("{\"items\":[]}", "<https://elsewhere.example/>; rel=next");
    NotRead refused = (NotRead) read("next: { link: next }", Cursor.BEGINNING);
    assertThat(refused.failure().kind()).isEqualTo(FailureKind.SHAPE_CHANGED);
    assertThat(refused.failure().message()).contains("https://elsewhere.example/");
  }

  @Test
  void cursorIsSentUntilThereIsNone() {
    answer =
        query ->
            new Told(
                "{\"items\":["
                    + ONE
                    + "]"
                    + (query.contains("at=") ? "" : ",\"more\":\"x/1\"")
                    + "}",
                "");
    String next = "next: { cursor: /more, parameter: at }";
    Page first = (Page) read(next, Cursor.BEGINNING);
    assertThat(first.next()).contains("x/1");
    Page second = (Page) system.changes("orders", from(null, "x/1"), call -> {});
    assertThat(second.next()).isEmpty();
    assertThat(asked.getLast()).isEqualTo("/orders?limit=2&at=x%2F1");
  }

  /** Else it would be read without end. */
  @Test
  void pageThatIsFollowedByItselfIsRefused() {
    answer = query -> new Told("{\"items\":[" + ONE + "],\"more\":\"same\"}", "");
    String next = "next: { cursor: /more, parameter: at }";
    assertThat(((Page) read(next, Cursor.BEGINNING)).next()).contains("same");
    NotRead refused = (NotRead) system.changes("orders", from(null, "same"), call -> {});
    assertThat(refused.failure().kind()).isEqualTo(FailureKind.SHAPE_CHANGED);
    assertThat(refused.failure().message()).contains("followed by itself");
  }

  @Test
  void numberedPagesEndWithTheFirstEmptyOne() {
    answer = query -> new Told("{\"items\":[" + (query.contains("page=3") ? "" : ONE) + "]}", "");
    String next = "next: { page-number: page }";
    Page first = (Page) read(next, Cursor.BEGINNING);
    assertThat(first.next()).contains("2");
    assertThat(((Page) system.changes("orders", from(null, "2"), call -> {})).next()).contains("3");
    assertThat(((Page) system.changes("orders", from(null, "3"), call -> {})).next()).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          {"orders":[]}                                | no list stands at “/items”
          {"items":[{"rev":1}]}                        | a record has no id at “/id”
          {"items":[{"id":1}]}                         | a record has no version at “/rev”
          {"items":[{"id":1,"rev":1,"at":"yesterday"}]} | “yesterday” at “/at” is no moment
          """)
  void answerThatIsNotAsDescribedIsNamed(String body, String message) {
    answer = query -> new Told(body, "");
    NotRead refused = (NotRead) read("", Cursor.BEGINNING);
    assertThat(refused.failure().kind()).isEqualTo(FailureKind.SHAPE_CHANGED);
    assertThat(refused.failure().message()).contains(message);
  }

  @Test
  void brokenOffAnswerIsNoPage() {
    answer = query -> new Told("{\"items\":[" + ONE, "");
    NotRead refused = (NotRead) read("", Cursor.BEGINNING);
    assertThat(refused.failure().kind().retriesByItself()).isTrue();
  }

  private void shop(String collection) {
    system =
        SystemReader.read(
                """
                system: shop
                name: Shop
                address: http://127.0.0.1:%d
                collections:
                  orders:
                    name: Orders
                    record: order
                    fields: { /id: { name: id, type: text } }
                    %s
                """
                    .formatted(server.getAddress().getPort(), collection))
            .open(new Surroundings(secret -> Optional.empty(), () -> Instant.EPOCH));
  }

  /** What is listed need not say when it changed. */
  @Test
  void allOfACollectionIsReadByTheList() {
    shop(
        "list: { call: GET /orders, items: /items, id: /id,"
            + " next: { cursor: /next, parameter: from } }");
    answer =
        query ->
            query.contains("from=2")
                ? new Told("{\"items\":[{\"id\":9}]}", "")
                : new Told("{\"items\":[{\"id\":7},{\"id\":8}],\"next\":2}", "");
    Page first = (Page) system.whole("orders", Optional.empty(), call -> {});
    assertThat(first.records()).extracting(one -> one.id()).containsExactly("7", "8");
    Page last = (Page) system.whole("orders", first.next(), call -> {});
    assertThat(last.records()).extracting(one -> one.id()).containsExactly("9");
    assertThat(last.next()).isEmpty();
    assertThat(asked).containsExactly("/orders", "/orders?from=2");
  }

  @Test
  void listThatGivesAllAtOnceSaysSo() {
    shop("list: { call: GET /orders, items: /items, id: /id, next: none }");
    answer = query -> new Told("{\"items\":[{\"id\":7}]}", "");
    assertThat(((Page) system.whole("orders", Optional.empty(), call -> {})).next()).isEmpty();
  }

  /** A list without a word of its pages gives the newest, and nobody knows what else there is. */
  @Test
  void listOfTheNewestIsNotTakenForAll() {
    shop("list: { call: GET /orders, items: /items, id: /id }");
    NotRead not = (NotRead) system.whole("orders", Optional.empty(), call -> {});
    assertThat(not.failure().message()).isEqualTo("Shop is not asked for all of a collection");
    assertThat(not.failure().remedy().orElseThrow()).contains("(next)");
    assertThat(asked).isEmpty();
  }

  @Test
  void allOfACollectionIsElseWhatEverChanged() {
    assertThat(read("", Cursor.BEGINNING)).isInstanceOf(Page.class);
    assertThat(system.whole("orders", Optional.empty(), call -> {})).isInstanceOf(Page.class);
    assertThat(asked).containsExactly("/orders?limit=2", "/orders?limit=2");
  }
}
