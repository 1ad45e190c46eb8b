package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** An installation is written into a folder and made what it says, at rest and under kills. */
class ApplyIT {

  private static final Together TOGETHER = new Together();
  private static final String EXPORT = "org.ysthmos.app.installation.ExportCommand";
  private static final String APPLY = "org.ysthmos.app.installation.ApplyCommand";
  private static final String BRIDGE = "bridges/hazard-to-grounds.yaml";
  private static final String TABLE = "tables/stewards.yaml";
  private static final int FINE = 0;
  private static final int DIFFERS = 1;
  private static final int REFUSED = 2;

  @AfterAll
  static void stop() {
    TOGETHER.close();
  }

  private static ObjectNode documents() {
    return (ObjectNode) ask("GET", "", "").path("documents");
  }

  private static JsonNode ask(String method, String path, String body) {
    return TOGETHER.json(
        method,
        TOGETHER.appAddress() + "/api/installation" + path,
        body,
        Map.of("Content-Type", "application/json"));
  }

  private static Map<String, String> files(Path folder) throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      return all.filter(Files::isRegularFile)
          .collect(
              Collectors.toMap(
                  file -> folder.relativize(file).toString(),
                  file -> {
                    try {
                      return Files.readString(file);
                    } catch (IOException e) {
                      throw new UncheckedIOException(e);
                    }
                  }));
    }
  }

  private static void change(Path file, String found, String instead) throws IOException {
    String text = Files.readString(file);
    assertThat(text).contains(found);
    Files.writeString(file, text.replace(found, instead));
  }

  @Test
  void aFolderIsAppliedAtRestAndWhileItRunsAndExportedAsItWas() throws Exception {
    Path folder = TOGETHER.kept("documents");
    String port = Integer.toString(TOGETHER.port());
    assertThat(TOGETHER.command(EXPORT, folder.toString(), "--port", port)).isEqualTo(FINE);
    Map<String, String> first = files(folder);
    assertThat(first).containsKeys(BRIDGE, TABLE, "calendars/garden.yaml", "alarms.yaml");
    assertThat(TOGETHER.command(APPLY, folder.toString(), "--port", port)).isEqualTo(FINE);
    change(folder.resolve(TABLE), "bu-22", "bu-23");
    // The drift is told, and nothing is done without a yes.
    assertThat(TOGETHER.command(APPLY, folder.toString(), "--port", port)).isEqualTo(DIFFERS);
    assertThat(documents().path(TABLE).asText()).isEqualTo(first.get(TABLE));
    assertThat(TOGETHER.command(APPLY, folder.toString(), "--port", port, "--yes")).isEqualTo(FINE);
    assertThat(documents().path(TABLE).asText()).contains("bu-23").doesNotContain("bu-22");

    int unused = TOGETHER.stop();
    Files.writeString(folder.resolve(TABLE), first.get(TABLE));
    Files.writeString(folder.resolve("notes.txt"), "none of ours");
    assertThat(TOGETHER.command(APPLY, folder.toString(), "--yes")).isEqualTo(FINE);
    assertThat(TOGETHER.command(EXPORT, folder.toString())).isEqualTo(FINE);
    Files.delete(folder.resolve("notes.txt"));
    assertThat(files(folder)).isEqualTo(first);
    Files.writeString(folder.resolve(BRIDGE), "bridge: nonsense\n");
    assertThat(TOGETHER.command(APPLY, folder.toString(), "--yes")).isEqualTo(REFUSED);
    TOGETHER.restart();
    assertThat(documents().path(TABLE).asText()).isEqualTo(first.get(TABLE));
  }

  /** Of a plan with many documents all are done or none, whenever the kill comes. */
  @Test
  void killsInTheMiddleLeaveItWholeOrUntouched() throws Exception {
    Random random = new Random(20261129L);
    for (int round = 0; round < 4; round++) {
      ObjectNode before = documents();
      ObjectNode wanted = before.deepCopy();
      for (int i = 0; i < 20; i++) {
        wanted.put(
            "tables/made-%d-%d.yaml".formatted(round, i),
            "table: made-%d-%d\nname: Made\nkeys: [k]\nvalues: { v: text }\n".formatted(round, i));
      }
      ObjectNode body = before.objectNode().set("documents", wanted);
      body.put("plan", ask("POST", "/plan", body.toString()).path("id").asText());
      CompletableFuture<Void> applying =
          CompletableFuture.runAsync(
              () -> {
                JsonNode unused = ask("POST", "/apply", body.toString());
              });
      // How long a round lasts is what the seed chooses; nothing is waited for.
      Thread.sleep(random.nextInt(200));
      TOGETHER.kill();
      assertThat(applying.handle((done, broken) -> true).get()).isTrue();
      TOGETHER.restart();
      String made = "tables/made-%d-".formatted(round);
      assertThat(
              documents().properties().stream()
                  .filter(one -> one.getKey().startsWith(made))
                  .count())
          .isIn(0L, 20L);
    }
  }
}
