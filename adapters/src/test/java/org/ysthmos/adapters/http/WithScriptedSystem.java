package org.ysthmos.adapters.http;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** A system whose answers are given one by one, and that notes what it was asked. */
abstract class WithScriptedSystem {

  static final Instant NOW = Instant.parse("1994-11-06T08:49:07Z");

  record Answer(int status, String body, Map<String, String> headers) {}

  final List<String> seen = new ArrayList<>();
  final List<RemoteCall> calls = new ArrayList<>();
  final List<Answer> answers = new ArrayList<>();
  HttpServer server;
  SystemGateway system;

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext("/", this::answer);
    server.start();
    system =
        SystemReader.read(
                """
                system: jobs
                name: Jobs
                address: http://127.0.0.1:%d
                sign-in: { bearer: { secret: token } }
                timeout: PT1S
                problem: { message: /error, field: /field, full: { at: /code, equal: no-room } }
                quota: { of: open jobs, call: GET /account, used: /jobs/open, most: /jobs/most }
                limit-headers: { left: X-Left, until: X-Until }
                collections:
                  rounds:
                    name: Rounds
                    record: job
                    title: title
                    fields:
                      title: { name: Title, type: text }
                      due: { name: Due, type: moment }
                      priority: { name: Priority, type: number }
                      notes: { name: Notes, type: text }
                    find:
                      - { by: [code], call: "GET /jobs/{code}" }
                      - { by: [who, day], call: "GET /jobs?who={who}&day={day}", items: /items }
                    list: { call: "GET /jobs?newest=yes", items: /items, id: /id }
                    remove: "DELETE /jobs/{id}"
                    find-by-key: { call: "GET /jobs?key={key}", items: /items, id: /id }
                    create:
                      - { call: POST /jobs, fields: [title, due, priority], key-field: key }
                      - { call: "PUT /jobs/{id}/notes", fields: [notes] }
                    change:
                      - { call: "PATCH /jobs/{id}", fields: [title, due, priority] }
                      - { call: "PUT /jobs/{id}/notes", fields: [notes] }
                  orders:
                    name: Orders
                    record: order
                    fields:
                      title: { name: Title, type: text }
                    find:
                      - { by: [id], call: "GET /orders/{id}" }
                    create:
                      - { call: POST /orders, fields: [title], key-header: Idempotency-Key, at: /order }
                    created-id: /order/id
                    change:
                      - { call: "PATCH /orders/{id}", fields: [title], if-match: true, at: /order }
                  parcels:
                    name: Parcels
                    record: parcel
                    fields:
                      title: { name: Title, type: text }
                      owner: { name: Owner, type: person }
                      town: { name: Town, type: text }
                    create:
                      - call: POST /parcels
                        fields: [title, { field: owner, at: /who/owner }, { field: town, at: /who/at/town }]
                        at: /parcel
                    created-id: /parcel/id
                  errands:
                    name: Errands
                    record: errand
                    fields:
                      title: { name: Title, type: text }
                      list: { name: List, type: text }
                    create:
                      - { call: "POST /lists/{list}/errands", fields: [title] }
                    change:
                      - { call: "PATCH /lists/{list}/errands/{id}", fields: [title] }
                  pets:
                    name: Pets
                    record: pet
                    fields:
                      title: { name: Title, type: text }
                      owner: { name: Owner, type: person }
                    find:
                      - { by: [id], call: "GET /pet/{id}" }
                    change:
                      - call: PUT /pet
                        fields: [title, { field: owner, at: /who/owner }]
                        whole: true
                """
                    .formatted(server.getAddress().getPort()))
            .open(new Surroundings(name -> Optional.of("s3cret"), () -> NOW));
  }

  @AfterEach
  void stop() {
    system.close();
    server.stop(0);
  }

  void answer(HttpExchange exchange) throws IOException {
    String body = new String(exchange.getRequestBody().readAllBytes(), UTF_8);
    seen.add(exchange.getRequestMethod() + " " + exchange.getRequestURI() + " " + body);
    for (String header : List.of("Idempotency-Key", "If-Match")) {
      Optional.ofNullable(exchange.getRequestHeaders().getFirst(header))
          .ifPresent(value -> seen.add(header + ": " + value));
    }
    assertThat(exchange.getRequestHeaders().getFirst("Authorization")).isEqualTo("Bearer s3cret");
    Answer answer = answers.removeFirst();
    if (answer.status() == 0) {
      exchange.close();
      return;
    }
    answer.headers().forEach((name, value) -> exchange.getResponseHeaders().set(name, value));
    byte[] bytes = answer.body().getBytes(UTF_8);
    if (answer.headers().containsValue("gzip")) {
      bytes = gzip(bytes);
    }
    exchange.sendResponseHeaders(answer.status(), bytes.length == 0 ? -1 : bytes.length);
    exchange.getResponseBody().write(bytes);
    exchange.close();
  }

  static byte[] gzip(byte[] bytes) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
      zip.write(bytes);
    }
    return out.toByteArray();
  }

  void willAnswer(int status, String body) {
    answers.add(new Answer(status, body, Map.of()));
  }

  static SequencedMap<String, Value> fields() {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("Sweep"));
    fields.put("due", Moment.parse("2026-11-30T17:00:00Z"));
    fields.put("priority", Decimal.parse("1.50"));
    fields.put("notes", Text.of("by hand"));
    return fields;
  }

  TaskGateway.Outcome deliver(
      boolean creates, Optional<String> record, SequencedMap<String, Value> fields) {
    return system.deliver(
        new TaskGateway.Effect(
            "rounds", creates ? EffectKind.CREATE : EffectKind.CHANGE, "key-1", record, fields),
        made -> seen.add("made " + made),
        calls::add);
  }

  World.LookupAnswer find(String key, String value) {
    return system.find("rounds", new LinkedHashMap<>(Map.of(key, value)), calls::add);
  }

  TaskGateway.Outcome order(Optional<String> record) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("Sweep"));
    return system.deliver(
        new TaskGateway.Effect(
            "orders",
            record.isEmpty() ? EffectKind.CREATE : EffectKind.CHANGE,
            "key-1",
            record,
            fields),
        made -> {},
        calls::add);
  }
}
