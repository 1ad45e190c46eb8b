package org.ysthmos.adapters.hook;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.gateway.ChangeGateway.Changed;

class PolledEventTest {

  private static SystemCollection collection(String push) {
    return SystemReader.read(
            """
            system: shop
            name: Shop
            address: http://127.0.0.1:1
            problem: { message: /error, field: /field }
            timeout: PT5S
            collections:
              orders:
                name: Orders
                record: order
                fields: { /id: { name: id, type: text } }
                poll: { call: GET /orders, items: /items, id: /id, version: /rev }
                %s
            """
                .formatted(push))
        .collections()
        .get("orders");
  }

  private static final String PUSH =
      """
      push:
                  verify: { standard-webhooks: { secret: hook } }
                  record: /data/order
                  kind: /type
                  version: /data/rev
                  kinds: { order.made: created, order.edited: changed }
      """;

  private static Changed record(String version) {
    JsonNode body = JsonNodeFactory.instance.objectNode().put("id", "o-1").put("rev", version);
    return new Changed("o-1", version, Optional.empty(), Optional.empty(), body);
  }

  @Test
  void recordOfACollectionThatIsOnlyAskedIsTheEvent() {
    SystemCollection asked = collection("");
    assertThat(PolledEvent.data(asked, record("4"), "created").path("rev").asText()).isEqualTo("4");
    assertThat(asked.shape().eventFields()).isEqualTo(asked.shape().fields());
  }

  /** A bridge finds the same fields, and a change that comes both ways is one event. */
  @Test
  void changeThatIsAlsoPushedIsTheSameEvent() throws Exception {
    SystemCollection both = collection(PUSH);
    JsonNode body = PolledEvent.data(both, record("4"), "changed");
    assertThat(body)
        .hasToString("{\"data\":{\"order\":\"o-1\",\"rev\":\"4\"},\"type\":\"order.edited\"}");
    var pushed =
        PushReader.read(
            both.push().orElseThrow(),
            "shop",
            "orders",
            "msg_9",
            body.toString().getBytes(UTF_8),
            Instant.EPOCH);
    assertThat(pushed.id()).isEqualTo(PolledEvent.id("orders", "o-1", "4"));
    assertThat(pushed.kind()).isEqualTo("changed");
  }

  @Test
  void idsStayShortAndApart() {
    String long1 = PolledEvent.id("orders", "o".repeat(300), "1");
    assertThat(long1.length()).isLessThanOrEqualTo(256);
    assertThat(long1).isNotEqualTo(PolledEvent.id("orders", "o".repeat(300), "2"));
    assertThat(PolledEvent.id("orders", "o-1", "1")).isEqualTo("orders/o-1@1");
  }
}
