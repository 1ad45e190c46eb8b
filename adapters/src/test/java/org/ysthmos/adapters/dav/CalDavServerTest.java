package org.ysthmos.adapters.dav;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.Seen;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Choice;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** Against a real CalDAV server, Debian's radicale. */
class CalDavServerTest {

  private static final Instant NOW = Instant.parse("2026-11-24T12:00:00Z");

  @TempDir Path folder;
  private Radicale server;
  private SystemGateway system;
  private String password = "s3cret";

  @BeforeEach
  void start() throws Exception {
    server = Radicale.start(folder);
    system =
        SystemReader.read(server.document())
            .open(new Surroundings(name -> Optional.of(password), () -> NOW));
  }

  @AfterEach
  void stop() throws Exception {
    if (server != null) {
      system.close();
      server.close();
    }
  }

  private void put(String name, String title) throws Exception {
    String task =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Garden//EN\r\nBEGIN:VTODO\r\nUID:%s\r\nDTSTAMP:20200101T000000Z\r\nLAST-MODIFIED:20200101T000000Z\r\nSUMMARY:%s\r\nEND:VTODO\r\nEND:VCALENDAR\r\n";
    assertThat(server.raw("PUT", "/gardener/rounds/" + name + ".ics", task.formatted(name, title)))
        .isIn(201, 204);
  }

  private TaskGateway.Outcome deliver(Optional<String> record, SequencedMap<String, Value> fields) {
    return system.deliver(
        new TaskGateway.Effect(
            "tasks",
            record.isEmpty() ? EffectKind.CREATE : EffectKind.CHANGE,
            "key-1",
            record,
            fields),
        made -> {},
        call -> {});
  }

  private static SequencedMap<String, Value> fields(String title) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of(title));
    fields.put("due", Day.parse("2026-11-30"));
    fields.put("status", new Choice("NEEDS-ACTION"));
    return fields;
  }

  private JsonNode read(String id) {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", id);
    Found found = (Found) system.find("tasks", keys, call -> {});
    return found.records().isEmpty() ? null : found.records().getFirst();
  }

  private TaskGateway.Removal remove(Optional<String> tag) {
    return system.remove("tasks", "key-1", tag, call -> {});
  }

  @Test
  void taskIsMadeOnceChangedAndTakenAway() {
    assertThat(deliver(Optional.empty(), fields("Water the ferns")))
        .isInstanceOf(TaskGateway.Delivered.class);
    // The same again, as after an answer that was lost.
    assertThat(deliver(Optional.empty(), fields("Water the ferns")))
        .isInstanceOf(TaskGateway.Delivered.class);
    assertThat(((Found) system.list("tasks", 10, call -> {})).records()).hasSize(1);
    assertThat(((TaskGateway.Searched) system.findByKey("tasks", "key-1", call -> {})).record())
        .contains("key-1");
    assertThat(read("key-1").path("due").asText()).isEqualTo("2026-11-30");
    var changed = (TaskGateway.Delivered) deliver(Optional.of("key-1"), fields("Water the mosses"));
    assertThat(changed.storedTexts()).containsEntry("title", "Water the mosses");
    assertThat(read("key-1").path("title").asText()).isEqualTo("Water the mosses");
    var since = (TaskGateway.NotRemoved) remove(Optional.of("\"read-before-the-change\""));
    assertThat(since.failure().kind()).isEqualTo(FailureKind.CHANGED_MEANWHILE);
    assertThat(read("key-1")).isNotNull();
    assertThat(remove(Optional.empty())).isInstanceOf(TaskGateway.Removed.class);
    assertThat(remove(Optional.empty())).isInstanceOf(TaskGateway.Removed.class);
    assertThat(read("key-1")).isNull();
    var gone = (TaskGateway.Undelivered) deliver(Optional.of("key-1"), fields("X"));
    assertThat(gone.failure().kind()).isEqualTo(FailureKind.NOT_FOUND);
  }

  @Test
  void onlyWhatChangedSinceIsToldHoweverOldItSaysItIs() throws Exception {
    put("before", "Was here");
    MetItems met = new MetItems(system, "tasks");
    assertThat(met.pass()).isEmpty();
    put("a", "Rake");
    put("before", "Is changed");
    List<Changed> changes = met.pass();
    assertThat(changes).extracting(Changed::id).containsExactlyInAnyOrder("a", "before");
    assertThat(changes).allMatch(change -> change.changed().isEmpty());
    assertThat(changes).allMatch(change -> !change.version().isEmpty());
    server.raw("DELETE", "/gardener/rounds/a.ics", "");
    List<Changed> gone = met.pass();
    assertThat(gone).singleElement().satisfies(one -> assertThat(one.kind()).contains("removed"));
    assertThat(met.pass()).isEmpty();
  }

  @Test
  void moreChangesThanAPageAreAllToldAlsoThoseThatComeMeanwhile() throws Exception {
    MetItems met = new MetItems(system, "tasks");
    met.pass();
    List<String> expected = new ArrayList<>();
    for (int i = 0; i < 120; i++) {
      put("t" + i, "T");
      expected.add("t" + i);
    }
    Cursor first = met.cursor();
    Page page = (Page) system.changes("tasks", first, call -> {});
    List<String> told = new ArrayList<>(page.records().stream().map(Changed::id).toList());
    // One that was told already changes while the pass goes on.
    put("t0", "Later");
    while (page.next().isPresent()) {
      page = (Page) system.changes("tasks", new Cursor(first.since(), page.next()), call -> {});
      told.addAll(page.records().stream().map(Changed::id).toList());
    }
    assertThat(told).containsExactlyInAnyOrderElementsOf(expected);
    met.goOnFrom(page.since().orElseThrow());
    assertThat(met.pass()).extracting(Changed::id).containsExactly("t0");
  }

  private static final String FORGOTTEN = "http://radicale.org/ns/sync/" + "0".repeat(64);

  @Test
  void tokenThatTheServerForgotTellsWhatIsOtherThanItWasMetAndNothingElse() throws Exception {
    put("a", "A");
    put("b", "B");
    put("c", "C");
    MetItems met = new MetItems(system, "tasks");
    met.pass();
    put("b", "Changed while nobody asked");
    put("d", "New");
    server.raw("DELETE", "/gardener/rounds/c.ics", "");
    met.goOnFrom(FORGOTTEN);
    assertThat(met.pass())
        .extracting(change -> change.id() + " " + change.kind().orElse(""))
        .containsExactlyInAnyOrder("b ", "d ", "c removed");
    assertThat(met.pass()).isEmpty();
  }

  @Test
  void taskThatAPersonWantsAgainIsReadThoughNothingChanged() throws Exception {
    MetItems met = new MetItems(system, "tasks");
    met.pass();
    put("a", "A");
    met.pass();
    assertThat(met.pass()).isEmpty();
    met.items().put("a", Seen.AGAIN + "1");
    assertThat(met.pass()).extracting(Changed::id).containsExactly("a");
    assertThat(met.pass()).isEmpty();
  }

  @Test
  void taskThatIsRestoredWithTheSameBytesIsToldAgain() throws Exception {
    MetItems met = new MetItems(system, "tasks");
    met.pass();
    put("a", "A");
    String first = met.pass().getFirst().version();
    server.raw("DELETE", "/gardener/rounds/a.ics", "");
    assertThat(met.pass()).hasSize(1);
    put("a", "A");
    assertThat(met.pass())
        .singleElement()
        .satisfies(change -> assertThat(change.version()).isNotEqualTo(first));
  }

  @Test
  void passwordThatIsWrongIsNamed() {
    password = "other";
    NotRead notRead = (NotRead) system.changes("tasks", Cursor.BEGINNING, call -> {});
    assertThat(notRead.failure().kind()).isIn(FailureKind.NOT_SIGNED_IN, FailureKind.NOT_ALLOWED);
  }
}
