package org.ysthmos.adapters.hook;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;

class PushReaderTest {

  private static final Instant NOW = Instant.parse("2026-11-24T13:58:07Z");
  private static final Push PUSH =
      new Push(
          new Push.Verify.StandardWebhooks("secret"),
          new Push.IdAt.Header("webhook-id"),
          Pointer.parse("/data/id"),
          Pointer.parse("/type"),
          Map.of("form.sent", "created"),
          Optional.empty(),
          Optional.empty(),
          Optional.empty());

  private static Event read(String body) throws PushReader.Unreadable {
    return PushReader.read(PUSH, "desk", "forms", "msg_1", body.getBytes(UTF_8), NOW);
  }

  @Test
  void readsTheEventUnderOurWords() throws Exception {
    Event event = read("{\"type\":\"form.sent\",\"data\":{\"id\":77},\"extra\":1.10}");
    assertThat(event.kind()).isEqualTo("created");
    assertThat(event.record()).isEqualTo("77");
    assertThat(event.id()).isEqualTo("msg_1");
    assertThat(event.time()).isEqualTo(NOW);
    assertThat(event.data().path("extra").decimalValue()).isEqualByComparingTo("1.1");
  }

  @Test
  void kindNobodyNamedIsKeptAsItIs() throws Exception {
    assertThat(read("{\"type\":\"form.closed\",\"data\":{\"id\":\"a\"}}").kind())
        .isEqualTo("form.closed");
  }

  @Test
  void placeOfTheMistakeIsTold() {
    assertThatThrownBy(() -> read("{\n  \"type\" \"x\"}"))
        .isInstanceOf(PushReader.Unreadable.class)
        .hasMessageContaining("line 2");
    assertThatThrownBy(() -> read("{\"type\":\"a\",\"data\":{\"id\":\"b\"}} and more"))
        .isInstanceOf(PushReader.Unreadable.class);
    assertThatThrownBy(() -> read("{\"type\":\"a\",\"data\":{\"id\":{}}}"))
        .hasMessageContaining("no id at “/data/id”");
  }

  /** Its last change bears the same version, and must not be taken for it. */
  @Test
  void removalIsAnEventOfItsOwn() throws Exception {
    Push push =
        new Push(
            PUSH.verify(),
            PUSH.event(),
            PUSH.record(),
            PUSH.kind(),
            Map.of("form.sent", "changed", "form.gone", "removed"),
            Optional.of(Pointer.parse("/data/rev")),
            Optional.of(Pointer.parse("/data")),
            Optional.empty());
    byte[] changed = "{\"type\":\"form.sent\",\"data\":{\"id\":77,\"rev\":4}}".getBytes(UTF_8);
    byte[] removed = "{\"type\":\"form.gone\",\"data\":{\"id\":77,\"rev\":4}}".getBytes(UTF_8);
    assertThat(PushReader.read(push, "desk", "forms", "msg_1", changed, NOW).id())
        .isEqualTo("forms/77@4");
    assertThat(PushReader.read(push, "desk", "forms", "msg_2", removed, NOW).id())
        .isEqualTo("msg_2");
  }

  @Test
  void manyPlacesTellAtOneAddress() throws Exception {
    Push push =
        new Push(
            PUSH.verify(),
            PUSH.event(),
            PUSH.record(),
            PUSH.kind(),
            PUSH.kinds(),
            Optional.empty(),
            Optional.empty(),
            Optional.of(Pointer.parse("/list")));
    byte[] told = "{\"type\":\"form.sent\",\"data\":{\"id\":77},\"list\":\"a b\"}".getBytes(UTF_8);
    assertThat(PushReader.read(push, "desk", "lists", "msg_1", told, NOW).collection())
        .isEqualTo("lists:a%20b");
    // At the address of one of them it is that one.
    assertThat(PushReader.read(push, "desk", "lists:c", "msg_1", told, NOW).collection())
        .isEqualTo("lists:c");
    byte[] without = "{\"type\":\"form.sent\",\"data\":{\"id\":77}}".getBytes(UTF_8);
    assertThatThrownBy(() -> PushReader.read(push, "desk", "lists", "msg_1", without, NOW))
        .hasMessageContaining("no place at “/list”");
  }
}
